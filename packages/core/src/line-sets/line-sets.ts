import { changeBetween, type Change } from '../change';
import { scaleDegree, type Instrument, type NoteId } from '../fingering';
import { pairKey, pairsOfLine, type Line } from '../line';

/** Which lines a page is made of. */
export type LineSetKind = 'crosses-with' | 'crosses-once' | 'crosses-by-note' | 'lift-only' | 'lower-only' | 'neighbours';

export interface LineSet {
  readonly kind: LineSetKind;
  /** The note of `crosses-with`. */
  readonly note?: NoteId;
}

/** A set's lines, and the pairs of it that are none: nothing moves in them. */
export interface ChosenLines {
  readonly lines: readonly Line[];
  readonly leftOut: readonly Line[];
}

/**
 * The lines of a set in the order of the scale. A line goes there and back, so a pair stands once, but for `crosses-by-note`, where each note has all of its own,
 * and for lift-only and lower-only lines, which begin with the note from which fingers lift or land.
 * @throws ZelpitFault `unknown-note`
 * @example linesOf(practiceChanter, { kind: 'crosses-once' }).lines.length // 19
 */
export function linesOf(instrument: Instrument, { kind, note }: LineSet): ChosenLines {
  const ids = instrument.notes.map(({ id }) => id);
  const pairs = ids.flatMap((home) => ids.filter((other) => other !== home).map((other) => changeBetween(instrument, home, other)));
  const wanted = pairs.filter((change) => isOf(instrument, change, kind, note));
  const asLine = ({ from, to }: Change): Line => ({ home: from, other: to });
  return { lines: wanted.filter((change) => change.kind !== 'none').map(asLine), leftOut: wanted.filter((change) => change.kind === 'none').map(asLine) };
}

function isOf(instrument: Instrument, change: Change, kind: LineSetKind, note: NoteId | undefined): boolean {
  const isUp = change.isRising;
  switch (kind) {
    case 'crosses-with':
      return change.kind === 'cross' && change.from === note;
    case 'crosses-once':
      return change.kind === 'cross' && isUp;
    case 'crosses-by-note':
      return change.kind === 'cross';
    case 'lift-only':
      return change.kind === 'lift-only';
    case 'lower-only':
      return change.kind === 'lower-only';
    case 'neighbours':
      return isUp && scaleDegree(instrument, change.to) - scaleDegree(instrument, change.from) === 1;
  }
}

/** What a page has of a set: pairs that are missing, and pairs that stand there more than once; which of the two notes comes first does not matter. */
export interface Coverage {
  readonly missing: readonly Line[];
  readonly doubled: readonly Line[];
}

export function coverageOf(wanted: readonly Line[], there: readonly Line[]): Coverage {
  const counts = new Map<string, number>();
  for (const line of there) for (const pair of pairsOfLine(line)) counts.set(pairKey(pair), (counts.get(pairKey(pair)) ?? 0) + 1);
  const once = [...new Map(wanted.flatMap(pairsOfLine).map((pair) => [pairKey(pair), pair])).values()];
  return { missing: once.filter((pair) => !counts.has(pairKey(pair))), doubled: once.filter((pair) => (counts.get(pairKey(pair)) ?? 0) > 1) };
}
