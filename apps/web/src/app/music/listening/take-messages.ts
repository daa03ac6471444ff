import type { Instrument, NoteId } from '@zelpit/core/fingering';
import type { AskedNote, Blowing, HeardRung, HeardStretch, JudgedPiece, JudgedTake, TakeClick } from '@zelpit/core/listening';
import type { FingersResult, FittedTiming } from '@zelpit/core/playing';

/** What was asked for: one change, to and fro; notes with their grace notes, to a click or not; or a rung of a ladder, as far as it was played. */
export type Asked =
  | { readonly kind: 'changes'; readonly notes: readonly NoteId[] }
  | { readonly kind: 'piece'; readonly notes: readonly AskedNote[]; readonly click?: TakeClick }
  | { readonly kind: 'rung'; readonly notes: readonly AskedNote[]; readonly click: TakeClick; readonly isOver: boolean };

/** How the player's fingers keep together, as far as the sound of a take tells; it comes after what was heard. */
export interface HeardTiming {
  readonly fitted: FittedTiming;
  readonly result: FingersResult;
}

/** What the worker says after its answer, where there is something to say. */
export interface TakeTimingAnswer {
  readonly id: number;
  /** Undefined where the sound does not tell enough. */
  readonly timing: HeardTiming | undefined;
}

/** What a page asks of the worker that listens to a take. */
export interface TakeRequest {
  readonly id: number;
  readonly instrument: Instrument;
  readonly wanted: Asked;
  /** One channel. */
  readonly samples: Float32Array;
  readonly sampleRate: number;
  /** What sounds, where fingers or keys tell it: then the samples are not listened to. */
  readonly stretches?: readonly HeardStretch[];
}

export interface TakeAnswer {
  readonly id: number;
  readonly heard:
    | { readonly kind: 'changes'; readonly take: JudgedTake }
    | { readonly kind: 'piece'; readonly piece: JudgedPiece }
    | { readonly kind: 'rung'; readonly rung: HeardRung }
    | { readonly kind: 'fault'; readonly message: string };
  /** How far the whole take is from the instrument's own pitch, in cents. */
  readonly tuning: number;
  /** How steadily each note was blown that was held long enough. */
  readonly blowing: readonly Blowing[];
}
