import type { Meter } from '../score';

/** How a meter is counted: its big beats, or in a dotted meter every eighth by its number. */
export type CountIn = 'beats' | 'six';
/** With subdivisions as the notes need them, or the numbers alone. */
export type CountDetail = 'divided' | 'undivided';

export interface CountWay {
  readonly in: CountIn;
  readonly detail: CountDetail;
}

export const usualCount: CountWay = { in: 'beats', detail: 'divided' };

/** A word of the count. */
export interface CountWord {
  /** From the bar line, in whole notes. */
  readonly at: number;
  readonly text: string;
  readonly isBeat: boolean;
  /** True where a note begins on it. */
  readonly isSounded: boolean;
}

const numbers = [
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
  'thirteen',
  'fourteen',
  'fifteen',
  'sixteen',
];
const tolerance = 1e-6;

/** Words between two beats, by how many stretches the beat has: "one e and a". */
const between: Readonly<Record<number, readonly string[]>> = { 1: [], 2: ['and'], 3: ['and', 'a'], 4: ['e', 'and', 'a'], 6: ['e', 'and', 'e', 'a', 'e'] };
const tripletWords: readonly string[] = ['trip', 'let'];

const isDotted = (unit: number): boolean => Math.abs(unit * 8 - 3) < tolerance || Math.abs(unit * 16 - 3) < tolerance || Math.abs(unit * 4 - 3) < tolerance;

/** What is counted as one: a beat, or an eighth of a dotted meter counted in six. */
export function countUnit({ beat }: Meter, way: CountIn): number {
  return way === 'six' && isDotted(beat) ? beat / 3 : beat;
}

/** True where a meter can be counted in its eighths as well: 6/8, 9/8. */
export const hasTwoCounts = ({ beat }: Meter): boolean => isDotted(beat);

/**
 * The count through a bar, "one and two and", divided as finely as its notes need.
 * @param starts where notes begin, in whole notes from the bar line
 * @param from and `end`: the part of the bar that is counted; a lead-in begins late, a half bar ends early
 */
export function countAloud(meter: Meter, starts: readonly number[], way: CountWay = usualCount, from = 0, end: number = meter.bar): readonly CountWord[] {
  const unit = countUnit(meter, way.in);
  const words: CountWord[] = [];
  const isSounded = (at: number): boolean => starts.some((start) => Math.abs(start - at) < tolerance);
  for (let beat = Math.floor((from + tolerance) / unit); beat * unit < end - tolerance; beat += 1) {
    const start = beat * unit;
    const inside = starts.filter((each) => each > start + tolerance && each < start + unit - tolerance).map((each) => (each - start) / unit);
    const word = (at: number, text: string, isBeat: boolean): CountWord => ({ at, text, isBeat, isSounded: isSounded(at) });
    words.push(word(start, numbers[beat % numbers.length], true));
    if (way.detail === 'undivided') continue;
    const parts = partsFor(inside, isDotted(unit));
    const texts = parts === 3 && !isDotted(unit) ? tripletWords : between[parts];
    texts.forEach((text, index) => words.push(word(start + ((index + 1) * unit) / parts, text, false)));
  }
  return words.filter(({ at }) => at > from - tolerance && at < end - tolerance);
}

/** Into how many stretches a beat is cut so that every note in it begins at one; what fits none is counted by the finest. */
function partsFor(inside: readonly number[], isCompound: boolean): number {
  if (inside.length === 0) return 1;
  const ways = isCompound ? [3, 6] : [2, 4, 3];
  const fits = (parts: number): boolean => inside.every((share) => Math.abs(share * parts - Math.round(share * parts)) < 1e-4);
  return ways.find(fits) ?? (isCompound ? 6 : 4);
}

/** How a meter is said: "2/4: two beats in a bar, one and two and." */
export function meterText(meter: Meter, way: CountWay = usualCount): string {
  if (meter.bar === 0) return 'No meter: the bars have no fixed length.';
  const unit = countUnit(meter, way.in);
  const beats = Math.round(meter.bar / unit);
  const spoken = countAloud(meter, dividedStarts(meter, unit), way)
    .map(({ text }) => text)
    .join(' ');
  return `${meter.text}: ${numbers[beats - 1] ?? String(beats)} ${beats === 1 ? 'beat' : 'beats'} in a bar, ${spoken}.`;
}

/** Every half of a beat, or every third of a dotted one. */
function dividedStarts(meter: Meter, unit: number): readonly number[] {
  const parts = isDotted(unit) ? 3 : 2;
  return Array.from({ length: Math.round((meter.bar / unit) * parts) }, (_, index) => (index * unit) / parts);
}
