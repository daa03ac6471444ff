import { countAloud, type CountWay } from '../form';
import type { Instrument } from '../fingering';
import { wordsAt, type LineWords } from '../excerpt';
import { readMeter } from '../score';
import { noteHeads } from './exercise-music';
import { bar, quarter, type LineNote } from './exercise';

/**
 * Words under the note heads of some notes, from top to bottom: one row of letters, or as many rows of syllables as the longest group has elements; a
 * head's own stand one under another in the order in which they sound. Heads that go on from a tied note have none.
 */
export function wordRows(instrument: Instrument, notes: readonly LineNote[], words: LineWords): readonly (readonly string[])[] {
  if (words.kind === 'none' || words.kind === 'words') return [];
  const heads = noteHeads(notes);
  const counted =
    words.kind === 'count'
      ? countOf(
          heads.map(({ start }) => start),
          words.way,
        )
      : undefined;
  let isGoingOn = false;
  const columns = heads.map(({ note, graceNotes, isTied, start }): readonly string[] => {
    const isSame = isGoingOn;
    isGoingOn = isTied;
    if (isSame) return [];
    return counted === undefined ? wordsAt(instrument, graceNotes, note, words) : [counted.get(start) ?? ''];
  });
  const rows = Math.max(0, ...columns.map((column) => column.length));
  return Array.from({ length: rows }, (_, row) => columns.map((column) => column[row] ?? ''));
}

const fourFour = readMeter('4/4');

/** The count of a line by where its heads begin, in twelfths of a quarter note. */
function countOf(starts: readonly number[], way?: CountWay): ReadonlyMap<number, string> {
  const said = new Map<number, string>();
  if (fourFour === undefined) return said;
  const bars = Math.ceil((Math.max(0, ...starts) + 1) / bar);
  for (let index = 0; index < bars; index += 1) {
    const inBar = starts.filter((start) => Math.floor(start / bar) === index).map((start) => (start - index * bar) / (4 * quarter));
    for (const { at, text } of countAloud(fourFour, inBar, way)) said.set(Math.round(at * 4 * quarter) + index * bar, text);
  }
  return said;
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
