import type { Tune } from '../tune';
import type { Measure } from './measures';

/** Measures from `first` up to, not including, `end`. */
export interface Stretch {
  readonly first: number;
  readonly end: number;
}

/** The measures as repeats, double bars, labels and jumps cut them. */
export function markedStretches(tune: Tune, measures: readonly Measure[]): readonly Stretch[] {
  const stretches: Stretch[] = [];
  let first = 0;
  for (let at = 1; at <= measures.length; at += 1) {
    if (at < measures.length && !isBoundary(tune, measures[at - 1], measures[at])) continue;
    stretches.push({ first, end: at });
    first = at;
  }
  return measures.length === 0 ? [] : stretches;
}

function isBoundary({ bars }: Tune, before: Measure, after: Measure): boolean {
  const start = after.lead[0] ?? after.bar;
  // Back to an earlier bar; a later one that is jumped to is an ending of the same part.
  if (start <= before.bar) return true;
  if (start !== before.bar + 1) return !bars[start].opensEnding;
  const { closesRepeat, line } = bars[before.bar];
  if (bars[start].opensEnding) return false;
  return closesRepeat > 0 || line === 'double' || line === 'end' || bars[start].opensRepeat || bars[start].part !== '';
}

/** Lengths of parts in measures that are looked for, the likeliest first. */
const likelyLengths: readonly number[] = [8, 16, 4, 6, 12, 10, 5, 3, 2];
/** So much of two stretches is the same where one is taken for the other again. */
const sameShare = 0.75;
/** A tune that is written out is looked at in so many parts at most. */
const mostParts = 400;

/**
 * The length of the parts of a stretch without marks: the first at which one comes again; else eight bars where it is longer than one part. Undefined where it is one
 * part.
 * @param compare measures that differ between two stretches
 */
export function usualPartLength(stretch: Stretch, compare: (one: Stretch, other: Stretch) => readonly number[] | undefined): number | undefined {
  const total = stretch.end - stretch.first;
  const possible = likelyLengths.filter((length) => total % length === 0 && total > length && total / length <= mostParts);
  const found = possible.find((length) => (length > 3 || total <= 8) && comesAgain(stretch, length, compare));
  if (found !== undefined) return found;
  return total > 8 && total % 8 === 0 && total / 8 <= mostParts ? 8 : undefined;
}

function comesAgain({ first, end }: Stretch, length: number, compare: (one: Stretch, other: Stretch) => readonly number[] | undefined): boolean {
  for (let at = first + length; at < end; at += length) {
    for (let before = first; before < at; before += length) {
      const differing = compare({ first: at, end: at + length }, { first: before, end: before + length });
      if (differing !== undefined && differing.length <= length * (1 - sameShare)) return true;
    }
  }
  return false;
}
