import type { Instrument, Note } from './instrument';

/** Where music for an instrument stands on the page: as its chart has it, or an octave lower, as many books for the ocarina do. */
export type WrittenOctave = 'as-charted' | 'octave-lower';

/** True for instruments whose music is written in either octave. */
export const isWrittenInTwoOctaves = ({ family }: Pick<Instrument, 'family'>): boolean => family === 'ocarina';

const semitonesInOctave = 12;

/** The instrument with its notes where they stand on the page; what is fingered and what sounds stay. */
export function withWrittenOctave(instrument: Instrument, written: WrittenOctave): Instrument {
  if (written === 'as-charted' || !isWrittenInTwoOctaves(instrument)) return instrument;
  return {
    ...instrument,
    notes: instrument.notes.map((note): Note => ({ ...note, writtenSemitone: note.writtenSemitone - semitonesInOctave, abc: octaveLower(note.abc) })),
  };
}

/** A letter of ABC an octave lower: c' is c, c is C, C is C, with a comma. */
function octaveLower(abc: string): string {
  if (abc.endsWith("'")) return abc.slice(0, -1);
  return abc === abc.toUpperCase() ? `${abc},` : abc.toUpperCase();
}
