import type { BookReading, ReadEntry, RefusedEntry } from '@zelpit/core';

/** What is kept of a tune: its text, and what lists need of it. */
export interface KeptTune {
  readonly title: string;
  readonly rhythm: string;
  readonly meter: string;
  readonly musicKey: string;
  /** Bars that are counted: a lead-in is none. */
  readonly bars: number;
  /** Notes that the instrument does not have. */
  readonly outside: number;
  readonly abc: string;
  /** Id of the instrument that it was read for. */
  readonly instrument: string;
}

export function keptTuneOf({ title, abc, tune, instrument }: ReadEntry): KeptTune {
  return {
    title: title.slice(0, 300),
    rhythm: tune.rhythm.slice(0, 60),
    meter: tune.meter.text,
    musicKey: tune.key,
    bars: new Set(tune.bars.map((bar) => bar.number).filter((number) => number > 0)).size,
    outside: tune.notes.filter((note) => note.written.kind === 'outside').length,
    abc,
    instrument,
  };
}

/** One tune of a book as the server takes it: all that it keeps, or why it was refused. Its notes stay in the thread that read them. */
export type TuneReading = { readonly kind: 'read'; readonly tune: KeptTune } | { readonly kind: 'refused'; readonly entry: RefusedEntry };

export const tuneReadingOf = (reading: BookReading): TuneReading => (reading.kind === 'read' ? { kind: 'read', tune: keptTuneOf(reading.entry) } : reading);
