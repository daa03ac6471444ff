import { ZelpitFault } from '../fault';
import type { FingerId, Instrument, Pattern } from './instrument';

const symbols: Readonly<Record<string, number>> = { X: 1, O: 0, h: 0.5 };

/**
 * Reads a hole list as charts write it: `X` covered, `O` open, `h` half covered; spaces are for the eye.
 * @throws ZelpitFault `invalid-pattern` at any other sign
 * @example pattern('X XXO') // [1, 1, 1, 0]
 */
export function pattern(text: string): Pattern {
  return [...text.replace(/\s/g, '')].map((sign) => {
    const coverage = symbols[sign];
    if (coverage === undefined) throw new ZelpitFault('invalid-pattern', `Write each hole as X, O or h, not “${sign}”.`, { sign, text });
    return coverage;
  });
}

/** One text per pattern, for look-ups. */
export function patternKey(holes: Pattern): string {
  return holes.join(' ');
}

/** The pattern with all holes of the named fingers set to `coverage`. */
export function withFingers(instrument: Instrument, holes: Pattern, fingers: readonly FingerId[], coverage: number): Pattern {
  return holes.map((value, hole) => (fingers.includes(instrument.holes[hole].finger) ? coverage : value));
}

/**
 * Share of a finger's holes that is covered, 0 to 1: a finger may cover two holes.
 * @throws ZelpitFault `unknown-finger` where the instrument has no such finger
 */
export function fingerCoverage(instrument: Instrument, holes: Pattern, finger: FingerId): number {
  let sum = 0;
  let count = 0;
  for (let hole = 0; hole < holes.length; hole += 1) {
    if (instrument.holes[hole].finger !== finger) continue;
    sum += holes[hole];
    count += 1;
  }
  if (count === 0) throw new ZelpitFault('unknown-finger', `${instrument.name} has no finger ${finger}.`, { finger });
  return sum / count;
}

/** In how many holes two patterns differ. */
export function holesThatDiffer(one: Pattern, other: Pattern): number {
  let count = 0;
  for (let hole = 0; hole < one.length; hole += 1) if (one[hole] !== other[hole]) count += 1;
  return count;
}

/** How a hole is covered, whatever a half cover's share is. */
export function coverOf(coverage: number): 'covered' | 'open' | 'half' {
  if (coverage >= 1) return 'covered';
  return coverage <= 0 ? 'open' : 'half';
}

const signs = { covered: 'X', open: 'O', half: 'h' } as const;

/** One hole as `pattern` reads it: `X` covered, `O` open, `h` half covered. */
export const holeSign = (coverage: number): 'X' | 'O' | 'h' => signs[coverOf(coverage)];

/** The same holes covered, open and half covered; how far a half cover goes is each model's own. */
export function isSameFingers(one: Pattern, other: Pattern): boolean {
  return one.every((coverage, hole) => coverOf(coverage) === coverOf(other[hole]));
}
