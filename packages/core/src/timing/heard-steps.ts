import type { InBetweenSound } from './in-between-sounds';

/** What sounds between the first and the last finger, in the order in which it is heard. */
export interface HeardStep {
  readonly mask: number;
  /** In ms. */
  readonly from: number;
  readonly to: number;
  readonly sound: InBetweenSound;
}

/** The in-between sounds of one way of moving; fingers that move in the same instant leave none between them. */
export function steppedSounds(sounds: readonly InBetweenSound[], moments: readonly number[]): readonly HeardStep[] {
  const order = moments.map((at, index) => ({ at, index })).sort((one, other) => one.at - other.at);
  const steps: HeardStep[] = [];
  let mask = 0;
  order.forEach(({ at, index }, place) => {
    const before = order[place - 1]?.at;
    if (before !== undefined && at > before) steps.push({ mask, from: before, to: at, sound: sounds[mask] });
    mask |= 1 << index;
  });
  return steps;
}
