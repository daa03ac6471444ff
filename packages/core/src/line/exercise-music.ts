import type { NoteId } from '../fingering';
import { bar, quarter, type LineNote } from './exercise';

/** Lengths in twelfths of a quarter that one note head can have, longest first. */
const writable = [48, 36, 24, 18, 12, 9, 6, 3] as const;
/** ABC's length of each, with a quarter as the unit. */
const lengthOf: Readonly<Record<number, string>> = { 48: '4', 36: '3', 24: '2', 18: '3/2', 12: '', 9: '3/4', 6: '/2', 3: '/4' };
/** Notes of a triplet by their length: how they are written, three in the time of two. */
const tripletLength: Readonly<Record<number, string>> = { 8: '', 4: '/2', 2: '/4' };

/** One note head of a line, within its bar. */
export interface NoteHead {
  readonly note: NoteId;
  readonly twelfths: number;
  /** Where it begins, in twelfths from the start of the line. */
  readonly start: number;
  readonly graceNotes: readonly NoteId[];
  /** True where it goes on into the next head. */
  readonly isTied: boolean;
  readonly opensSlur: boolean;
  readonly closesSlur: boolean;
  /** Three in the time of two. */
  readonly isTriplet: boolean;
}

/**
 * Notes as ABC without header, a quarter as the unit: cut at the bar lines with ties, beamed in beats, triplets marked.
 * @param letterOf the letter of a note in the key of the line
 */
export function exerciseMusic(notes: readonly LineNote[], letterOf: (note: NoteId) => string): string {
  let text = '';
  let inTriplet = 0;
  for (const head of noteHeads(notes)) {
    const { start, twelfths, isTriplet, graceNotes } = head;
    if (start > 0 && start % bar === 0) text += ' | ';
    // Notes within a beat are beamed: nothing stands between them.
    else if (start > 0 && (start % quarter === 0 || twelfths >= quarter) && inTriplet === 0) text += ' ';
    if (isTriplet && inTriplet === 0) {
      text += '(3';
      inTriplet = 3;
    }
    const length = isTriplet ? tripletLength[twelfths] : lengthOf[twelfths];
    const graces = graceNotes.length === 0 ? '' : `{${graceNotes.map((grace) => letterOf(grace)).join('')}}`;
    text += `${head.opensSlur ? '(' : ''}${graces}${letterOf(head.note)}${length}${head.closesSlur ? ')' : ''}${head.isTied ? '-' : ''}`;
    if (isTriplet) inTriplet -= 1;
  }
  return `${text} |]`;
}

/** The note heads of a line in their order, cut at bar lines and where one head cannot have the length. */
export function noteHeads(notes: readonly LineNote[]): readonly NoteHead[] {
  let at = 0;
  return notes.flatMap(({ note, twelfths, graceNotes = [], isTied = false, isSlurred = false }, index) => {
    const before = notes[index - 1];
    const wasSlurred = before?.isSlurred === true;
    return cut(twelfths, at % bar).map((length, part, lengths): NoteHead => {
      const start = at;
      at += length;
      const isLast = part === lengths.length - 1;
      return {
        ...{ note, twelfths: length, start, graceNotes: part === 0 ? graceNotes : [], isTied: !isLast || isTied },
        opensSlur: part === 0 && isSlurred && !wasSlurred,
        closesSlur: isLast && wasSlurred && !isSlurred,
        isTriplet: tripletLength[length] !== undefined,
      };
    });
  });
}

/** A length cut into note heads that stay within their bars. */
export function cut(twelfths: number, from: number): readonly number[] {
  if (tripletLength[twelfths] !== undefined && (from % quarter) + twelfths <= 2 * quarter) return [twelfths];
  const heads: number[] = [];
  let [rest, place] = [twelfths, from];
  while (rest > 0) {
    const room = bar - (place % bar);
    const head = writable.find((each) => each <= rest && each <= room) ?? rest;
    heads.push(head);
    rest -= head;
    place += head;
  }
  return heads;
}
