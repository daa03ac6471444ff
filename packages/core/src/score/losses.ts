import type { Score, ScoreVoice } from './score';

/** A kind of file that a tune goes out as. */
export type TuneFormat = 'abc' | 'musicxml' | 'mxl' | 'mid' | 'wav' | 'pdf' | 'svg' | 'png';

/**
 * What a file of this kind cannot carry of a tune, each as a phrase; empty where it carries everything.
 * @param voice that is read and drawn
 */
export function lossesOf(format: TuneFormat, score: Score, voice: ScoreVoice): readonly string[] {
  if (format === 'abc') return [];
  const has = hasIn(score, voice);
  const fields = (letters: string): string => fieldsIn(score, letters);
  if (format === 'musicxml' || format === 'mxl') {
    return phrases([
      [has.partOrder, `the order of the parts (${score.partOrder.join('')}): they stand in the order of the page`],
      [has.pipes, 'the pipes’ own key: it is written as F sharp and C sharp'],
      [fields('ABDFGHNORSZ') !== '', fields('ABDFGHNORSZ')],
      [has.wordsAfter, 'the words after the tune'],
    ]);
  }
  if (format === 'pdf' || format === 'svg' || format === 'png') {
    return phrases([
      [has.voices, 'other voices: the one that is read is drawn'],
      [has.wordsAfter, 'the words after the tune'],
      [fields('ABDFGHNOSZ') !== '', fields('ABDFGHNOSZ')],
    ]);
  }
  return phrases([
    [has.voices, 'other voices: the one that is read is played'],
    [has.words, 'words'],
    [has.chords, 'chord symbols'],
    [has.signs, 'signs over notes'],
    [has.slurs, 'slurs'],
    [format === 'mid', 'the instrument’s own tuning: a keyboard has twelve equal semitones'],
    [true, 'the notes on the page: bars are played out as they are repeated'],
  ]);
}

/** Fields of the head that only ABC has. */
const fieldNames: Readonly<Record<string, string>> = {
  ...{
    A: 'where its maker lives',
    B: 'book',
    D: 'record',
    F: 'address of the file',
    G: 'group',
    H: 'history',
    N: 'notes on it',
    O: 'origin',
    R: 'kind of tune',
  },
  ...{ S: 'source', Z: 'who wrote it down' },
};

/** Names of the fields with these letters that the head has: "kind of tune, source". */
const fieldsIn = ({ header }: Score, letters: string): string =>
  [...new Set(header.flatMap(({ letter, text }) => (text !== '' && letters.includes(letter) ? [fieldNames[letter]] : [])))].join(', ');

const phrases = (all: readonly (readonly [boolean, string])[]): readonly string[] => all.flatMap(([holds, text]) => (holds ? [text] : []));

function hasIn(
  score: Score,
  { events, bars }: ScoreVoice,
): Readonly<Record<'partOrder' | 'pipes' | 'wordsAfter' | 'voices' | 'words' | 'chords' | 'signs' | 'slurs', boolean>> {
  return {
    partOrder: score.partOrder.length > 0,
    pipes: bars.some(({ key }) => key.isPipes),
    wordsAfter: score.words.length > 0,
    voices: score.voices.length > 1,
    words: events.some(({ lyrics }) => lyrics.some(({ text }) => text !== '')),
    chords: events.some(({ chordSymbol }) => chordSymbol !== ''),
    signs: events.some(({ decorations }) => decorations.length > 0),
    slurs: events.some(({ slurStarts }) => slurStarts > 0),
  };
}
