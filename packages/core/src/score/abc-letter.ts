import { letterOf } from './score';

/** A step as ABC writes it: C, c, c' upwards, and C, downwards. */
export function abcLetter(step: number): string {
  const octave = Math.floor(step / 7);
  return octave >= 1 ? letterOf(step).toLowerCase() + "'".repeat(octave - 1) : letterOf(step) + ','.repeat(-octave);
}
