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
  const tolerance = 1e-9 * Math.max(1, value);
  let [top, bottom, topBefore, bottomBefore] = [1, 0, 0, 1];
  let rest = value;
  for (let step = 0; step < 32; step += 1) {
    const whole = Math.floor(rest);
    [top, bottom, topBefore, bottomBefore] = [whole * top + topBefore, whole * bottom + bottomBefore, top, bottom];
    if (Math.abs(top / bottom - value) <= tolerance || rest - whole < 1e-12) break;
    rest = 1 / (rest - whole);
  }
  return { top, bottom };
}

/** The greatest number that divides both. */
export const commonDivisor = (one: number, other: number): number => (other === 0 ? one : commonDivisor(other, one % other));
