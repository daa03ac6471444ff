import type { Instrument } from '../fingering';
import { readTune, type Tune } from '../tune';
import { decoratedNotes, gracesAt, withGraces, type DecoratedNote, type NoteLayers } from './note-layers';
import type { MovementDefinition, MovementReader } from '../movement';

/** The steps in which a chunk is learned. */
export type RowKind = 'bare' | 'one' | 'full' | 'count';
export const rowKinds: readonly RowKind[] = ['bare', 'one', 'full', 'count'];
export const rowNames: Readonly<Record<RowKind, string>> = { bare: 'bare notes', one: 'one grace note', full: 'in full', count: 'with the count' };

export interface ChunkRow {
  /** From 1; a row that is left out leaves its number free. */
  readonly number: number;
  readonly kind: RowKind;
  readonly tune: Tune;
}

export interface ChunkRows {
  readonly rows: readonly ChunkRow[];
  readonly decorated: readonly DecoratedNote[];
}

/**
 * A chunk bare, with one grace note, in full and with the count; a row that is played like the one before is left out, but for the count.
 * @param layers at which layer single notes stand for this player
 */
export function rowsOf(
  instrument: Instrument,
  tune: Tune,
  layers: NoteLayers = new Map(),
  wishes: { readonly own?: readonly MovementDefinition[]; readonly reader?: MovementReader } = {},
): ChunkRows {
  const decorated = decoratedNotes(instrument, tune, wishes);
  const textOf = (kind: 'bare' | 'one' | 'full'): string => JSON.stringify([...gracesAt(decorated, kind, layers)]);
  const read = (kind: 'bare' | 'one' | 'full'): Tune => readTune(instrument, withGraces(instrument, tune, gracesAt(decorated, kind, layers)));
  const full = read('full');
  const rows: ChunkRow[] = [{ number: 1, kind: 'bare', tune: decorated.length === 0 ? full : read('bare') }];
  if (textOf('one') !== textOf('bare')) rows.push({ number: 2, kind: 'one', tune: read('one') });
  if (textOf('full') !== textOf('one')) rows.push({ number: 3, kind: 'full', tune: full });
  return { rows: [...rows, { number: 4, kind: 'count', tune: full }], decorated };
}
