import { isStopped } from '../acoustics';
import type { Change } from '../change';
import { milliseconds } from '../pitch';
import { patternAt, stepsBetween } from '../timing';
import { withFingers, type FingerId, type Instrument } from '../fingering';
import type { Timeline, TimelineStep } from './timeline';

export interface ChangePlay {
  /** How long each of the two notes sounds, in ms. */
  readonly noteMs: number;
  /** How many times slower everything between them is; the pitch stays. */
  readonly slower: number;
  /** Fingers of a grace note that are off from one moment to another, in ms around the change, or the silence of the tongue. */
  readonly cover?: { readonly opens: readonly FingerId[] | null; readonly from: number; readonly to: number };
}

/**
 * A change as it sounds when its fingers move at these moments, in ms, in the order of its movers. Fingers that move together leave nothing between.
 */
export function changeTimeline(instrument: Instrument, change: Change, moments: readonly number[], { noteMs, slower, cover }: ChangePlay): Timeline {
  const blown = change.register === undefined ? {} : { register: change.register };
  const steps: TimelineStep[] = [];
  let start = 0;
  const push = (pattern: TimelineStep['pattern'], length: number, role: TimelineStep['role'], note: number): void => {
    if (length <= 0) return;
    steps.push({ pattern, ...blown, start: milliseconds(start), length: milliseconds(length), role, note });
    start += length;
  };
  push(change.fromPattern, noteMs, 'theme', 0);
  for (const { mask, from, to, isCovered } of coveredSteps(change, moments, cover)) {
    const pattern = patternAt(instrument, change, mask);
    const length = (to - from) * slower;
    if (isStopped(pattern, change.foot)) push([], length, 'rest', 0);
    else if (!isCovered || cover === undefined) push(pattern, length, 'fault', 0);
    else if (cover.opens === null) push([], length, 'rest', 0);
    else push(withFingers(instrument, pattern, cover.opens, 0), length, 'grace', 0);
  }
  push(change.toPattern, noteMs, 'theme', 1);
  return { steps, clicks: [], length: milliseconds(start) };
}

interface CoveredStep {
  readonly mask: number;
  readonly from: number;
  readonly to: number;
  readonly isCovered: boolean;
}

/** The steps between the first and the last thing that moves, cut where the cover begins and ends. */
function coveredSteps(change: Change, moments: readonly number[], cover: ChangePlay['cover']): readonly CoveredStep[] {
  if (cover === undefined) return stepsBetween(moments).map((step) => ({ ...step, isCovered: false }));
  const edges = [...new Set([...moments, cover.from, cover.to])].sort((one, other) => one - other);
  return edges.slice(1).map((to, index): CoveredStep => {
    const from = edges[index];
    const mask = change.movers.reduce((sum, _, mover) => (moments[mover] <= from ? sum | (1 << mover) : sum), 0);
    return { mask, from, to, isCovered: from >= cover.from && to <= cover.to };
  });
}
