import type { ChordNote, FaultCode, Instrument, ReadingChoice } from '@zelpit/core';
import type { KeptTune, TuneReading } from './kept-tune';

/** A book to read. */
export interface BookRequest {
  readonly kind: 'book';
  readonly instrument: Instrument;
  /** A file as it came, or a text. */
  readonly file: Uint8Array | string;
  /** The first tune to read; those before it were read already. */
  readonly from: number;
  /** True where the tune before `from` was too much for a reader, which is ended by now. */
  readonly wasTooMuch: boolean;
  /** True where the instrument was chosen for this text, whatever its key says. */
  readonly isMeant: boolean;
  /** What is read of each tune. */
  readonly choice: ReadingChoice;
}

/** A kept tune to read again. */
export interface KeptRequest {
  readonly kind: 'kept';
  readonly instrument: Instrument;
  readonly abc: string;
  readonly voice: string;
  readonly chordNote: ChordNote;
}

export type ReaderRequest = BookRequest | KeptRequest;

/** That the file was opened and split; then one tune after another and the end, or that nothing in it can be read. */
export type ReaderAnswer =
  | { readonly kind: 'begun'; readonly tunes: number }
  | { readonly kind: 'tune'; readonly reading: TuneReading }
  | { readonly kind: 'kept'; readonly tune: KeptTune }
  | { readonly kind: 'done' }
  | { readonly kind: 'refused'; readonly code: FaultCode; readonly message: string; readonly data: Readonly<Record<string, unknown>> };
