import { changeBetween, type Change } from '../change';
import { noteOf, scaleDegree, soundingPitch, type Instrument, type NoteId } from '../fingering';
import { capital } from '../words';
import type { Line } from '../line';
import { modeSteps, signsOfScale, type Mode } from '../line';
import { bar, filled, mostLineNotes, pairsIn, quarter, type Exercise, type LineNote } from '../line';
import { linesOf, type LineSet } from './line-sets';
import { centsOfRatio } from '../pitch';

/** How a pair of notes is set in rhythm. */
export type Rhythm = 'even' | 'dotted' | 'cut' | 'triplet' | 'tied';
export const rhythms: readonly Rhythm[] = ['even', 'dotted', 'cut', 'triplet', 'tied'];

/** Lines with music of their own. */
export type ExerciseKind = 'scale' | 'scale-hard' | 'scale-values' | 'cumulative' | 'growing' | 'alternation' | 'rhythms' | 'leaps';

export interface ExerciseWish {
  readonly kind: ExerciseKind;
  /** From which note. */
  readonly start: NoteId;
  /** The other note of an alternation. */
  readonly other?: NoteId;
  readonly focus: Exercise['focus'];
  /** Of a scale; major where nothing is said. The pipes have the chart's notes only. */
  readonly mode?: Mode;
  /** The notes that a student knows, for `growing`. */
  readonly known?: readonly NoteId[];
  /** How hard a change is: it orders, and tells which steps stand twice. */
  readonly hardness: (change: Change) => number;
}

/** Lines, and what of the wish is none, with the reason. */
export interface ExerciseLines {
  readonly lines: readonly Line[];
  readonly leftOut: readonly string[];
}

/** A step is found hard from this many times the mean of its scale. */
const hardFrom = 1.25;
/** From this interval on a leap is wide, in cents: a fifth, just or tempered. */
const wideLeap = 650;
const values: readonly (readonly [string, number])[] = [
  ['half notes', 24],
  ['quarters', 12],
  ['eighths', 6],
  ['sixteenths', 3],
];
/** Lengths of one bar in twelfths; the two notes take turns. */
const rhythmBars: Readonly<Record<Rhythm, readonly number[]>> = {
  even: [6, 6, 6, 6, 6, 6, 6, 6],
  dotted: [9, 3, 9, 3, 9, 3, 9, 3],
  cut: [3, 9, 3, 9, 3, 9, 3, 9],
  triplet: [4, 4, 4, 4, 4, 4, 4, 4, 4, 4, 4, 4],
  tied: [18, 6, 18, 6],
};
const barsOfRhythm = 2;
const barsOnLine = 6;
/** C natural, in semitones above the lowest D. */
const naturalSeventh = 10;

/**
 * The instrument's own scale from its lowest note up: the chart's notes on the pipes, the major scale of the lowest note on whistles and the Irish chanter, the
 * notes without a sign on recorders and ocarinas; up to the octave.
 */
export function ownScale(instrument: Instrument): readonly NoteId[] {
  const first = soundingPitch(instrument, instrument.notes[0].id);
  return instrument.notes
    .map(({ id }) => id)
    .filter((id, place) => (place === 0 || isOfScale(instrument, id)) && centsOfRatio(soundingPitch(instrument, id) / first) < 1260);
}

/** The instrument's own scale over its whole range, and C natural with it on whistles and the Irish chanter. */
export function wholeScale(instrument: Instrument): readonly NoteId[] {
  const semitone = (id: NoteId): number => (noteOf(instrument, id).writtenSemitone - instrument.notes[0].writtenSemitone) % 12;
  const isFolk = instrument.family === 'whistle' || instrument.family === 'irish-pipes';
  const wanted = new Set([...ownScale(instrument).map(semitone), ...(isFolk ? [naturalSeventh] : [])]);
  return instrument.notes.map(({ id }) => id).filter((id) => wanted.has(semitone(id)));
}

/**
 * The scale from a note up to its octave, or as far as the instrument goes: the chart's notes on the pipes, else the steps of a mode. A step that the instrument
 * does not have is left out.
 * @throws ZelpitFault `unknown-note`
 */
