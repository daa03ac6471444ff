import { noteOf, type Instrument } from '../fingering';
import { syllablesOf, type SyllableSet } from '../movement';
import { noteHeads } from './exercise-music';
import type { LineNote } from './exercise';

/** What stands under the notes of a line: nothing, the letter of each note, or a syllable for each element. */
export type LineWords = { readonly kind: 'none' } | { readonly kind: 'letters' } | { readonly kind: 'syllables'; readonly set: SyllableSet };

/** Words under the note heads of some notes as a field of ABC, empty for none; heads that go on from a tied note have none. */
export function wordsField(instrument: Instrument, notes: readonly LineNote[], words: LineWords): string {
  if (words.kind === 'none') return '';
  let isGoingOn = false;
  const under = noteHeads(notes).map(({ note, graceNotes, isTied }) => {
    const isSame = isGoingOn;
    isGoingOn = isTied;
    if (isSame) return '*';
    const all = words.kind === 'letters' ? [noteOf(instrument, note).writtenName] : syllablesOf(instrument, graceNotes, note, words.set);
    return all.map(escaped).join('~');
  });
  return `w:${under.join(' ')}\n`;
}

/** Signs that mean something in words under music. */
const escaped = (text: string): string => text.replace(/[\s~]+/g, '~').replace(/[-_*|\\%]/g, '');
