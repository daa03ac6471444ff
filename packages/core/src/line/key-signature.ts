import { noteOf, type Instrument, type NoteId } from '../fingering';

/** A scale by its steps. */
export type Mode = 'major' | 'minor' | 'dorian' | 'mixolydian';

/** Semitones of each mode above its first note. */
export const modeSteps: Readonly<Record<Mode, readonly number[]>> = {
  major: [0, 2, 4, 5, 7, 9, 11],
  minor: [0, 2, 3, 5, 7, 8, 10],
  dorian: [0, 2, 3, 5, 7, 9, 10],
  mixolydian: [0, 2, 4, 5, 7, 9, 10],
};
/** Which step of the major scale with the same signature a mode begins on, in semitones. */
const offsets: Readonly<Record<Mode, number>> = { major: 0, minor: 9, dorian: 2, mixolydian: 7 };

/** Signs of the major keys by their first note, in semitones above C: positive for sharps. */
const majorSigns: readonly number[] = [0, -5, 2, -3, 4, -1, 6, 1, -4, 3, -2, 5];
/** Major keys from seven flats to seven sharps. */
const majorKeys: readonly string[] = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
/** In which order letters get their sharps; flats come the other way round. */
const sharpOrder = 'FCGDAEB';

/** Signs of a scale from a note: so many sharps, or flats where it is negative. */
export const signsOfScale = (writtenSemitone: number, mode: Mode): number => majorSigns[(((writtenSemitone - offsets[mode]) % 12) + 12) % 12];

/**
 * Signs of an instrument's own music: those of the major scale on the lowest note of a whistle and of the Irish chanter, none else. An instrument whose letters
 * have a key of their own has that key instead.
 */
export function signsOf({ family, notes }: Instrument): number {
  return family === 'whistle' || family === 'irish-pipes' ? signsOfScale(notes[0].writtenSemitone, 'major') : 0;
}

/** The major key with so many signs, as ABC writes it: "D" for 2, "Bb" for -2. */
export const keyOfSigns = (signs: number): string => majorKeys[signs + 7];

/** What a signature does to a letter: 1 sharp, -1 flat. */
function signOfLetter(signs: number, letter: string): number {
  const place = sharpOrder.indexOf(letter.toUpperCase());
  if (signs > 0) return place < signs ? 1 : 0;
  return signs < 0 && 6 - place < -signs ? -1 : 0;
}

const signText: Readonly<Record<number, string>> = { 1: '^', 0: '=', [-1]: '_' };
const signValue: Readonly<Record<string, number>> = { '^': 1, _: -1 };

/** A note's own sign and its letter with octave marks: "^f" is 1 and "f". */
function signAndLetter(instrument: Instrument, note: NoteId): readonly [sign: number, letter: string] {
  const { abc } = noteOf(instrument, note);
  return [signValue[abc.charAt(0)] ?? 0, abc.replace(/^[_^=]/, '')];
}

/**
 * How the notes of a line are written under a signature: a sign stands where it differs from the signature, and on every note of a letter that has two signs in
 * the line, so that none is read by the note beside it.
 */
export function lettersUnder(instrument: Instrument, notes: readonly NoteId[], signs: number): ReadonlyMap<NoteId, string> {
  const all = [...new Set(notes)].map((note) => ({ note, parts: signAndLetter(instrument, note) }));
  const isMixed = (letter: string): boolean => new Set(all.filter(({ parts }) => parts[1] === letter).map(({ parts }) => parts[0])).size > 1;
  return new Map(
    all.map(({ note, parts: [sign, letter] }) => [note, sign === signOfLetter(signs, letter) && !isMixed(letter) ? letter : signText[sign] + letter] as const),
  );
}
