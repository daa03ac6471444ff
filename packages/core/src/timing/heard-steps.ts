import type { InBetweenSound } from './in-between-sounds';

/** What stands between the first and the last finger for a time: the movers of the mask have moved. */
export interface StepBetween {
  readonly mask: number;
  /** In ms. */
  readonly from: number;
  readonly to: number;
}

/** The same with what it sounds. */
export interface HeardStep extends StepBetween {
  readonly sound: InBetweenSound;
}

/** The in-between steps of one way of moving, in their order; fingers that move in the same instant leave none between them. */
export function stepsBetween(moments: readonly number[]): readonly StepBetween[] {
  const order = moments.map((at, index) => ({ at, index })).sort((one, other) => one.at - other.at);
  const steps: StepBetween[] = [];
  let mask = 0;
  order.forEach(({ at, index }, place) => {
    const before = order[place - 1]?.at;
    if (before !== undefined && at > before) steps.push({ mask, from: before, to: at });
    mask |= 1 << index;
  });
  return steps;
}

/** The in-between sounds of one way of moving, in the order in which they are heard. */
export function steppedSounds(sounds: readonly InBetweenSound[], moments: readonly number[]): readonly HeardStep[] {
  return stepsBetween(moments).map((step) => ({ ...step, sound: sounds[step.mask] }));
}
