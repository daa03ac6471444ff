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
