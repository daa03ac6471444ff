import {
  factsOf,
  instrumentById,
  instruments,
  MovementReader,
  readerVersion,
  splitBook,
  titleOf,
  type BookReading,
  type ChordNote,
  type Instrument,
  type ReadEntry,
  type RefusedEntry,
  type TuneFacts,
} from '@zelpit/core';

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
  /** The voice that is read; empty for the first. */
  readonly voice: string;
  /** Which note of a chord is played. */
  readonly chordNote: ChordNote;
  /** By which reader all this was worked out. */
  readonly reader: number;
  readonly facts: TuneFacts;
}

/** Movement readers by their instrument, kept: a book is read for one. */
const movementReaders = new WeakMap<Instrument, MovementReader>();

function movementReaderOf(instrument: Instrument): MovementReader {
  const reader = movementReaders.get(instrument) ?? new MovementReader(instrument);
  movementReaders.set(instrument, reader);
  return reader;
}

/** @param wanted instrument for which the book was read; a tune under another one's own key is that one's */
export function keptTuneOf(wanted: Instrument, { title, abc, tune, instrument: id }: ReadEntry, chordNote: ChordNote = 'highest'): KeptTune {
  const instrument = id === wanted.id || !instruments.some((each) => each.id === id) ? wanted : instrumentById(id);
  return {
    title: title.slice(0, 300),
    rhythm: tune.rhythm.slice(0, 60),
    meter: tune.meter.text,
    musicKey: tune.key,
    bars: new Set(tune.bars.map((bar) => bar.number).filter((number) => number > 0)).size,
    outside: tune.notes.filter((note) => note.written.kind === 'outside').length,
    abc,
    instrument: id,
    voice: tune.score.voices.indexOf(tune.voice) > 0 ? tune.voice.id : '',
    chordNote,
    reader: readerVersion,
    facts: factsOf(instrument, tune, movementReaderOf(instrument)),
  };
}

/** One tune of a book as the server takes it: all that it keeps, or why it was refused. Its notes stay in the thread that read them. */
export type TuneReading = { readonly kind: 'read'; readonly tune: KeptTune } | { readonly kind: 'refused'; readonly entry: RefusedEntry };

export const tuneReadingOf = (wanted: Instrument, reading: BookReading, chordNote?: ChordNote): TuneReading =>
  reading.kind === 'read' ? { kind: 'read', tune: keptTuneOf(wanted, reading.entry, chordNote) } : reading;

/** So much of a text that could not be read goes back, in characters. */
const shown = 2000;

/** A tune that no reader could read in its time and room. */
export function tooMuch(text: string, index: number): TuneReading {
  const entry = splitBook(text)[index];
  const fault = {
    line: entry.firstLine,
    column: 1,
    problem: 'This tune takes too long to read, so it was left out.',
    expected: 'a shorter text, or one without long rows of the same character',
  };
  return { kind: 'refused', entry: { title: titleOf(entry), firstLine: entry.firstLine, abc: entry.abc.slice(0, shown), faults: [fault] } };
}
