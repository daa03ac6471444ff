import type { Mover } from '../change';
import type { FingerId } from '../fingering';

/** How a player's fingers keep together, in ms. */
export interface PlayerTiming {
  readonly bias: (finger: FingerId) => number;
  readonly sigma: (finger: FingerId) => number;
  readonly lead: number;
}

/**
 * How likely moments of fingers are under a timing, as the logarithm of a density, but for a constant: of the differences between fingers only, which are normal with a part
 * shared within a hand. No beat is needed.
 * @param movers two and more
 * @param rho correlation within a hand
 */
export function logDensityOf(movers: readonly Mover[], { bias, sigma, lead }: PlayerTiming, rho: number): (moments: readonly number[]) => number {
  const means = movers.map(({ finger, direction }) => bias(finger) - (direction === 'lift' ? lead : 0));
  const covariance = (one: number, other: number): number =>
    sigma(movers[one].finger) * sigma(movers[other].finger) * (one === other ? 1 : Number(movers[one].hand === movers[other].hand) * rho);
  const size = movers.length - 1;
  const root = choleskyOf(
    Array.from({ length: size }, (_, row) =>
      Array.from(
        { length: size },
        (_column, column) => covariance(row + 1, column + 1) - covariance(row + 1, 0) - covariance(0, column + 1) + covariance(0, 0),
      ),
    ),
  );
  const logRoot = root.reduce((sum, row, index) => sum + Math.log(row[index]), 0);
  return (moments) => {
    const solved: number[] = [];
    for (let row = 0; row < size; row += 1) {
      let rest = moments[row + 1] - moments[0] - (means[row + 1] - means[0]);
      for (let column = 0; column < row; column += 1) rest -= root[row][column] * solved[column];
      solved.push(rest / root[row][row]);
    }
    return -logRoot - 0.5 * solved.reduce((sum, each) => sum + each * each, 0);
  };
}

/** The lower triangle whose product with itself is the matrix. */
function choleskyOf(matrix: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const root = matrix.map((row) => row.map(() => 0));
  matrix.forEach((values, row) => {
    for (let column = 0; column <= row; column += 1) {
      let rest = values[column];
      for (let before = 0; before < column; before += 1) rest -= root[row][before] * root[column][before];
      root[row][column] = row === column ? Math.sqrt(Math.max(rest, 1e-9)) : rest / root[column][column];
    }
  });
  return root;
}
