/**
 * Transfer matrices over a grid of frequencies: what pressure and flow at the foot-side end of a piece of the instrument make of
 * pressure and flow at its other end. Eight numbers for each frequency: A, B, C, D, each as real and imaginary part.
 */
export type Transfer = Float64Array;

export const identity = (count: number): Transfer => {
  const matrix = new Float64Array(8 * count);
  for (let index = 0; index < count; index += 1) matrix[8 * index] = matrix[8 * index + 6] = 1;
  return matrix;
};

/** `upper` after `lower`, for each frequency. */
export function chained(upper: Transfer, lower: Transfer): Transfer {
  const product = new Float64Array(upper.length);
  for (let at = 0; at < upper.length; at += 8) {
    for (let row = 0; row < 4; row += 2) {
      for (let column = 0; column < 2; column += 1) {
        const [aRe, aIm, bRe, bIm] = [upper[at + 2 * row], upper[at + 2 * row + 1], upper[at + 2 * row + 2], upper[at + 2 * row + 3]];
        const [cRe, cIm] = [lower[at + 2 * column], lower[at + 2 * column + 1]];
        const [dRe, dIm] = [lower[at + 4 + 2 * column], lower[at + 4 + 2 * column + 1]];
        product[at + 2 * row + 2 * column] = aRe * cRe - aIm * cIm + bRe * dRe - bIm * dIm;
        product[at + 2 * row + 2 * column + 1] = aRe * cIm + aIm * cRe + bRe * dIm + bIm * dRe;
      }
    }
  }
  return product;
}
