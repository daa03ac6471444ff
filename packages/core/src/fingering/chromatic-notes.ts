import type { InstrumentData } from './instrument';

type NoteData = InstrumentData['notes'][number];

const names = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'B♭', 'B'];
const spoken = ['C', 'C sharp', 'D', 'E flat', 'E', 'F', 'F sharp', 'G', 'G sharp', 'A', 'B flat', 'B'];
const ids = ['c', 'cs', 'd', 'eb', 'e', 'f', 'fs', 'g', 'gs', 'a', 'bb', 'b'];
const abcLetters = ['C', '^C', 'D', '_E', 'E', 'F', '^F', 'G', '^G', 'A', '_B', 'B'];

/** Id of a sounding note by its number, 60 = C4: "fs5". */
export const noteIdOf = (sounding: number): string => `${ids[sounding % 12]}${Math.floor(sounding / 12) - 1}`;

export interface ChromaticScale {
  /** Sounding notes, 60 = C4, from the lowest up. */
  readonly sounding: readonly number[];
  /** What stands on the page, in semitones above what sounds. */
  readonly writtenAbove: number;
  /** The sounding note whose ratio is 1. */
  readonly reference: number;
  /** Word before a note's name: "low", "high", or nothing. */
  readonly octaveWord: (sounding: number) => string;
}

/** Notes in equal temperament with their names, for an instrument without letters of its own. */
export function chromaticNotes({ sounding, writtenAbove, reference, octaveWord }: ChromaticScale): NoteData[] {
  return sounding.map((number) => {
    const written = number + writtenAbove;
    const step = written % 12;
    return {
      id: noteIdOf(number),
      schoolName: `${octaveWord(number)} ${spoken[step]}`.trim(),
      writtenName: names[step],
      abc: abcLetter(written),
      writtenSemitone: written,
      ratio: 2 ** ((number - reference) / 12),
      loudnessDecibels: 0,
    };
  });
}

function abcLetter(written: number): string {
  const octave = Math.floor(written / 12) - 5;
  const letter = abcLetters[written % 12];
  if (octave >= 1) return letter.toLowerCase() + "'".repeat(octave - 1);
  return letter + ','.repeat(-octave);
}

/** Pitch of a note in equal temperament at A4 = 440 Hz. */
export const equalHertz = (number: number): number => 440 * 2 ** ((number - 69) / 12);

/** The range in which an instrument in equal temperament is tuned: A4 from 427 to 453 Hz. */
export function equalReference(sounding: number): InstrumentData['reference'] {
  const hertz = equalHertz(sounding);
  return { note: noteIdOf(sounding), hertz, lowestHertz: hertz * 0.97, highestHertz: hertz * 1.03 };
}
