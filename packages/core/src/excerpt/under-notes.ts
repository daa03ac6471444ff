import { holeNumbers, noteNameIn, type Instrument, type NoteId, type NoteNaming } from '../fingering';
import type { CountWay } from '../form';
import { syllablesOf, type SyllableSet } from '../movement';
import type { Tune } from '../tune';
import { countOfTune } from '../form';

/**
 * What stands under the notes of music: nothing, the letter of each note, the holes that it covers, the count, the words of the tune, or a syllable for each element of a
 * movement.
 */
export type LineWords =
  | { readonly kind: 'none' }
  | { readonly kind: 'letters'; readonly naming?: NoteNaming }
  | { readonly kind: 'holes' }
  | { readonly kind: 'count'; readonly way?: CountWay }
  | { readonly kind: 'words' }
  | { readonly kind: 'syllables'; readonly set: SyllableSet };

/** Words under one note, from top to bottom; none where they depend on more than the note: the count, the words of a tune. */
export function wordsAt(instrument: Instrument, graceNotes: readonly NoteId[], note: NoteId, words: LineWords): readonly string[] {
  switch (words.kind) {
    case 'letters':
      return [noteNameIn(instrument, note, words.naming)];
    case 'holes':
      return [holeNumbers(instrument, note)];
    case 'syllables':
      return syllablesOf(instrument, graceNotes, note, words.set);
    default:
      return [];
  }
}

/** For each note of a tune what stands under it, from top to bottom; nothing under what goes on from a tied note. */
export function underTune(instrument: Instrument, tune: Tune, words: LineWords): readonly (readonly string[])[] {
  if (words.kind === 'count') {
    const said = new Map(countOfTune(tune, words.way).flatMap(({ note, text }) => (note === undefined ? [] : [[note, text] as const])));
    return tune.notes.map(({ index }) => (said.has(index) ? [said.get(index) ?? ''] : []));
  }
  return tune.notes.map(({ index, written, graceNotes, isTiedFromPrevious }) => {
    if (words.kind === 'words') return tune.voice.events[index].lyrics.map(({ text, joins }) => (joins ? `${text}-` : text));
    return written.kind === 'note' && !isTiedFromPrevious ? wordsAt(instrument, graceNotes, written.note, words) : [];
  });
}
