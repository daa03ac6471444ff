import abcjs from 'abcjs';
import { instrumentById, instruments } from '../fingering';
import { usualOrnaments } from '../movement';
import { exerciseSchema, lineAbc, notesOfLine } from '../line';
import { ornamentExercises, ornamentLines, type OrnamentExercise } from '.';

const whistle = instrumentById('whistle-d');
const lines = (kind: OrnamentExercise) => ornamentLines(whistle, kind, usualOrnaments);
const abc = (kind: OrnamentExercise): string =>
  lines(kind)
    .lines.map((line) => lineAbc(whistle, line).split('\n')[4])
    .join(' ');

describe('lines of ornaments', () => {
  it('cuts go over the scale by the nearest finger; all open there is none, and it is said', () => {
    expect(lines('cuts').leftOut).toEqual(['on C sharp']);
    const notes = lines('cuts').lines.flatMap((line) => notesOfLine(whistle, line));
    expect(notes.filter(({ graceNotes }) => graceNotes !== undefined).map(({ note, graceNotes }) => [note, graceNotes?.[0]])).toEqual(
      expect.arrayContaining([
        ['d5', 'e5'],
        ['e5', 'fs5'],
        ['g5', 'a5'],
        ['a5', 'b5'],
      ]),
    );
  });

  it('taps leave out the lowest note', () => {
    expect(lines('taps').leftOut).toContain('on D');
  });

  it('a long roll is three even notes, the second cut, the third tapped, and a plain one after', () => {
    const [line] = lines('long-rolls').lines;
    expect(notesOfLine(whistle, line).slice(0, 4)).toEqual([
      { note: 'e5', twelfths: 6 },
      { note: 'e5', twelfths: 6, graceNotes: ['fs5'] },
      { note: 'e5', twelfths: 6, graceNotes: ['d5'] },
      { note: 'e5', twelfths: 6 },
    ]);
  });

  it('crans are on the lowest note, each cut another finger: short, long, three cuts', () => {
    const notes = lines('crans').lines.flatMap((line) => notesOfLine(whistle, line));
    expect(new Set(notes.map(({ note }) => note))).toEqual(new Set(['d5']));
    expect(notes.flatMap(({ graceNotes = [] }) => graceNotes).slice(0, 7)).toEqual(['a5', 'g5', 'a5', 'g5', 'a5', 'g5', 'fs5']);
  });

  it('every line of every whistle and Irish chanter is within what a sheet holds and is engraved without a fault (property)', () => {
    for (const instrument of instruments.filter(({ family }) => family === 'whistle' || family === 'irish-pipes'))
      for (const kind of ornamentExercises)
        for (const line of ornamentLines(instrument, kind, usualOrnaments).lines) {
          expect(exerciseSchema.safeParse(line.exercise).error).toBeUndefined();
          expect(abcjs.parseOnly(lineAbc(instrument, line))[0].warnings ?? []).toEqual([]);
        }
  });

  it('is engraved as it is meant', () => {
    expect(abc('cuts')).toMatch(/^D {E}D E {F}E \| F {G}F G {A}G \|/);
  });
});
