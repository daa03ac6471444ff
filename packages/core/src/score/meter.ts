import type { Meter } from './score';

/** Bars of no fixed length, counted in quarter notes. */
export const freeMeter: Meter = { beats: 4, beat: 1 / 4, bar: 0, text: 'free' };
export const commonTime: Meter = simple(4, 4, '4/4');

/**
 * Reads what stands after `M:`; undefined where it is no meter.
 * "(2+3)/8" has five eighths to the bar.
 */
export function readMeter(text: string): Meter | undefined {
  const trimmed = text.trim().replace(/\s+/g, '');
  if (trimmed === '' || /^none/i.test(trimmed)) return freeMeter;
  if (trimmed === 'C') return commonTime;
  if (trimmed === 'C|') return simple(2, 2, '2/2');
  const found = /^\(?(\d{1,3}(?:\+\d{1,3})*)\)?(?:\/(\d{1,3}))?$/.exec(trimmed);
  if (found === null) return undefined;
  const top = found[1].split('+').reduce((sum, each) => sum + Number(each), 0);
  // A number alone counts quarter notes.
  const bottom = Number(found[2] ?? 4);
  if (top < 1 || bottom < 1) return undefined;
  const isCompound = bottom >= 8 && top % 3 === 0 && top > 3 && !found[1].includes('+');
  const name = `${found[1]}/${bottom}`;
  return isCompound ? { beats: top / 3, beat: 3 / bottom, bar: top / bottom, text: name } : simple(top, bottom, name);
}

function simple(top: number, bottom: number, text: string): Meter {
  return { beats: top, beat: 1 / bottom, bar: top / bottom, text };
}

/** Standard 2.1: without `L:` a sixteenth where the meter is under 3/4 as a fraction, else an eighth. */
export const usualUnit = ({ bar }: Meter): number => (bar > 0 && bar < 0.75 ? 1 / 16 : 1 / 8);

/** A dotted beat: 6/8, 9/8, 12/8. */
export const isCompound = ({ beat }: Meter): boolean => Math.abs(beat * 8 - 3) < 1e-9 || Math.abs(beat * 16 - 3) < 1e-9;
