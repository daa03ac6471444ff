import * as z from 'zod';
import { ZelpitFault } from '../fault';
import { noteIdSchema, type NoteId } from '../fingering';
import { movementIdSchema } from '../movement';

/** Lengths are counted in twelfths of a quarter note, so that triplets are whole numbers too. */
export const quarter = 12;
/** Four quarters. */
export const bar = 4 * quarter;
/** More would not stand on one line of music. */
export const mostLineNotes = 64;

export const lineNoteSchema = z.strictObject({
  note: noteIdSchema,
  /** Length in twelfths of a quarter note. */
  twelfths: z
    .number()
    .int()
    .min(1, 'A note must last at least a twelfth of a beat.')
    .max(2 * bar, 'A note can last at most two bars.'),
  /** Letters of the grace notes before it, as notes of the instrument. */
  graceNotes: z.array(noteIdSchema).max(12, 'At most twelve grace notes stand before a note.').readonly().optional(),
  /** The movement that they are, or a layer of it: so that another layer can be taken at any time. */
  movement: movementIdSchema.optional(),
  /** True where it goes on into the same note after it. */
  isTied: z.boolean().optional(),
  /** True where it is slurred to the note after it. */
  isSlurred: z.boolean().optional(),
});
export type LineNote = Readonly<z.infer<typeof lineNoteSchema>>;

/** What a line of its own music is: its notes, what it is for in the music and for the hands, and the one thing to look at. */
export const exerciseSchema = z.strictObject({
  title: z.string().trim().min(1, 'A line needs a name.').max(120, 'A name of a line has at most 120 characters.'),
  musical: z.string().max(300, 'A purpose has at most 300 characters.'),
  physical: z.string().max(300, 'A purpose has at most 300 characters.'),
  focus: z.enum(['fingers', 'timing']),
  /** Its key signature: so many sharps, or flats where it is negative; the instrument's own where it is absent. */
  signs: z.number().int().min(-7).max(7).optional(),
  notes: z.array(lineNoteSchema).min(2, 'A line has at least two notes.').max(mostLineNotes, `A line has at most ${mostLineNotes} notes.`).readonly(),
});
export type Exercise = Readonly<z.infer<typeof exerciseSchema>>;

/** Length of an exercise in beats: whole bars. */
export function beatsOf(notes: readonly LineNote[]): number {
  const all = notes.reduce((sum, { twelfths }) => sum + twelfths, 0);
  return Math.ceil(all / bar) * 4;
}

/** Pairs of different notes that follow each other, once each, in the order in which they come. */
export function pairsIn(notes: readonly LineNote[]): readonly (readonly [NoteId, NoteId])[] {
  const pairs = notes.slice(1).flatMap(({ note }, index) => (note === notes[index].note ? [] : [[notes[index].note, note] as const]));
  return [...new Map(pairs.map((pair) => [pair.join(' '), pair])).values()];
}

/**
 * The last note made longer, or followed by itself tied, until the bar is full.
 * @throws ZelpitFault `out-of-range` for no notes
 */
export function filled(notes: readonly LineNote[]): readonly LineNote[] {
  if (notes.length === 0) throw new ZelpitFault('out-of-range', 'A line needs at least two notes; this one has none.', { count: 0 });
  const missing = beatsOf(notes) * quarter - notes.reduce((sum, { twelfths }) => sum + twelfths, 0);
  const last = notes[notes.length - 1];
  return [...notes.slice(0, -1), { ...last, twelfths: last.twelfths + missing }];
}
