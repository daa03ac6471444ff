import { patternKey, type Instrument, type Pattern } from '../fingering';
import { tablePitch } from './pattern-sound';

/** A pattern that gives a wanted pitch. */
export interface FoundPattern {
  readonly pattern: Pattern;
  /** From the wanted pitch; positive is sharp. */
  readonly cents: number;
  readonly isSteady: boolean;
  /** Holes that differ from the pattern that one comes from. */
  readonly moved: number;
}

/** Nearer than this, two patterns are as good in tune, in cents. */
const asGood = 5;

/**
 * Patterns without half covers whose pitch lies within so many cents of a wanted one: the best in tune first, and of those that are
 * as good, the ones with the fewest fingers moved. `wanted` in Hz at the instrument's usual tuning.
 */
export function patternsNear(instrument: Instrument, wanted: number, within: number, comingFrom: Pattern): readonly FoundPattern[] {
  const found: FoundPattern[] = [];
  for (let index = 0; index < 2 ** instrument.holes.length; index += 1) {
    const pattern = instrument.holes.map((_, hole) => (index >> hole) & 1);
    const pitch = tablePitch(instrument, pattern);
    if (pitch === undefined) continue;
    const cents = 1200 * Math.log2(pitch.hertz / wanted);
    if (Math.abs(cents) > within) continue;
    found.push({ pattern, cents, isSteady: pitch.isSteady, moved: pattern.filter((coverage, hole) => coverage !== comingFrom[hole]).length });
  }
  const grade = ({ cents }: FoundPattern): number => Math.floor(Math.abs(cents) / asGood);
  return found.sort((one, other) => grade(one) - grade(other) || one.moved - other.moved || patternKey(one.pattern).localeCompare(patternKey(other.pattern)));
}
