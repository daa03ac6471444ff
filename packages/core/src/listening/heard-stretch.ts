import type { NoteId } from '../fingering';

/** A stretch of a take in which one note sounds, or none. */
export interface HeardStretch {
  /** Null for silence. */
  readonly note: NoteId | null;
  /** In ms from the beginning of the take. */
  readonly start: number;
  readonly end: number;
  /** How much better this note fits than the next best, 0 to 1. */
  readonly confidence: number;
  /** True where the device lost what sounded: no silence was heard, and nothing is claimed. */
  readonly isLost?: true;
}
