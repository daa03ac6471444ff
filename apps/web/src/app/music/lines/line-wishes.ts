import type { Change } from '@zelpit/core/change';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { lineTitle, type Exercise, type Mode } from '@zelpit/core/line';
import {
  exercisesOf,
  linesOf,
  type ExerciseKind,
  type ExerciseLines,
  type LineSetKind,
  type MovementExercise,
  type OrnamentExercise,
} from '@zelpit/core/line-sets';
import type { Choice } from '../../kernel/chooser/chooser.component';

/** Which lines are made of an instrument's notes: sets of changes, and lines with music of their own. */
export type LineWish = LineSetKind | ExerciseKind;

export const lineWishes: readonly Choice<LineWish>[] = [
  { value: 'crosses-with', label: 'crosses with' },
  { value: 'crosses-once', label: 'all crosses, once each' },
  { value: 'crosses-by-note', label: 'all crosses, note by note' },
  { value: 'lift-only', label: 'fingers only lift' },
  { value: 'lower-only', label: 'fingers only land' },
  { value: 'neighbours', label: 'neighbours in the scale' },
  { value: 'scale', label: 'the scale from' },
  { value: 'scale-hard', label: 'the scale with its hard steps twice, from' },
  { value: 'scale-values', label: 'the scale in half, quarter, eighth and sixteenth notes, from' },
  { value: 'cumulative', label: 'up to each higher note in turn, from' },
  { value: 'growing', label: 'the notes ticked as known, one more each time' },
  { value: 'alternation', label: 'two notes in turn:' },
  { value: 'rhythms', label: 'five rhythms (even, dotted, cut, triplets, tied):' },
  { value: 'leaps', label: 'wide slurred leaps from' },
];

const pairSets: ReadonlySet<string> = new Set<LineWish>(['crosses-with', 'crosses-once', 'crosses-by-note', 'lift-only', 'lower-only', 'neighbours']);
const withNote: ReadonlySet<string> = new Set<LineWish>([
  'crosses-with',
  'scale',
  'scale-hard',
  'scale-values',
  'cumulative',
  'alternation',
  'rhythms',
  'leaps',
]);
/** Scales by a mode; the pipes have one scale. */
const withMode: ReadonlySet<string> = new Set<LineWish>(['scale', 'scale-hard', 'scale-values', 'cumulative']);
const withOther: ReadonlySet<string> = new Set<LineWish>(['alternation', 'rhythms']);

/** True for a set of changes, each a line there and back. */
export const isPairSet = (wish: string): wish is LineSetKind => pairSets.has(wish);
/** What else a wish names: a note to begin with, another one, a mode. */
export const asksFor = (wish: string, { family }: Instrument): { readonly note: boolean; readonly other: boolean; readonly mode: boolean } => ({
  note: withNote.has(wish),
  other: withOther.has(wish),
  mode: withMode.has(wish) && family !== 'pipes',
});

export const modes: readonly Choice<Mode>[] = [
  { value: 'major', label: 'major' },
  { value: 'minor', label: 'minor' },
  { value: 'dorian', label: 'Dorian' },
  { value: 'mixolydian', label: 'Mixolydian' },
];

export const movementExerciseChoices: readonly Choice<MovementExercise>[] = [
  { value: 'scale', label: 'on each note, up and down' },
  { value: 'from-every-note', label: 'into this note from every other' },
  { value: 'opened-and-back', label: 'each note with its opening grace note, then back to this one' },
  { value: 'repeated', label: 'between these two notes' },
  { value: 'both-ways', label: 'between these two notes, there and back' },
  { value: 'same-note', label: 'on one note, with the top-hand grace notes' },
  { value: 'taps', label: 'taps: note, low note, note, tap' },
  { value: 'runs', label: 'G, D and E grace notes in a row' },
];

export const ornamentExerciseChoices: readonly Choice<OrnamentExercise>[] = [
  { value: 'cuts', label: 'cuts on each note' },
  { value: 'taps', label: 'taps on each note' },
  { value: 'short-rolls', label: 'short rolls on each note' },
  { value: 'long-rolls', label: 'long rolls on each note' },
  { value: 'crans', label: 'crans on the lowest note' },
];

interface Wished {
  readonly kind: LineWish;
  readonly start: NoteId;
  readonly other: NoteId;
  readonly mode: Mode;
  readonly focus: Exercise['focus'];
  /** Notes ticked as known, for the set that grows. */
  readonly known: readonly NoteId[];
  readonly hardness: (change: Change) => number;
}

/** The lines of a wish, and what of it is none. */
export function wishedLines(instrument: Instrument, { kind, start, ...wish }: Wished): ExerciseLines {
  if (!isPairSet(kind)) return exercisesOf(instrument, { kind, start, ...wish });
  const { lines, leftOut } = linesOf(instrument, { kind, note: start });
  return { lines, leftOut: leftOut.map((line) => `${lineTitle(instrument, line)}: no finger moves`) };
}
