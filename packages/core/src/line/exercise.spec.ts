import abcjs from 'abcjs';
import * as fc from 'fast-check';
import { crossesOf } from '../change';
import { instrumentById, instruments, noteOf, practiceChanter as chanter } from '../fingering';
import { levels, RiskTable } from '../timing';
import { bar, beatsOfLine, describedLine, exerciseSchema, lineAbc, lineTitle, modeSteps, notesOfLine, pairsOfLine, type Mode } from '.';
import { barsOf, coverageOf, exercisesOf, linesOf, scaleFrom, type ExerciseKind, type ExerciseWish } from '../line-sets';
import { cut, exerciseMusic } from './exercise-music';

const table = new RiskTable(chanter, levels.learner, 500);
const wish = (kind: ExerciseKind, more: Partial<ExerciseWish> = {}): ExerciseWish => ({
  kind,
  start: 'low-g',
  focus: 'fingers',
  hardness: (change) => table.difficultyOf(change).total,
  ...more,
});
const names = (kind: ExerciseKind, more: Partial<ExerciseWish> = {}) => exercisesOf(chanter, wish(kind, more)).lines.map((line) => lineTitle(chanter, line));

describe('scaleFrom', () => {
  it('is the whole chart of the pipes from any of its notes, at most an octave', () => {
    expect(scaleFrom(chanter, 'low-a')).toEqual(['low-a', 'b', 'c', 'd', 'e', 'f', 'high-g', 'high-a']);
    expect(scaleFrom(chanter, 'e')).toEqual(['e', 'f', 'high-g', 'high-a']);
    expect(scaleFrom(chanter, 'high-a')).toEqual(['high-a']);
  });

  it('is a scale from every note: F has one flat, a whistle’s from G has C natural', () => {
    const names = (id: string, start: string, mode?: Mode): string =>
      scaleFrom(instrumentById(id), start, mode)
        .map((note) => instrumentById(id).notes.find((each) => each.id === note)?.writtenName)
        .join(' ');
    expect(names('recorder-soprano-baroque', 'f5')).toBe('F G A B♭ C D E F');
    expect(names('whistle-d', 'g5')).toBe('G A B C D E F♯ G');
    expect(names('whistle-d', 'd5')).toBe('D E F♯ G A B C♯ D');
    expect(names('whistle-d', 'e5', 'dorian')).toBe('E F♯ G A B C♯ D E');
    expect(names('recorder-soprano-baroque', 'd5', 'minor')).toBe('D E F G A B♭ C D');
    expect(names('ocarina-12-c-split', 'g5', 'mixolydian')).toBe('G A B C D E F');
  });

  it('has the steps of its mode on every instrument and from every note, each within the octave', () => {
    for (const instrument of instruments.filter(({ family }) => family !== 'pipes'))
      for (const { id, writtenSemitone } of instrument.notes)
        for (const mode of ['major', 'minor', 'dorian', 'mixolydian'] as const) {
          const steps = scaleFrom(instrument, id, mode).map((note) => noteOf(instrument, note).writtenSemitone - writtenSemitone);
          expect([...modeSteps[mode], 12]).toEqual(expect.arrayContaining(steps));
          expect(new Set(steps).size).toBe(steps.length);
        }
  });

  it('names a step that the instrument does not have', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    const without = { ...recorder, notes: recorder.notes.filter(({ id }) => id !== 'bb5') };
    const { lines, leftOut } = exercisesOf(without, wish('scale', { start: 'f5', hardness: () => 1 }));
    expect(leftOut).toEqual(['step 4 of the scale: the soprano recorder does not have it']);
    expect(lines[0].exercise?.notes.map(({ note }) => note).slice(0, 5)).toEqual(['f5', 'g5', 'a5', 'c6', 'd6']);
  });

  it('is written under its signature, with signs only where it leaves it', () => {
    const abc = (id: string, start: string, mode?: Mode): string => {
      const [line] = exercisesOf(instrumentById(id), wish('scale', { start, hardness: () => 1, ...(mode !== undefined && { mode }) })).lines;
      return lineAbc(instrumentById(id), line).split('\n').slice(3, 5).join(' ');
    };
    expect(abc('recorder-soprano-baroque', 'f5')).toMatch(/^K:F F G A B \| c d e f/);
    expect(abc('whistle-d', 'g5')).toMatch(/^K:G G A B c \| d e f g/);
    expect(abc('whistle-d', 'd5')).toMatch(/^K:D D E F G \| A B c d/);
    expect(lineAbc(instrumentById('whistle-d'), { home: 'cs6', other: 'c6' })).toContain('K:D\n^c =c ^c =c');
    expect(lineAbc(chanter, { home: 'c', other: 'e' })).toContain('K:HP\nc e c e');
  });

  it('grows by one known note a line', () => {
    const { lines } = exercisesOf(chanter, wish('growing', { known: ['c', 'low-a', 'b'] }));
    expect(lines.map(({ exercise }) => exercise?.title)).toEqual(['Low A to B, 2 notes', 'Low A to C, 3 notes']);
    expect(lines[1].exercise?.notes.map(({ note }) => note).join(' ')).toBe('low-a b c b low-a');
    expect(exercisesOf(chanter, wish('growing', { known: ['c'] }))).toMatchObject({ lines: [], leftOut: [expect.stringContaining('fewer than two')] });
  });
});

