import { coverOf, fingerCoverage, type FingerId, type Instrument, type Pattern } from '../fingering';

/** A finger that comes down or leaves, as a key or a touch reports it. */
export interface FingerEvent {
  readonly finger: FingerId;
  readonly isDown: boolean;
  /** In ms, on any clock that runs evenly. */
  readonly ms: number;
}

/** Fingers that lie on the wood in a pattern. A finger that covers its hole in part lies there too: keys and touches know no half cover. */
export function fingersDown(instrument: Instrument, pattern: Pattern): ReadonlySet<FingerId> {
  return new Set(instrument.fingers.filter(({ id }) => fingerCoverage(instrument, pattern, id) > 0).map(({ id }) => id));
}

/** True where a change can be told by keys or touches: some finger leaves the wood or comes down, and none only covers more or less. */
export function canBeSensed(before: Pattern, after: Pattern): boolean {
  const partly = before.some((coverage, hole) => coverage !== after[hole] && (coverOf(coverage) === 'half' || coverOf(after[hole]) === 'half'));
  return !partly && before.some((coverage, hole) => coverage !== after[hole]);
}

export const isSameDown = (one: ReadonlySet<FingerId>, other: ReadonlySet<FingerId>): boolean =>
  one.size === other.size && [...one].every((finger) => other.has(finger));
