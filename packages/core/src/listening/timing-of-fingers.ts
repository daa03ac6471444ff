import type { Change } from '../change';
import type { FingerId, Instrument } from '../fingering';
import { fingersDown, fitPlayed, isSameDown, judgePlaying, type FingerEvent, type FittedTiming, type PlayedChange } from '../playing';
import type { HoleEvent } from './finger-stream';

/** The timing of somebody whose fingers were taken. */
export interface TimedFingers {
  readonly played: readonly PlayedChange[];
  /** Undefined where there were too few changes of two fingers and more. */
  readonly fitted: FittedTiming | undefined;
}

/**
 * How a player's fingers keep together, from finger events: to the millisecond, since every finger is seen. What was done before the first note stood does not count.
 * @param changes that were asked for, one after the other
 */
export function timingOfFingers(instrument: Instrument, changes: readonly Change[], events: readonly HoleEvent[]): TimedFingers {
  const [first] = changes;
  if (first === undefined) return { played: [], fitted: undefined };
  const wanted = fingersDown(instrument, first.fromPattern);
  const down = new Set(instrument.fingers.map(({ id }) => id));
  const counted: FingerEvent[] = [];
  let hasBegun = isSameDown(down, wanted);
  for (const { finger, isDown, ms } of ofFingers(instrument, events)) {
    if (hasBegun) counted.push({ finger, isDown, ms });
    else if (isDown) down.add(finger);
    else down.delete(finger);
    hasBegun ||= isSameDown(down, wanted);
  }
  const { played } = judgePlaying(instrument, changes, counted);
  return { played, fitted: fitPlayed(changes, played) };
}

/** Holes as the fingers that lie on them: a finger with two holes lies on the wood as long as it covers one. */
function ofFingers(instrument: Instrument, events: readonly HoleEvent[]): readonly FingerEvent[] {
  let pattern = instrument.holes.map(() => 1);
  const lies = (finger: FingerId): boolean => instrument.holes.some((hole, index) => hole.finger === finger && pattern[index] > 0);
  return events.flatMap((event): FingerEvent[] => {
    if ('breath' in event || event.hole > instrument.holes.length) return [];
    const { finger } = instrument.holes[event.hole - 1];
    const before = lies(finger);
    pattern = pattern.map((coverage, hole) => (hole === event.hole - 1 ? Number(event.covers) : coverage));
    return lies(finger) === before ? [] : [{ finger, isDown: !before, ms: event.at }];
  });
}