export function scaleFrom(instrument: Instrument, start: NoteId, mode: Mode = 'major'): readonly NoteId[] {
  const from = scaleDegree(instrument, start);
  const above = instrument.notes.slice(from);
  if (instrument.family === 'pipes') {
    const first = soundingPitch(instrument, start);
    return above.filter(({ id }) => centsOfRatio(soundingPitch(instrument, id) / first) < 1260).map(({ id }) => id);
  }
  const wanted = new Set([...modeSteps[mode], 12].map((step) => above[0].writtenSemitone + step));
  return above.filter(({ writtenSemitone }) => wanted.has(writtenSemitone)).map(({ id }) => id);
}

const major: readonly number[] = [0, 200, 400, 500, 700, 900, 1100];

function isOfScale(instrument: Instrument, id: NoteId): boolean {
  switch (instrument.family) {
    case 'pipes':
      return true;
    case 'whistle':
    case 'irish-pipes': {
      const cents = centsOfRatio(soundingPitch(instrument, id) / soundingPitch(instrument, instrument.notes[0].id));
      const inOctave = ((cents % 1200) + 1200) % 1200;
      return major.some((degree) => Math.min(Math.abs(inOctave - degree), 1200 - Math.abs(inOctave - degree)) < 45);
    }
    case 'recorder':
    case 'ocarina':
      return !/^[_^]/.test(noteOf(instrument, id).abc);
  }
}

/** @throws ZelpitFault `unknown-note` */
export function exercisesOf(instrument: Instrument, wish: ExerciseWish): ExerciseLines {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const { mode = 'major' } = wish;
  const scale = scaleFrom(instrument, wish.start, mode);
  const hasModes = instrument.family !== 'pipes';
  const signs = hasModes ? signsOfScale(noteOf(instrument, wish.start).writtenSemitone, mode) : undefined;
  const [upAndDown, from] = [
    [...scale, ...scale.slice(0, -1).reverse()],
    hasModes ? `${capital(name(wish.start))} ${mode} scale` : `Scale from ${name(wish.start)}`,
  ];
  const line = (title: string, musical: string, notes: readonly LineNote[]): readonly Line[] => asLines(instrument, wish, title, musical, notes, signs);
  const plain = (ids: readonly NoteId[], twelfths: number): readonly LineNote[] => ids.map((note) => ({ note, twelfths }));
  if (scale.length < 2 && ofScale.has(wish.kind)) return { lines: [], leftOut: [`${from}: no note lies above it`] };
  const missing = missingSteps(instrument, wish.start, mode);
  switch (wish.kind) {
    case 'scale':
      return { lines: line(from, 'Every note as long and full as the next.', plain(upAndDown, quarter)), leftOut: missing };
    case 'scale-hard': {
      const { ids, twice } = withHardTwice(instrument, upAndDown, wish.hardness);
      const text =
        twice.length === 0 ? 'no step is harder than the others' : `${twice.map(([one, other]) => `${name(one)} to ${name(other)}`).join(', ')} twice`;
      return { lines: line(`${from}, ${text}`, 'The hard steps as even as the easy ones.', plain(ids, quarter)), leftOut: missing };
    }
    case 'scale-values':
      return {
        lines: values.flatMap(([text, twelfths]) => line(`${from} in ${text}`, 'The beat stays; only the notes to a beat change.', plain(upAndDown, twelfths))),
        leftOut: missing,
      };
    case 'cumulative': {
      const ids = scale.slice(1).flatMap((note) => [wish.start, note]);
      return {
        lines: line(
          `From ${name(wish.start)} to each note above`,
          `${name(wish.start)} sounds the same each time it comes back.`,
          plain([...ids, wish.start], quarter),
        ),
        leftOut: [],
      };
    }
    case 'growing':
      return growing(instrument, wish);
    case 'alternation':
      return inRhythms(instrument, wish, ['even']);
    case 'rhythms':
      return inRhythms(instrument, wish, rhythms);
    case 'leaps':
      return leapsFrom(instrument, wish);
  }
}

const ofScale: ReadonlySet<ExerciseKind> = new Set(['scale', 'scale-hard', 'scale-values', 'cumulative']);

/** Steps of a mode within the instrument's range that it does not have. */
function missingSteps(instrument: Instrument, start: NoteId, mode: Mode): readonly string[] {
  if (instrument.family === 'pipes') return [];
  const first = noteOf(instrument, start).writtenSemitone;
  const highest = instrument.notes[instrument.notes.length - 1].writtenSemitone;
  const has = new Set(instrument.notes.map(({ writtenSemitone }) => writtenSemitone));
  const missing = [...modeSteps[mode], 12].filter((step) => first + step <= highest && !has.has(first + step));
  return missing.map((step) => `step ${[...modeSteps[mode], 12].indexOf(step) + 1} of the scale: the ${instrument.name} does not have it`);
}

