import { noteOf, type Instrument, type NoteId } from '../fingering';
import { syllablesOf, type SyllableSet } from '../movement';
import { noteHeads } from './exercise-music';
import type { LineNote } from './exercise';

/** What stands under the notes of a line: nothing, the letter of each note, or a syllable for each element. */
export type LineWords = { readonly kind: 'none' } | { readonly kind: 'letters' } | { readonly kind: 'syllables'; readonly set: SyllableSet };

/**
 * Words under the note heads of some notes, from top to bottom: one row of letters, or as many rows of syllables as the longest group has elements; a
 * head's own stand one under another in the order in which they sound. Heads that go on from a tied note have none.
 */
export function wordRows(instrument: Instrument, notes: readonly LineNote[], words: LineWords): readonly (readonly string[])[] {
  if (words.kind === 'none') return [];
  let isGoingOn = false;
  const columns = noteHeads(notes).map(({ note, graceNotes, isTied }): readonly string[] => {
    const isSame = isGoingOn;
    isGoingOn = isTied;
    if (isSame) return [];
    return wordsAt(instrument, graceNotes, note, words);
  });
  const rows = Math.max(0, ...columns.map((column) => column.length));
  return Array.from({ length: rows }, (_, row) => columns.map((column) => column[row] ?? ''));
}

/** Words under one note, from top to bottom. */
export function wordsAt(instrument: Instrument, graceNotes: readonly NoteId[], note: NoteId, words: LineWords): readonly string[] {
  if (words.kind === 'none') return [];
  return words.kind === 'letters' ? [noteOf(instrument, note).writtenName] : syllablesOf(instrument, graceNotes, note, words.set);
}

/** The rows as fields of ABC, empty for none. */
export const wordsField = (instrument: Instrument, notes: readonly LineNote[], words: LineWords): string =>
  wordRows(instrument, notes, words)
    .map((row) => `w:${row.map(escaped).join(' ')}\n`)
    .join('');

/** Without signs that mean something in words under music; a place without a word says so. */
const escaped = (text: string): string =>
  text
    .trim()
    .replace(/[-_*|\\%~]/g, '')
    .replace(/\s+/g, '~') || '*';
