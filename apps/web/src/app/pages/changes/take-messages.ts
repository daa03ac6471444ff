import type { Instrument, NoteId } from '@zelpit/core/fingering';
import type { Blowing, JudgedTake } from '@zelpit/core/listening';

/** What the page asks of the worker that listens to a take. */
export interface TakeRequest {
  readonly id: number;
  readonly instrument: Instrument;
  /** The notes that were asked for, in their order. */
  readonly wanted: readonly NoteId[];
  /** One channel. */
  readonly samples: Float32Array;
  readonly sampleRate: number;
}

export interface TakeAnswer {
  readonly id: number;
  readonly take: JudgedTake;
  /** How far the whole take is from the instrument's own pitch, in cents. */
  readonly tuning: number;
  /** How steadily each note was blown that was held long enough. */
  readonly blowing: readonly Blowing[];
}
