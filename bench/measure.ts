/** One measured figure, as it stands in `results.json`. */
export interface Figure {
  readonly name: string;
  readonly median: number;
  readonly unit: string;
  /** What it is meant to be, in words. */
  readonly goal: string;
  readonly isMet: boolean;
  readonly better: 'lower' | 'higher';
  /** What it is compared with, measured in the same run. */
  readonly baseline: { readonly name: string; readonly median: number } | null;
  /** `median` over the baseline's. */
  readonly ratio: number | null;
  readonly command: string;
}

export const benchCommand = 'npm run bench';

/** Middle of a list of numbers; of an even count, the mean of the two in the middle. */
export function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((one, other) => one - other);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}

/** The value that so large a share of them does not exceed. */
export const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((one, other) => one - other)[Math.ceil(values.length * share) - 1];

/** Median time of a call in ms, after some calls to warm up. */
export function medianTime(run: () => void, times = 200, warmUp = 200): number {
  for (let index = 0; index < warmUp; index += 1) run();
  return medianOf(
    Array.from({ length: times }, () => {
      const start = performance.now();
      run();
      return performance.now() - start;
    }),
  );
}
