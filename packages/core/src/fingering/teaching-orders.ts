import type { Instrument, NoteId } from './instrument';

/** An order in which the notes of an instrument are met. */
export interface TeachingOrder {
  readonly text: string;
  readonly notes: readonly NoteId[];
}

/** Semitones above the lowest note, first ones first; what is not named follows up the scale. Usual chart. */
const orders: Readonly<Record<Instrument['family'], readonly (readonly [text: string, ...semitones: readonly number[]])[]>> = {
  pipes: [['from low A', 2, 4, 6, 7, 9, 11, 12, 14, 0]],
  'irish-pipes': [['from back D down', 12, 11, 9, 7, 5, 4, 2, 0]],
  whistle: [
    ['B A G first', 9, 7, 5, 4, 2, 0],
    ['the scale without half holes', 0, 2, 4, 5, 7, 9, 11, 12],
  ],
  recorder: [['B A G first', 11, 9, 7, 12, 14, 4, 2, 5, 6, 10, 0, 16]],
  ocarina: [['from C', 3, 5, 7, 8, 10, 12, 14, 15]],
};

/** The scale, and the orders that teachers of the family use. */
export function teachingOrders(instrument: Instrument): readonly TeachingOrder[] {
  const lowest = instrument.notes[0].writtenSemitone;
  const scale = instrument.notes.map((note) => note.id);
  const taught = orders[instrument.family].map(([text, ...semitones]) => {
    const first = semitones.flatMap((semitone) => instrument.notes.filter((note) => note.writtenSemitone === lowest + semitone).map((note) => note.id));
    return { text, notes: [...first, ...scale.filter((note) => !first.includes(note))] };
  });
  return [{ text: 'up the scale', notes: scale }, ...taught];
}
