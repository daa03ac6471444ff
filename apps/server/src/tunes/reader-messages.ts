import type { FaultCode, Instrument } from '@zelpit/core';
import type { TuneReading } from './kept-tune';

/** A book to read. */
export interface ReaderRequest {
  readonly instrument: Instrument;
  readonly text: string;
  /** The first tune to read; those before it were read already. */
  readonly from: number;
  /** True where the instrument was chosen for this text, whatever its key says. */
  readonly isMeant: boolean;
}

/** One tune after another, then the end; or that nothing in it can be read. */
export type ReaderAnswer =
  | { readonly kind: 'tune'; readonly index: number; readonly reading: TuneReading }
  | { readonly kind: 'done' }
  | { readonly kind: 'refused'; readonly code: FaultCode; readonly message: string; readonly data: Readonly<Record<string, unknown>> };