describe('lines with music of their own', () => {
  it('a scale goes up and down; hard steps stand twice and are named', () => {
    const [plain] = exercisesOf(chanter, wish('scale')).lines;
    expect(plain.exercise?.notes.map(({ note }) => note).join(' ')).toBe('low-g low-a b c d e f high-g f e d c b low-a low-g');
    const [hard] = exercisesOf(chanter, wish('scale-hard', { start: 'low-a' })).lines;
    expect(hard.exercise?.title).toMatch(/D to E/);
    expect(hard.exercise?.notes.map(({ note }) => note).join(' ')).toContain('d e d e');
  });

  it('the same scale stands in half notes, quarters, eighths and sixteenths', () => {
    const lines = exercisesOf(chanter, wish('scale-values', { start: 'e' })).lines;
    expect(lines.map(({ exercise }) => exercise?.notes[0].twelfths)).toEqual([24, 12, 6, 3]);
    expect(new Set(lines.map(({ exercise }) => exercise?.notes.map(({ note }) => note).join()))).toHaveProperty('size', 1);
  });

  it('a cumulative scale comes back to its first note each time', () => {
    const notes = exercisesOf(chanter, wish('cumulative')).lines.flatMap((line) => notesOfLine(chanter, line).map(({ note }) => note));
    expect(notes.slice(0, 6)).toEqual(['low-g', 'low-a', 'low-g', 'b', 'low-g', 'c']);
  });

  it('a pair is set even, dotted, cut, in triplets and tied', () => {
    expect(names('rhythms', { start: 'c', other: 'e' })).toEqual(['C to E, even', 'C to E, dotted', 'C to E, cut', 'C to E, triplets', 'C to E, tied']);
    const abc = exercisesOf(chanter, wish('rhythms', { start: 'c', other: 'e' })).lines.map((line) => lineAbc(chanter, line));
    expect(abc[1]).toContain('c3/4e/4 c3/4e/4');
    expect(abc[2]).toContain('c/4e3/4');
    expect(abc[3]).toContain('(3c/2e/2c/2 (3e/2c/2e/2');
    expect(abc[4]).toContain('c- c/2e/2');
  });

  it('leaps are a fifth or wider and slurred', () => {
    const [line] = exercisesOf(chanter, wish('leaps', { start: 'low-a' })).lines;
    expect(pairsOfLine(line).map(({ other }) => other)).toEqual(['e', 'f', 'high-g', 'high-a']);
    expect(lineAbc(chanter, line)).toContain('(A e) (e A)');
  });

  it('leaves out what is none and names it', () => {
    expect(exercisesOf(chanter, wish('alternation', { start: 'c', other: 'c' }))).toEqual({
      lines: [],
      leftOut: ['C to itself: a change needs two different notes'],
    });
    expect(exercisesOf(chanter, wish('scale', { start: 'high-a' })).leftOut).toEqual(['Scale from high A: no note lies above it']);
    const whistle = instrumentById('whistle-d');
    const { leftOut } = exercisesOf(whistle, { ...wish('leaps', { start: 'e5' }), hardness: () => 1 });
    expect(leftOut).toContain('E to high E: no finger moves');
  });

  it('a bar for each cross of each note: thirty-eight bars, nothing missing', () => {
    const { lines } = barsOf(chanter, { kind: 'crosses-by-note' }, wish('scale'));
    expect(lines.reduce((sum, line) => sum + beatsOfLine(line) / 4, 0)).toBe(38);
    expect(coverageOf(linesOf(chanter, { kind: 'crosses-once' }).lines, lines).missing).toEqual([]);
    for (const { id } of chanter.notes)
      expect(lines.filter(({ exercise }) => exercise?.notes[0].note === id).flatMap(pairsOfLine)).toHaveLength(crossesOf(chanter, id).length);
  });

  it('fills whole bars, keeps to what a sheet can hold, and is read by an engraver without a fault (property)', () => {
    const kinds: readonly ExerciseKind[] = ['scale', 'scale-hard', 'scale-values', 'cumulative', 'alternation', 'rhythms', 'leaps'];
    const hardness = () => 1;
    fc.assert(
      fc.property(fc.constantFrom(...instruments), fc.constantFrom(...kinds), fc.nat(), fc.nat(), (instrument, kind, one, other) => {
        const [start, second] = [one, other].map((each) => instrument.notes[each % instrument.notes.length].id);
        for (const line of exercisesOf(instrument, { kind, start, other: second, focus: 'timing', hardness }).lines) {
          const exercise = exerciseSchema.parse(line.exercise);
          expect(exercise.notes.reduce((sum, { twelfths }) => sum + twelfths, 0) % bar).toBe(0);
          const [tune] = abcjs.parseOnly(lineAbc(instrument, line));
          expect(tune.warnings ?? []).toEqual([]);
          expect(describedLine(instrument, line)).toMatchObject({ title: exercise.title, advice: { todo: exercise.musical } });
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('exerciseMusic', () => {
  it('ties a note over the bar line and writes grace notes before it', () => {
    const notes = [
      { note: 'A', twelfths: 36 },
      { note: 'B', twelfths: 24, graceNotes: ['g', 'd'] },
      { note: 'c', twelfths: 36 },
    ];
    expect(exerciseMusic(notes, (note) => note)).toBe('A3 {gd}B- | B c3 |]');
  });

  it('cuts any length into heads that stay within their bars and add up (property)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 32 }), fc.integer({ min: 0, max: 15 }), (sixteenths, place) => {
        const heads = cut(sixteenths * 3, place * 3);
        expect(heads.reduce((sum, head) => sum + head, 0)).toBe(sixteenths * 3);
        let at = place * 3;
        for (const head of heads) {
          expect(Math.floor(at / bar)).toBe(Math.floor((at + head - 1) / bar));
          at += head;
        }
      }),
    );
  });
});
