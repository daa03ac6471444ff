import { instrumentById, practiceChanter as chanter } from '../fingering';
import { changesOfTune, readTune } from '../tune';
import { countText, lineMusic, lineNotes, linesAsAbc, lineTitle, paceText, startingTempo } from '../line';
import { changesToPractise, expectedSeconds, heldPhrase, plannedLine, tenMinuteSheet } from '.';

const changes = (music: string) => changesOfTune(chanter, readTune(chanter, `X:1\nT:t\nM:4/4\nL:1/4\nK:HP\n${music}\n`)).open;

describe('lines', () => {
  it('are four bars of home-other-home-other, eight of the change', () => {
    const line = { home: 'c', other: 'e' };
    expect(lineMusic(chanter, line)).toBe('c e c e | c e c e | c e c e | c e c e |]');
    expect(lineNotes(line)).toHaveLength(16);
    expect(lineNotes(line).filter((note) => note === 'e')).toHaveLength(8);
    expect(lineTitle(chanter, line)).toBe('C to E');
  });

  it('go out as ABC that reads back as the same notes', () => {
    const abc = linesAsAbc(chanter, 'Week 1', [{ home: 'low-a', other: 'high-a', tempo: 60, point: 'listen\nto the octave' }]);
    const tune = readTune(chanter, abc);
    expect(tune.title).toContain('low A to high A');
    expect(tune.tempo).toBe(60);
    expect(tune.notes.map(({ written }) => written.kind === 'note' && written.note)).toEqual(lineNotes({ home: 'low-a', other: 'high-a' }));
    expect(abc).toContain('N:listen to the octave\n');
  });

  it('start free where a low note can pop in, on a click where not', () => {
    expect(startingTempo(chanter, { home: 'c', other: 'e' })).toBeNull();
    expect(startingTempo(chanter, { home: 'b', other: 'c' })).toBe(60);
    expect(startingTempo(chanter, { home: 'e', other: 'high-g' })).toBe(48);
  });
});

describe('counts', () => {
  const exercise = { title: 't', musical: '', physical: '', focus: 'fingers', notes: [] } as const;

  it.each([
    [{ repetitions: 1 }, '1 line (8 changes)'],
    [{ repetitions: 3 }, '3 lines (24 changes)'],
    [{ repetitions: 1, exercise }, 'once through'],
    [{ repetitions: 4, exercise }, '4 times through'],
    [{ repetitions: 1, exercise, speeds: [40, 60] }, 'once through at each speed'],
  ])('%j is "%s"', (line, text) => {
    expect(countText(line)).toBe(text);
  });

  it('a new line is the eight changes that a teacher asks for', () => {
    expect(plannedLine(chanter, { home: 'c', other: 'e' }).repetitions).toBe(1);
  });

  it.each([
    [{ tempo: null }, 'no click'],
    [{ tempo: 60 }, '60 beats a minute'],
    [{ tempo: 40, speeds: [40, 60, 80] }, '40, 60, 80 beats a minute, until the first slip'],
  ])('the pace %j is "%s"', (line, text) => {
    expect(paceText(line)).toBe(text);
  });

  it('a drill takes a count-in and its times through at each speed, and one rest', () => {
    expect(expectedSeconds({ repetitions: 1, tempo: 40, speeds: [40, 80] })).toBe(20 * 1.5 + 20 * 0.75 + 40);
  });
});

describe('tenMinuteSheet', () => {
  it('takes the heaviest changes, both directions in one line, until most of the trouble is held', () => {
    const sheet = tenMinuteSheet(chanter, changes('c e c e|c e c e|c e c e|B c A A|'));
    expect(sheet.lines.map((line) => [line.home, line.other])).toEqual([['c', 'e']]);
    expect(sheet.heldMoments).toBe(11);
    expect(sheet.troubledMoments).toBeGreaterThan(11);
  });

  it('never takes more than ten minutes, rests included', () => {
    const sheet = tenMinuteSheet(chanter, changes('A c A d|B e B f|c e c f|d e d g|c a d a|B a E a|'));
    expect(sheet.lines.length).toBeGreaterThan(1);
    expect(sheet.lines.reduce((sum, line) => sum + expectedSeconds(line), 0)).toBeLessThanOrEqual(600);
    expect(sheet.minutes).toBeLessThanOrEqual(10);
  });

  it('plays lines less often rather than leaving trouble out, but never fewer than three times', () => {
    const few = tenMinuteSheet(chanter, changes('c e c e|c e c e|'));
    const many = tenMinuteSheet(chanter, changes('A c A d|B e B f|c e c f|d e d g|c a d a|'));
    expect(few.lines.map((line) => line.repetitions)).toEqual([8]);
    expect(many.lines.length).toBeGreaterThan(3);
    for (const line of many.lines) expect(line.repetitions).toBeLessThan(8);
    for (const line of many.lines) expect(line.repetitions).toBeGreaterThanOrEqual(3);
  });

  it('says what it holds', () => {
    expect(heldPhrase({ lines: [], heldMoments: 19, troubledMoments: 22, minutes: 9 })).toBe(
      'These 0 lines cover 19 of the 22 places in the tune that can go wrong.',
    );
    const [line] = tenMinuteSheet(chanter, changes('c e c e|')).lines;
    expect(heldPhrase({ lines: [line], heldMoments: 3, troubledMoments: 3, minutes: 3 })).toBe(
      'This line covers 3 of the 3 places in the tune that can go wrong.',
    );
  });

  it('counts what the tongue hides too, at what is left of it: a tongued tune has its lines', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    const tune = readTune(recorder, 'X:1\nT:t\nM:4/4\nL:1/4\nK:C\nc2 e2|d2 c2|c e d c|f _B c2|\n');
    const tongued = changesOfTune(recorder, tune, 'tongued');
    expect(tongued.open).toEqual([]);
    const troubled = tongued.tongued.filter(({ trouble }) => trouble.kind !== 'none');
    expect(troubled.length).toBeGreaterThan(0);
    expect(tenMinuteSheet(recorder, changesToPractise(tongued)).lines.length).toBeGreaterThan(0);
    const slurred = new Map(changesOfTune(recorder, tune, 'slurred').open.map(({ id, difficulty }) => [id, difficulty]));
    for (const { id, difficulty } of troubled) expect(difficulty).toBeLessThanOrEqual(slurred.get(id) ?? 0);
  });

  it('is empty for a tune without trouble', () => {
    expect(tenMinuteSheet(chanter, changes('A e A e|')).lines).toEqual([]);
  });
});
