import type { LineNote } from './exercise';
import { bar, quarter } from './exercise';

/** Lengths in twelfths of a quarter that one note head can have, longest first. */
const writable = [48, 36, 24, 18, 12, 9, 6, 3] as const;
/** ABC's length of each, with a quarter as the unit. */
const lengthOf: Readonly<Record<number, string>> = { 48: '4', 36: '3', 24: '2', 18: '3/2', 12: '', 9: '3/4', 6: '/2', 3: '/4' };
/** Notes of a triplet by their length: how they are written, three in the time of two. */
const tripletLength: Readonly<Record<number, string>> = { 8: '', 4: '/2', 2: '/4' };

interface Piece {
  readonly letter: string;
  readonly twelfths: number;
  readonly graces: string;
  readonly isTied: boolean;
  readonly opensSlur: boolean;
  readonly closesSlur: boolean;
}

/**
 * Notes as ABC without header, a quarter as the unit: cut at the bar lines with ties, beamed in beats, triplets marked.
 * @param letterOf the letter of a note in the key of the line, beside the note before it
 */
export function exerciseMusic(notes: readonly LineNote[], letterOf: (note: string, beside: string | undefined) => string): string {
  let at = 0;
  let text = '';
  let inTriplet = 0;
  for (const piece of piecesOf(notes, letterOf)) {
    const isTriplet = tripletLength[piece.twelfths] !== undefined;
    if (at > 0 && at % bar === 0) text += ' | ';
    // Notes within a beat are beamed: nothing stands between them.
    else if (at > 0 && (at % quarter === 0 || piece.twelfths >= quarter) && inTriplet === 0) text += ' ';
    if (isTriplet && inTriplet === 0) {
      text += '(3';
      inTriplet = 3;
    }
    const length = isTriplet ? tripletLength[piece.twelfths] : lengthOf[piece.twelfths];
    text += `${piece.opensSlur ? '(' : ''}${piece.graces}${piece.letter}${length}${piece.closesSlur ? ')' : ''}${piece.isTied ? '-' : ''}`;
    if (isTriplet) inTriplet -= 1;
    at += piece.twelfths;
  }
  return `${text} |]`;
}

function piecesOf(notes: readonly LineNote[], letterOf: (note: string, beside: string | undefined) => string): readonly Piece[] {
  let at = 0;
  return notes.flatMap(({ note, twelfths, graceNotes = [], isTied = false, isSlurred = false }, index) => {
    const before = notes[index - 1];
    const wasSlurred = before?.isSlurred === true;
    const letter = letterOf(note, before?.note);
    const graces = graceNotes.length === 0 ? '' : `{${graceNotes.map((grace) => letterOf(grace, undefined)).join('')}}`;
    const lengths = cut(twelfths, at % bar);
    at += twelfths;
    return lengths.map((length, part) => ({
      letter,
      twelfths: length,
      graces: part === 0 ? graces : '',
      isTied: part < lengths.length - 1 || isTied,
      opensSlur: part === 0 && isSlurred && !wasSlurred,
      closesSlur: part === lengths.length - 1 && wasSlurred && !isSlurred,
    }));
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
