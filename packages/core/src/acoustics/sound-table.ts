/** What every pattern without half covers sounds. The index has a bit for each hole, the instrument's first hole the lowest; 1 is covered. */
export interface SoundTable {
  /** In Hz to a tenth; 0 where nothing sounds. */
  readonly hertz: readonly number[];
  /** For each pattern: 1 steady, 0 not. */
  readonly steady: string;
  /** 5th to 95th percentile over plausible geometries, in cents. */
  readonly spread: readonly number[];
}

/** Where a pattern stands in a table. */
export const indexOf = (coverages: readonly number[]): number => coverages.reduce((sum, coverage, hole) => sum + (coverage >= 1 ? 2 ** hole : 0), 0);
