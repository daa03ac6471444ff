import type { Instrument, Note } from '../fingering';
import type { ParsedKeyAccidental, ParsedPitch } from './parsed-abc';
import type { WrittenNote } from './tune';

const semitoneOfStep = [0, 2, 4, 5, 7, 9, 11];
const letterOfStep = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
const shift: Readonly<Record<string, number>> = { sharp: 1, flat: -1, natural: 0, dblsharp: 2, dblflat: -2 };
const middleC = 60;

/** Sharps and flats in force: of the key, and those written earlier in the bar. */
export interface Accidentals {
  readonly key: ReadonlyMap<string, string>;
  readonly bar: Map<number, string>;
}

export function keyAccidentals(list: readonly ParsedKeyAccidental[] = []): ReadonlyMap<string, string> {
  return new Map(list.map(({ note, acc }) => [note.toUpperCase(), acc]));
}

/** The instrument's note for a pitch on the page; under the instrument's own key the letter alone decides. */
export function writtenNote(instrument: Instrument, pitch: ParsedPitch, accidentals: Accidentals, isOwnKey: boolean): WrittenNote {
  const step = ((pitch.pitch % 7) + 7) % 7;
  const octave = Math.floor(pitch.pitch / 7);
  if (pitch.accidental !== undefined) accidentals.bar.set(pitch.pitch, pitch.accidental);
  if (isOwnKey) {
    const letter = abcLetter(step, octave);
    const note = instrument.notes.find((each) => each.abc === letter);
    return note === undefined ? outsideOwnKey(instrument, step, octave) : { kind: 'note', note: note.id };
  }
  const accidental = accidentals.bar.get(pitch.pitch) ?? accidentals.key.get(letterOfStep[step]) ?? 'natural';
  const semitone = middleC + octave * 12 + semitoneOfStep[step] + (shift[accidental] ?? 0);
  const note = instrument.notes.find((each) => each.writtenSemitone === semitone);
  if (note !== undefined) return { kind: 'note', note: note.id };
  const name = `${letterOfStep[step]}${accidental === 'natural' ? '' : ` ${accidental.replace('dbl', 'double ')}`}`;
  return {
    kind: 'outside',
    semitone,
    text: outsidePhrase(instrument, accidental === 'natural' && needsNatural(instrument, step, semitone) ? `${name} natural` : name, semitone),
  };
}

/** A letter in an octave that the instrument does not reach; it stands for the instrument's own note of that letter. */
function outsideOwnKey(instrument: Instrument, step: number, octave: number): WrittenNote {
  const plain = middleC + octave * 12 + semitoneOfStep[step];
  const own = instrument.notes.find((note) => note.writtenName === letterOfStep[step]);
  const raised = own === undefined ? 0 : (((own.writtenSemitone - plain) % 12) + 12) % 12;
  const semitone = plain + raised;
  return { kind: 'outside', semitone, text: outsidePhrase(instrument, letterOfStep[step], semitone) };
}

function abcLetter(step: number, octave: number): string {
  const letter = letterOfStep[step];
  return octave >= 1 ? letter.toLowerCase() + "'".repeat(octave - 1) : letter + ','.repeat(-octave);
}

function outsidePhrase(instrument: Instrument, name: string, semitone: number): string {
  const lowest = instrument.notes[0];
  const highest = instrument.notes[instrument.notes.length - 1];
  if (semitone < lowest.writtenSemitone) return `${name} below ${lowest.schoolName}`;
  if (semitone > highest.writtenSemitone) return `${name} above ${highest.schoolName}`;
  return name;
}

/** True where the chart has the same letter a semitone away, so that "natural" tells the two apart. */
function needsNatural(instrument: Instrument, step: number, semitone: number): boolean {
  const isSameLetter = (note: Note): boolean => note.writtenName === letterOfStep[step];
  return instrument.notes.some((note) => isSameLetter(note) && Math.abs(note.writtenSemitone - semitone) === 1);
}
