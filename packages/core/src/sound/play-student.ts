import { milliseconds } from '../pitch';
import type { SimulatedPlaying } from '../playing';
import type { Timeline } from './timeline';

/** What a simulated student played, for the ear; everything `slower` times slower, at the same pitch. */
export function studentTimeline({ steps, lengthMs }: SimulatedPlaying, slower = 1): Timeline {
  return {
    steps: steps.map(({ startMs, lengthMs: length, ...step }) => ({ ...step, start: milliseconds(startMs * slower), length: milliseconds(length * slower) })),
    clicks: [],
    length: milliseconds(lengthMs * slower),
  };
}
