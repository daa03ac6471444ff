import * as z from 'zod';
import { noteIdSchema, noteOf, type Instrument, type NoteId } from '../fingering';
import { graceSteps } from './grace-steps';

const syllable = z.string().trim().max(12, 'A syllable can have at most 12 characters.');

/** A teacher's syllables: for each note as a note, and as a grace note. What is empty is the note's letter. */
export const syllableSetSchema = z.record(noteIdSchema, z.strictObject({ note: syllable, grace: syllable }));
export type SyllableSet = Readonly<z.infer<typeof syllableSetSchema>>;

/**
 * One syllable for each element before a theme note, and one for the theme note.
 * @param graces letters of the group, first to last
 */
export function syllablesOf(instrument: Instrument, graces: readonly NoteId[], theme: NoteId, set: SyllableSet): readonly string[] {
  const text = (id: NoteId, as: 'note' | 'grace'): string => {
    const own = set[id]?.[as] ?? '';
    return own === '' ? noteOf(instrument, id).writtenName : own;
  };
  return [...graceSteps(instrument, graces, theme).map(({ written, kind }) => text(written, kind === 'lifting' ? 'grace' : 'note')), text(theme, 'note')];
}