/** The notes that a student knows, up and down, one more each time, a line for each. */
function growing(instrument: Instrument, wish: ExerciseWish): ExerciseLines {
  const known = instrument.notes.map(({ id }) => id).filter((id) => wish.known?.includes(id) === true);
  if (known.length < 2) return { lines: [], leftOut: ['the known notes: fewer than two are ticked in the chart'] };
  const lines = known.slice(1).flatMap((_, index) => {
    const up = known.slice(0, index + 2);
    const names = up.map((id) => noteOf(instrument, id).schoolName);
    const notes = [...up, ...up.slice(0, -1).reverse()].map((note): LineNote => ({ note, twelfths: quarter }));
    return asLines(instrument, wish, `${capital(names[0])} to ${names[names.length - 1]}, ${up.length} notes`, 'The new note as sure as the others.', notes);
  });
  return { lines, leftOut: [] };
}

function withHardTwice(
  instrument: Instrument,
  ids: readonly NoteId[],
  hardness: ExerciseWish['hardness'],
): { readonly ids: readonly NoteId[]; readonly twice: readonly (readonly [NoteId, NoteId])[] } {
  const steps = ids.slice(1).map((to, index) => ({ from: ids[index], to, hard: hardness(changeBetween(instrument, ids[index], to)) }));
  const mean = steps.reduce((sum, { hard }) => sum + hard, 0) / steps.length;
  const hard = steps.filter((step) => step.hard >= hardFrom * mean);
  const doubled = [ids[0], ...steps.flatMap((step) => (hard.includes(step) ? [step.to, step.from, step.to] : [step.to]))];
  const distinct = new Map(hard.map(({ from, to }) => [[from, to].sort().join(), [from, to] as const]).reverse() as [string, readonly [NoteId, NoteId]][]);
  return { ids: doubled, twice: [...distinct.values()].reverse() };
}

function inRhythms(instrument: Instrument, wish: ExerciseWish, wanted: readonly Rhythm[]): ExerciseLines {
  const { start, other } = wish;
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  if (other === undefined || other === start) return { lines: [], leftOut: [`${name(start)} to itself: a change needs two different notes`] };
  if (changeBetween(instrument, start, other).kind === 'none') return { lines: [], leftOut: [`${name(start)} to ${name(other)}: no finger moves`] };
  const musical = wanted.length === 1 ? 'Both notes equally long.' : 'The rhythm exact, both notes clear.';
  const lines = wanted.flatMap((rhythm) =>
    asLines(instrument, wish, `${name(start)} to ${name(other)}, ${rhythm === 'triplet' ? 'triplets' : rhythm}`, musical, rhythmNotes(rhythm, start, other)),
  );
  return { lines, leftOut: [] };
}

function rhythmNotes(rhythm: Rhythm, home: NoteId, other: NoteId): readonly LineNote[] {
  const lengths = Array.from({ length: barsOfRhythm }, () => rhythmBars[rhythm]).flat();
  return lengths.flatMap((twelfths, index): LineNote[] => {
    const note = index % 2 === 0 ? home : other;
    return rhythm === 'tied' && twelfths > quarter
      ? [
          { note, twelfths: quarter, isTied: true },
          { note, twelfths: twelfths - quarter },
        ]
      : [{ note, twelfths }];
  });
}

function leapsFrom(instrument: Instrument, wish: ExerciseWish): ExerciseLines {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const first = soundingPitch(instrument, wish.start);
  const wide = instrument.notes.filter(
    ({ id }) => (id === wish.start || isOfScale(instrument, id)) && Math.abs(centsOfRatio(soundingPitch(instrument, id) / first)) >= wideLeap,
  );
  const moving = wide.filter(({ id }) => changeBetween(instrument, wish.start, id).kind !== 'none');
  const still = wide.filter((note) => !moving.includes(note)).map(({ id }) => `${name(wish.start)} to ${name(id)}: no finger moves`);
  if (moving.length === 0) return { lines: [], leftOut: [...still, `Leaps from ${name(wish.start)}: no note lies a fifth or more away`] };
  const notes = moving.flatMap(({ id }): LineNote[] => [
    { note: wish.start, twelfths: quarter, isSlurred: true },
    { note: id, twelfths: quarter },
    { note: id, twelfths: quarter, isSlurred: true },
    { note: wish.start, twelfths: quarter },
  ]);
  return {
    lines: asLines(instrument, wish, `Wide leaps from ${name(wish.start)}, slurred`, 'Each leap in one breath, with nothing heard on the way.', notes),
    leftOut: still,
  };
}

