import type { Instrument } from '@zelpit/core/fingering';
import type { PlayedNote, PlaySettings, Timeline } from '@zelpit/core/sound';

/** What the page asks of the sound worker. */
export interface SoundRequest {
  readonly kind: 'render';
  readonly id: number;
  /** As it is played: fingerings and tuning. */
  readonly instrument: Instrument;
  readonly notes: readonly PlayedNote[];
  readonly settings: PlaySettings;
  /** When the voices of a round enter, in beats after the first; one voice where nothing is said. */
  readonly entries?: readonly number[];
  readonly sampleRate: number;
  readonly hasBalance: boolean;
  readonly hasDrone: boolean;
}

/** What it answers. */
export type SoundAnswer =
  | { readonly kind: 'rendered'; readonly id: number; readonly samples: Float32Array<ArrayBuffer>; readonly timeline: Timeline }
  | { readonly kind: 'failed'; readonly id: number; readonly text: string };
