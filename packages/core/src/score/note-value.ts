import { fractionOf } from './fraction';

/** A head as it is printed: its kind, its dots, and the tuplet that it needs where no plain head has its length. */
export interface NoteValue {
  /** Length of the head without dots, in whole notes. */
  readonly head: number;
  readonly dots: number;
  /** Heads of a tuplet in the time of others; 1 to 1 for none. */
  readonly actual: number;
  readonly normal: number;
  /** In whole notes. */
  readonly length: number;
}

const heads = [2, 1, 1 / 2, 1 / 4, 1 / 8, 1 / 16, 1 / 32, 1 / 64, 1 / 128, 1 / 256];
const mostDots = 3;
const tolerance = 1e-9;

/**
 * The heads, tied to each other, in which a length is written: one where there is one, else the longest first. Five eighths are a half and an eighth.
 * @param length in whole notes, as written
 */
export function noteValues(length: number): readonly NoteValue[] {
  const { top, bottom } = fractionOf(length);
  // What is left of the length after halvings asks for a tuplet.
  let odd = bottom;
  while (odd % 2 === 0) odd /= 2;
  const normal = odd === 1 ? 1 : 2 ** Math.floor(Math.log2(odd));
  const plain = ((top / bottom) * odd) / normal;
  const values: NoteValue[] = [];
  let left = plain;
  while (left > tolerance && values.length < 64) {
    const value = longestWithin(left);
    if (value === undefined) break;
    values.push({ ...value, actual: odd, normal, length: (lengthOf(value) * normal) / odd });
    left -= lengthOf(value);
  }
  return values;
}

const lengthOf = ({ head, dots }: { readonly head: number; readonly dots: number }): number => head * (2 - 2 ** -dots);

/** The head that has exactly the length, dots and all; else the longest plain one that fits into it. */
function longestWithin(length: number): { readonly head: number; readonly dots: number } | undefined {
  for (const head of heads) {
    for (let dots = 0; dots <= mostDots; dots += 1) if (Math.abs(lengthOf({ head, dots }) - length) < tolerance) return { head, dots };
  }
  const head = heads.find((each) => each <= length + tolerance);
  return head === undefined ? undefined : { head, dots: 0 };
}
