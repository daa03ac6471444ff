import { chartedFingering, chartedPattern, fingerCoverage, noteOf, scaleDegree, type FingerId, type Instrument, type NoteId } from '../fingering';
import { compileOrnament, type OrnamentKind, type OrnamentSettings, type OrnamentStep } from '../movement';
import type { Line } from '../line';
import { bar, filled, quarter, type LineNote } from '../line';
import { ownScale, type ExerciseLines } from './exercise-sets';

/** Ornaments that have lines of their own. */
export type OrnamentExercise = 'cuts' | 'taps' | 'short-rolls' | 'long-rolls' | 'crans';
export const ornamentExercises: readonly OrnamentExercise[] = ['cuts', 'taps', 'short-rolls', 'long-rolls', 'crans'];

const eighth = quarter / 2;
const barsOnLine = 4;
const kinds: Readonly<Record<Exclude<OrnamentExercise, 'crans'>, OrnamentKind>> = {
  cuts: 'cut',
  taps: 'tap',
  'short-rolls': 'short-roll',
  'long-rolls': 'long-roll',
};
const titles: Readonly<Record<OrnamentExercise, string>> = {
  cuts: 'Cuts',
  taps: 'Taps',
  'short-rolls': 'Short rolls',
  'long-rolls': 'Long rolls',
  crans: 'Crans',
};
const physical: Readonly<Record<OrnamentExercise, string>> = {
  cuts: 'The finger hardly leaves the hole: a flick, not a note.',
  taps: 'The finger bounces off the hole by itself.',
  'short-rolls': 'Cut and tap exactly on the beat.',
  'long-rolls': 'Cut and tap separate three even notes.',
  crans: 'Another finger for each cut; none comes late.',
};

/**
 * Lines that practise an ornament on each note of the scale, up and down; crans on the lowest note. A cut is written as the note that its finger opens, a tap as the
 * note below. Notes on which it cannot be played are left out and named.
 * @throws ZelpitFault `unknown-note`
 */
export function ornamentLines(instrument: Instrument, kind: OrnamentExercise, settings: OrnamentSettings): ExerciseLines {
  const scale = lowerScale(instrument);
  if (kind === 'crans') {
    const made = (['short-cran', 'long-cran', 'three-cut-cran'] as const).flatMap((each) => inBeats(instrument, each, scale[0], settings) ?? []);
    return { lines: asLines(instrument, kind, made.length === 0 ? [] : [...made, ...made]), leftOut: [] };
  }
  const leftOut: string[] = [];
  const groups = scale.flatMap((note) => {
    const made = inBeats(instrument, kinds[kind], note, settings);
    if (made === undefined) leftOut.push(`on ${noteOf(instrument, note).schoolName}`);
    return made === undefined ? [] : [made];
  });
  return { lines: asLines(instrument, kind, [...groups, ...groups.slice(0, -1).reverse()].flat()), leftOut };
}

/** The scale from the lowest note, as far as the first register goes. */
const lowerScale = (instrument: Instrument): readonly NoteId[] => ownScale(instrument).filter((id) => chartedFingering(instrument, id).register === 1);

/** An ornament with what fills two beats with it: a plain note before a short one, after a long one. */
function inBeats(instrument: Instrument, kind: OrnamentKind, note: NoteId, settings: OrnamentSettings): readonly LineNote[] | undefined {
  const made = compileOrnament(instrument, kind, note, settings);
  if (made.kind === 'unplayable') return undefined;
  const notes: LineNote[] = [];
  let grace: readonly NoteId[] = [];
  let from = 0;
  for (const step of made.steps) {
    if (step.kind !== 'note') {
      grace = [writtenAs(instrument, step, note)];
      from = step.start;
      continue;
    }
    const start = grace.length === 0 ? step.start : from;
    const twelfths = Math.round((step.start + step.length - start) * eighth);
    notes.push({ note, twelfths, ...(grace.length > 0 && { graceNotes: grace }) });
    grace = [];
  }
  // One that decorates a single note follows that note plain, as quarters.
  if (made.eighths === 1)
    return [
      { note, twelfths: quarter },
      { ...notes[0], twelfths: quarter },
    ];
  const length = notes.reduce((sum, { twelfths }) => sum + twelfths, 0);
  const plain: LineNote = { note, twelfths: 2 * quarter - (length % (2 * quarter)) };
  const isLong = length > 2 * eighth;
  if (plain.twelfths === 2 * quarter) return notes;
  return isLong ? [...notes, plain] : [plain, ...notes];
}

/** A cut is written as the highest note on which its finger is the first that is up; a tap as the scale note below. */
function writtenAs(instrument: Instrument, { kind, fingers }: OrnamentStep, note: NoteId): NoteId {
  const scale = lowerScale(instrument);
  if (kind === 'tap') return scale[Math.max(0, scale.indexOf(note) - 1)];
  const [finger] = fingers;
  const firstUp = (id: NoteId): FingerId | undefined =>
    instrument.fingers.find((each) => !each.thumb && fingerCoverage(instrument, chartedPattern(instrument, id), each.id) < 1)?.id;
  const found = scale.filter((id) => firstUp(id) === finger && scaleDegree(instrument, id) > scaleDegree(instrument, note));
  return found[0] ?? scale[Math.min(scale.length - 1, scale.indexOf(note) + 1)];
}

function asLines(instrument: Instrument, kind: OrnamentExercise, notes: readonly LineNote[]): readonly Line[] {
  if (notes.length < 2) return [];
  const parts: LineNote[][] = [[]];
  let length = 0;
  for (const note of notes) {
    if (length >= barsOnLine * bar) {
      parts.push([]);
      length = 0;
    }
    parts[parts.length - 1].push(note);
    length += note.twelfths;
  }
  const whole = parts.filter((part) => part.length >= 2);
  const [first, second] = instrument.notes;
  return whole.map((part, index): Line => {
    const title = `${titles[kind]}${whole.length === 1 ? '' : ` (${index + 1} of ${whole.length})`}`;
    const changing = part.slice(1).findIndex(({ note }, at) => note !== part[at].note);
    const pair = changing === -1 ? { home: first.id, other: second.id } : { home: part[changing].note, other: part[changing + 1].note };
    return {
      ...pair,
      exercise: { title, musical: 'The ornament is heard; the note is not broken.', physical: physical[kind], focus: 'fingers', notes: filled(part) },
    };
  });
}
