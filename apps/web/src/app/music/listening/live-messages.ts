import type { Instrument, NoteId } from '@zelpit/core/fingering';
import type { HeardChange, LivePitch } from '@zelpit/core/listening';

/** What a page tells the worker that listens while somebody plays: first on what, then each piece. */
export type LiveRequest =
  | { readonly kind: 'begin'; readonly instrument: Instrument; readonly sampleRate: number; readonly pair: readonly [NoteId, NoteId] | undefined }
  | { readonly kind: 'piece'; readonly samples: Float32Array };

export interface LiveAnswer {
  /** What sounds now; undefined for nothing. */
  readonly pitch: LivePitch | undefined;
  /** The last change; undefined before there is one, and where none is asked for. */
  readonly change: HeardChange | undefined;
}
