import type { Tune } from '../tune';

/** What of a tune is taken at one time, by bars as counted aloud, or by notes. */
export type ChunkRange =
  | { readonly kind: 'bars'; readonly from: number; readonly to: number }
  /** Half of one bar: up to the middle beat, or from it on. */
  | { readonly kind: 'half'; readonly bar: number; readonly half: 'first' | 'second' }
  /** Notes of the tune from `first` up to and including `last`, by index. */
  | { readonly kind: 'notes'; readonly first: number; readonly last: number };

/** More theme notes than that are taken half a bar at a time. */
export const mostChunkNotes = 6;

/**
 * What a teacher takes of a bar: the bar, or where it has many notes its first half.
 * @param bar as counted aloud
 */
export function usualRange({ bars, notes }: Tune, bar: number): ChunkRange {
  const found = bars.find((each) => each.number === bar && each.end > each.first);
  const count =
    found === undefined
      ? 0
      : notes.slice(found.first, found.end).filter(({ written, isTiedFromPrevious }) => written.kind !== 'rest' && !isTiedFromPrevious).length;
  return count > mostChunkNotes && found !== undefined && found.meter.beats > 1 && found.meter.bar > 0
    ? { kind: 'half', bar, half: 'first' }
    : { kind: 'bars', from: bar, to: bar };
}
