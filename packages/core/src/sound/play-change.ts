import type { Change } from '../change';
import { milliseconds } from '../pitch';
import { patternAt, stepsBetween } from '../timing';
import type { Instrument } from '../fingering';
import type { Timeline, TimelineStep } from './timeline';

export interface ChangePlay {
  /** How long each of the two notes sounds, in ms. */
  readonly noteMs: number;
  /** How many times slower everything between them is; the pitch stays. */
  readonly slower: number;
}

/**
 * A change as it sounds when its fingers move at these moments, in ms, in the order of its movers. Fingers that move together leave nothing between.
 */
export function changeTimeline(instrument: Instrument, change: Change, moments: readonly number[], { noteMs, slower }: ChangePlay): Timeline {
  const blown = change.register === undefined ? {} : { register: change.register };
  const steps: TimelineStep[] = [];
  let start = 0;
  const push = (pattern: TimelineStep['pattern'], length: number, role: TimelineStep['role'], note: number): void => {
    steps.push({ pattern, ...blown, start: milliseconds(start), length: milliseconds(length), role, note });
    start += length;
  };
  push(change.fromPattern, noteMs, 'theme', 0);
  for (const { mask, from, to } of stepsBetween(moments)) push(patternAt(instrument, change, mask), (to - from) * slower, 'fault', 0);
  push(change.toPattern, noteMs, 'theme', 1);
  return { steps, clicks: [], length: milliseconds(start) };
}
