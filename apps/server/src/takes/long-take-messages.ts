import type { LongTakeAsked, LongTakeResult } from '@zelpit/contract';
import type { Instrument } from '@zelpit/core';

/** A long take comes piece by piece, then what was asked for in it. */
export type LongTakeRequest =
  { readonly kind: 'piece'; readonly bytes: Uint8Array } | { readonly kind: 'listen'; readonly instrument: Instrument; readonly asked: LongTakeAsked };

export type LongTakeAnswer =
  /** In seconds. */
  | { readonly kind: 'progress'; readonly done: number; readonly of: number }
  | { readonly kind: 'heard'; readonly result: LongTakeResult }
  | { readonly kind: 'refused'; readonly detail: string };
