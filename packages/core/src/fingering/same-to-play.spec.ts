import { chartedFingering, chartedPattern, fingerCoverage, instrumentById, isSameFingers, isSameToPlay, noteReadAs, notesThatDiffer, withSchools } from '.';
import { centsBetween, hertz } from '../pitch';
import { soundingPitch } from './lookup';
import { tablePitch } from '../acoustics';

const [split, right] = ['ocarina-12-c-split', 'ocarina-12-c-right'].map(instrumentById);
const open = (id: string, note: string): readonly string[] => {
  const { holes } = instrumentById(id);
  return chartedPattern(instrumentById(id), note).flatMap((coverage, hole) => (coverage === 0 ? [holes[hole].finger] : []));
};

describe('the sub-holes of an ocarina', () => {
  it('leave the smaller one covered for B: the right hand’s where they are split, the second where both lie on the right', () => {
    expect(open('ocarina-12-c-split', 'b4')).toEqual(['L2']);
    expect(open('ocarina-12-c-right', 'b4')).toEqual(['R2']);
    expect(fingerCoverage(split, chartedPattern(split, 'b4'), 'R2')).toBe(1);
    expect(fingerCoverage(right, chartedPattern(right, 'b4'), 'R3')).toBe(1);
  });

  it('sound in tune in every layout and order: their sizes follow it', () => {
    for (const instrument of [split, right, withSchools(split, { 'sub-hole': 'far' }), withSchools(right, { 'sub-hole': 'far' })]) {
      for (const note of ['a4', 'b4', 'c5']) {
        const pitch = tablePitch(instrument, chartedPattern(instrument, note))?.hertz ?? 0;
        expect(Math.abs(centsBetween(soundingPitch(instrument, note), hertz(pitch)))).toBeLessThan(5);
      }
    }
  });

  it('change places with a maker’s other order', () => {
    const far = withSchools(split, { 'sub-hole': 'far' });
    expect(fingerCoverage(far, chartedPattern(far, 'b4'), 'L2')).toBe(1);
    expect(fingerCoverage(far, chartedPattern(far, 'b4'), 'R2')).toBeLessThan(1);
    expect(far.fingerings).toBe(split.fingerings);
  });
});

describe('isSameToPlay', () => {
  it('differs between the two layouts only where one sub-hole is open and the other covered', () => {
    const differing = split.notes.filter(({ id }) => !isSameToPlay(split, chartedPattern(split, id), right, chartedPattern(right, id)));
    expect(differing.map(({ schoolName }) => schoolName)).toEqual(['low B', 'C sharp', 'E flat']);
  });

  it('differs between the recorder’s models exactly where the patterns do', () => {
    const [baroque, german] = ['recorder-soprano-baroque', 'recorder-soprano-german'].map(instrumentById);
    for (const { id } of baroque.notes) {
      const [one, other] = [baroque, german].map((model) => chartedFingering(model, id).pattern);
      expect(isSameToPlay(baroque, one, german, other)).toBe(isSameFingers(one, other));
    }
  });
});

describe('notes that two models finger otherwise', () => {
  const [baroque, german] = ['recorder-soprano-baroque', 'recorder-soprano-german'].map(instrumentById);

  it('are the F’s and what leans on them, the same from both sides', () => {
    const differing = notesThatDiffer(baroque, german);
    expect(differing).toEqual(notesThatDiffer(german, baroque));
    for (const note of ['f5', 'fs5', 'bb5', 'f6']) expect([note, differing.has(note)]).toEqual([note, true]);
    for (const note of ['c5', 'e5', 'g5', 'a5', 'd6', 'g6']) expect([note, differing.has(note)]).toEqual([note, false]);
  });

  it.each([
    ['whistle-d', 'd5', 'whistle-c', 'c5'],
    ['recorder-soprano-baroque', 'f5', 'recorder-soprano-german', 'f5'],
    ['recorder-soprano-baroque', 'c5', 'recorder-tenor-german', 'c4'],
    ['practice-chanter', 'e', 'pipe-chanter', 'e'],
  ])('on the %s %s is read as on the %s %s', (from, note, on, wanted) => {
    expect(noteReadAs(instrumentById(from), note, instrumentById(on))).toBe(wanted);
  });

  it('what the other instrument does not have is read as nothing', () => {
    expect(noteReadAs(instrumentById('recorder-soprano-baroque'), 'a5', instrumentById('ocarina-12-c-split'))).toBe('a4');
    expect(noteReadAs(instrumentById('whistle-d'), 'd7', instrumentById('irish-chanter-d'))).toBeUndefined();
    expect(noteReadAs(baroque, 'no-note', german)).toBeUndefined();
  });
});
