/** A length as a fraction of whole numbers. */
export interface Fraction {
  readonly top: number;
  readonly bottom: number;
}

/**
 * The simplest fraction for a length that came out of halvings and tuplets.
 * 0.375 gives 3/8.
 */
export function fractionOf(value: number): Fraction {
  let [lowTop, low, highTop, high] = [Math.floor(value), 1, 1, 0];
  const tolerance = 1e-9 * Math.max(1, value);
  let [previousTop, previous] = [1, 0];
  let rest = value;
  for (let step = 0; step < 32; step += 1) {
    const whole = Math.floor(rest);
    [lowTop, low, highTop, high] = step === 0 ? [whole, 1, 1, 0] : [whole * previousTop + highTop, whole * previous + high, previousTop, previous];
    [previousTop, previous] = [lowTop, low];
    if (Math.abs(lowTop / low - value) <= tolerance || rest - whole < 1e-12) break;
    rest = 1 / (rest - whole);
  }
  return { top: lowTop, bottom: low };
}

/** The greatest number that divides both. */
export const commonDivisor = (one: number, other: number): number => (other === 0 ? one : commonDivisor(other, one % other));
