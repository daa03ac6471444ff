import type { TuneChange } from '../tune';
import { listed } from '../words';
import { isNoteFaulty, type JudgedPiece } from './judge-asked';
import type { Decision } from './judge-take';

const mostBars = 2;

/**
 * The bars of a tune that are likeliest to break, the likeliest first: by the difficulties of their changes under the player's own timing. A difficulty under a tenth of the hardest bar's is none.
 * @param changes those that no grace note and no tongue hides
 * @param bars those that are played
 */
export function barsToWatch(changes: readonly TuneChange[], bars: ReadonlySet<number>): readonly number[] {
  const sums = new Map<number, number>();
  for (const { difficulty, trouble, places } of changes)
    if (trouble.kind !== 'none') for (const { bar } of places) if (bars.has(bar)) sums.set(bar, (sums.get(bar) ?? 0) + difficulty);
  const worst = [...sums].sort(([one, oneSum], [other, otherSum]) => otherSum - oneSum || one - other);
  const [[, most] = [0, 0]] = worst;
  return worst
    .filter(([, sum]) => sum > most / 10)
    .slice(0, mostBars)
    .map(([bar]) => bar);
}

const barsCalled = (bars: readonly number[]): string =>
  `${bars.length === 1 ? 'Bar' : 'Bars'} ${listed([...bars].sort((one, other) => one - other).map(String))}`;

/** "Bars 7 and 12 will break first." Empty where there is nothing to say. */
export const foretoldText = (bars: readonly number[]): string => (bars.length === 0 ? '' : `${barsCalled(bars)} will break first.`);

/** What came of it in a take: "Bars 7 and 12 were to break first: 7 did, 12 did not." Empty where none of them was played. */
export function checkedText(bars: readonly number[], { notes }: JudgedPiece, decided: ReadonlyMap<number, Decision> = new Map()): string {
  const played = bars.filter((bar) => notes.some((note) => note.bar === bar));
  if (played.length === 0) return '';
  const broke = (bar: number): boolean => notes.some((note) => note.bar === bar && isNoteFaulty(note, decided));
  const came = played.filter(broke);
  const first = `${barsCalled(played)} ${played.length === 1 ? 'was' : 'were'} to break first`;
  if (played.length === 1) return `${first}: it ${came.length === 1 ? 'did' : 'did not'}.`;
  if (came.length === played.length) return `${first}: both did.`;
  if (came.length === 0) return `${first}: neither did.`;
  return `${first}: ${came[0]} did, ${played.filter((bar) => !broke(bar))[0]} did not.`;
}

/** What came of bars that were foretold, to be kept: how many of them broke, and how many of the others that were played. */
export interface ForetoldResult {
  readonly bars: number;
  readonly broke: number;
  readonly others: number;
  readonly othersBroke: number;
}

/** Undefined where none of them was played, or nothing was foretold. */
export function foretoldResult(
  bars: readonly number[],
  { notes }: JudgedPiece,
  decided: ReadonlyMap<number, Decision> = new Map(),
): ForetoldResult | undefined {
  const broke = new Map<number, boolean>();
  for (const note of notes) if (note.bar !== undefined && note.bar > 0) broke.set(note.bar, (broke.get(note.bar) ?? false) || isNoteFaulty(note, decided));
  const [watched, others] = [true, false].map((is) => [...broke].filter(([bar]) => bars.includes(bar) === is).map(([, has]) => has));
  if (watched.length === 0) return undefined;
  const count = (all: readonly boolean[]): number => all.filter(Boolean).length;
  return { bars: watched.length, broke: count(watched), others: others.length, othersBroke: count(others) };
}

/** How often it was right: "Foretold bars that broke at the first try so far: 5 of 8; other bars: 4 of 61." Empty before anything was checked. */
export function foretoldTallyText(results: readonly ForetoldResult[]): string {
  const sum = (read: (result: ForetoldResult) => number): number => results.reduce((all, result) => all + read(result), 0);
  const bars = sum((result) => result.bars);
  if (bars === 0) return '';
  const [broke, others, othersBroke] = [sum((result) => result.broke), sum((result) => result.others), sum((result) => result.othersBroke)];
  return `Foretold bars that broke at the first try so far: ${broke} of ${bars}; other bars: ${othersBroke} of ${others}.`;
}
