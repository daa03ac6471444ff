import abcjs from 'abcjs';
import * as fc from 'fast-check';
import { crossesOf } from '../change';
import { instrumentById, instruments, practiceChanter as chanter } from '../fingering';
import { levels, RiskTable } from '../timing';
import {
  bar,
  barsOf,
  beatsOfLine,
  coverageOf,
  describedLine,
  exerciseSchema,
  exercisesOf,
  lineAbc,
  lineTitle,
  linesOf,
  notesOfLine,
  pairsOfLine,
  scaleFrom,
  type ExerciseKind,
  type ExerciseWish,
} from '.';
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

  it('is D major on a whistle and the naturals on a recorder', () => {
    expect(scaleFrom(instrumentById('whistle-d'), 'e5')).toEqual(['e5', 'fs5', 'g5', 'a5', 'b5', 'cs6', 'd6', 'e6']);
    const recorder = instrumentById('recorder-soprano-baroque');
    const [lowest] = recorder.notes;
    expect(scaleFrom(recorder, lowest.id)).toHaveLength(8);
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
    const notes = exercisesOf(chanter, wish('cumulative')).lines.flatMap((line) => notesOfLine(line).map(({ note }) => note));
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
      leftOut: ['C by itself: a change goes between two notes'],
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
