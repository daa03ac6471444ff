import abcjs from 'abcjs';
import { practiceChanter as chanter } from '../fingering';
import { movementById, usualMovementSettings, type MovementDefinition } from '../movement';
import { exerciseSchema, lineAbc, movementLines, notesOfLine, type MovementExercise } from '.';

const lines = (id: MovementDefinition['id'], kind: MovementExercise, before = 'e', after = 'c') =>
  movementLines(chanter, { kind, movement: movementById(id), before, after, settings: usualMovementSettings });
const abc = (...asked: Parameters<typeof lines>): string =>
  lines(...asked)
    .lines.map((line) => lineAbc(chanter, line).split('\n')[4])
    .join(' ');

describe('lines of a movement', () => {
  it('the grace note scale goes up with G, thumb into high G, nothing into high A, and down with the thumb on F', () => {
    expect(abc('grace-note', 'scale')).toBe(
      '{g}G2 {g}A2 | {g}B2 {g}c2 | {g}d2 {g}e2 | {g}f2 {a}g2 | a2 g2 |] {a}f2 {g}e2 | {g}d2 {g}c2 | {g}B2 {g}A2 | {g}G4 |]',
    );
  });

  it('a doubling from every note leaves out the note itself and says so', () => {
    const { lines: made, leftOut } = lines('doubling', 'from-every-note');
    expect(leftOut).toEqual(['from C itself: the same note before and after']);
    const notes = made.flatMap(notesOfLine);
    expect(notes.filter(({ note }) => note === 'c')).toHaveLength(8);
    expect(notes.at(-1)?.graceNotes?.join(' ')).toBe('c d');
  });

  it('a scale of a movement that ends on one note is that note from every other', () => {
    expect(lines('light-throw', 'scale').lines[0].exercise?.title).toMatch(/^Throw on D on D from every note/);
    expect(abc('light-throw', 'scale')).toContain('{dc}d2');
  });

  it('a taps scale leaves out low G; a movement that cannot be says why', () => {
    expect(lines('tap', 'scale').leftOut).toContain('on low G');
    expect(lines('taorluath', 'repeated', 'e', 'f')).toMatchObject({ lines: [], leftOut: [expect.stringContaining('ends on low A, B, C')] });
  });

  it('is within what a sheet holds and is engraved without a fault', () => {
    for (const id of ['doubling', 'strike', 'taorluath', 'crunluath', 'birl', 'doubling-strike'] as const) {
      for (const line of lines(id, 'scale').lines) {
        expect(exerciseSchema.safeParse(line.exercise).success).toBe(true);
        expect(abcjs.parseOnly(lineAbc(chanter, line))[0].warnings ?? []).toEqual([]);
      }
    }
  });
});