/**
 * A set of pairs with a bar for each, home-other-home, the bars of one home note on one line.
 * @throws ZelpitFault `unknown-note`
 */
export function barsOf(instrument: Instrument, set: LineSet, { focus, hardness }: Pick<ExerciseWish, 'focus' | 'hardness'>): ExerciseLines {
  const { lines, leftOut } = linesOf(instrument, set);
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const homes = [...new Set(lines.map(({ home }) => home))];
  const wish = { focus, hardness };
  return {
    lines: homes.flatMap((home) => {
      const others = lines.filter((line) => line.home === home).map(({ other }) => other);
      const notes = others.flatMap((other): LineNote[] => [
        { note: home, twelfths: quarter },
        { note: other, twelfths: quarter },
        { note: home, twelfths: 2 * quarter },
      ]);
      return asLines(instrument, wish, `${name(home)} and back: ${others.map(name).join(', ')}`, 'Every note clear, nothing heard in between.', notes);
    }),
    leftOut: leftOut.map(({ home, other }) => `${name(home)} to ${name(other)}: no finger moves`),
  };
}

/** Notes as lines of at most six bars; the hardest change of each stands for it. */
function asLines(
  instrument: Instrument,
  { focus, hardness }: Pick<ExerciseWish, 'focus' | 'hardness'>,
  title: string,
  musical: string,
  notes: readonly LineNote[],
  signs?: number,
): readonly Line[] {
  const parts = partsOf(notes);
  return parts.flatMap((part, index): Line[] => {
    const changes = pairsIn(part)
      .map(([from, to]) => changeBetween(instrument, from, to))
      .filter(({ kind }) => kind !== 'none');
    if (changes.length === 0) return [];
    // There and back are one pair: it stands for the line as it is first met.
    const hardest = changes.reduce((most, each) => (isBack(most, each) || hardness(each) <= hardness(most) ? most : each));
    const numbered = parts.length === 1 ? title : `${title} (${index + 1} of ${parts.length})`;
    const exercise: Exercise = {
      title: numbered.slice(0, 120),
      musical,
      physical: physicalPurpose(changes),
      focus,
      notes: filled(part),
      ...(signs !== undefined && { signs }),
    };
    return [{ home: hardest.from, other: hardest.to, exercise }];
  });
}

const isBack = (one: Change, other: Change): boolean => one.from === other.to && one.to === other.from;

/** Cut at bar lines where they allow it; a part goes on with the note that the one before ended with, so that no change is lost. */
function partsOf(notes: readonly LineNote[]): readonly (readonly LineNote[])[] {
  const parts: LineNote[][] = [[]];
  let length = 0;
  notes.forEach((note) => {
    const part = parts[parts.length - 1];
    const isFull = length >= barsOnLine * bar || part.length >= mostLineNotes - 1;
    if (isFull && length % bar === 0) {
      const last = part[part.length - 1];
      const opening = last.note === note.note ? [] : [{ note: last.note, twelfths: last.twelfths }];
      parts.push([...opening, note]);
      length = [...opening, note].reduce((sum, { twelfths }) => sum + twelfths, 0);
      return;
    }
    part.push(note);
    length += note.twelfths;
  });
  return parts;
}

/** What a line trains in the hands, from what its changes are. */
export function physicalPurpose(changes: readonly Change[]): string {
  const crosses = changes.filter(({ kind }) => kind === 'cross').length;
  if (crosses > 0 && crosses * 2 >= changes.length) return 'Fingers lift just before the others land, almost as one.';
  const hands = new Set(changes.map((change) => change.hands));
  if (crosses > 0) return 'Steps without a cross teach the shape that the crosses need.';
  if (hands.size === 1 && hands.has('left')) return 'Shape and spacing of the upper hand; the lower hand stays as it is.';
  if (hands.size === 1 && hands.has('right')) return 'Shape and spacing of the lower hand; the upper hand stays as it is.';
  return 'Fingers close to the holes, all of them in the same instant.';
}
