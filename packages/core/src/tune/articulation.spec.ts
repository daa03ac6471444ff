import { asPlayed, instrumentById, soundingPitch, type Instrument } from '../fingering';
import { changesOfTune, isTongued, readTune, type Articulation } from '.';

const recorder = instrumentById('recorder-soprano-baroque');
const whistle = instrumentById('whistle-d');
const tune = (music: string, key = 'F') => readTune(recorder, `X:1\nT:Try\nM:4/4\nL:1/4\nK:${key}\n${music}`);

describe('articulation', () => {
  it('is read from slurs: the first note under one is tongued, the others are not; a tie is neither', () => {
    const notes = tune('F (G A) B|c- c (d (e) f)|').notes;
    expect(notes.map(({ isSlurred }) => isSlurred)).toEqual([false, false, true, false, false, false, false, true, true]);
    expect(notes.map((note) => isTongued(note, 'written'))).toEqual([true, true, false, true, true, false, true, false, false]);
    expect(notes.every((note) => !isTongued(note, 'slurred'))).toBe(true);
    expect(notes.map((note) => isTongued(note, 'tongued'))).toEqual([true, true, true, true, true, false, true, true, true]);
  });

  it.each<[Articulation, number, number]>([
    ['slurred', 3, 0],
    ['tongued', 0, 3],
    ['written', 1, 2],
  ])('%s leaves %d changes open and hides %d', (articulation, open, hidden) => {
    const changes = changesOfTune(recorder, tune('F (G A) c|'), articulation);
    expect([changes.open.length, changes.tongued.length]).toEqual([open, hidden]);
  });
});

describe('keys', () => {
  const namesOf = (music: string, key: string): string[] =>
    readTune(whistle, `X:1\nT:Try\nM:4/4\nL:1/4\nK:${key}\n${music}`).notes.map(({ written }) => (written.kind === 'note' ? written.note : written.kind));

  it.each([
    ['D', ['d5', 'fs5', 'c', 'cs6']],
    ['G', ['d5', 'fs5', 'c', 'c6']],
    ['Dmix', ['d5', 'fs5', 'c', 'c6']],
    ['Em', ['d5', 'fs5', 'c', 'c6']],
    ['Ador', ['d5', 'fs5', 'c', 'c6']],
    ['Dm', ['d5', 'f5', 'c', 'c6']],
    ['Bb', ['d5', 'f5', 'c', 'c6']],
  ])('K:%s gives its own F and C', (key, [d, f, , c]) => {
    expect(namesOf('D F c', key)).toEqual([d, f, c]);
  });

  it.each(['HP', 'Hp'])('K:%s gives the sharps that the pipes play', (key) => {
    expect(namesOf('d f c', key)).toEqual(['d6', 'fs6', 'cs6']);
  });

  it('an accidental holds to the bar line and no further', () => {
    expect(namesOf('^G G|G =c|_B B|B', 'D')).toEqual(['gs5', 'gs5', 'g5', 'c6', 'bb5', 'bb5', 'b5']);
  });
});

describe('an ocarina whose music is written an octave lower', () => {
  const ocarina = instrumentById('ocarina-12-c-split');
  const lower = asPlayed(ocarina, { tuning: { kind: 'chart' }, schools: {}, referenceHertz: null, written: 'octave-lower' });
  const noteIds = (instrument: Instrument, music: string): string[] =>
    readTune(instrument, `X:1\nT:t\nM:4/4\nL:1/4\nK:C\n${music}\n`).notes.map(({ written }) => (written.kind === 'note' ? written.note : written.kind));

  it('fingers the same notes an octave lower on the page', () => {
    const written = ocarina.notes.filter(({ writtenName }) => writtenName.length === 1).map(({ abc }) => abc);
    const down = (abc: string): string => (abc === abc.toUpperCase() ? `${abc},` : abc.toUpperCase());
    const simple = written.filter((abc) => !abc.includes("'") && !abc.includes(','));
    expect(simple.length).toBeGreaterThan(5);
    expect(noteIds(lower, simple.map(down).join(' '))).toEqual(noteIds(ocarina, simple.join(' ')));
    expect(noteIds(ocarina, simple.map(down).join(' '))).toContain('outside');
  });

  it('is the same to play and to hear', () => {
    expect(lower.fingerings).toEqual(ocarina.fingerings);
    expect(lower.notes.map(({ id }) => soundingPitch(lower, id))).toEqual(ocarina.notes.map(({ id }) => soundingPitch(ocarina, id)));
  });

  it('is a setting of ocarinas only', () => {
    expect(asPlayed(whistle, { tuning: { kind: 'chart' }, schools: {}, referenceHertz: null, written: 'octave-lower' }).notes).toEqual(whistle.notes);
  });
});
