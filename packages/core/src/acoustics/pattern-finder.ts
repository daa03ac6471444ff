import { ZelpitFault } from '../fault';
import { holesThatDiffer, patternKey, type Instrument, type Pattern } from '../fingering';
import { centsBetween, hertz } from '../pitch';
import { tablePitch } from './pattern-sound';

/** A pattern that gives a wanted pitch. */
export interface FoundPattern {
  readonly pattern: Pattern;
  /** From the wanted pitch; positive is sharp. */
  readonly cents: number;
  readonly isSteady: boolean;
  /** Holes that differ from the patterns beside it, all together. */
  readonly moved: number;
}

/** Nearer than this, two patterns are as good in tune, in cents. */
const asGood = 5;
const widest = 200;

/**
 * Patterns without half covers whose pitch lies within so many cents of a wanted one: the best in tune first, and of those that are
 * as good, the ones with the fewest fingers moved from and to the patterns beside it. `wanted` in Hz at the instrument's usual tuning.
 * @throws ZelpitFault `out-of-range` for a pitch outside 1 to 20 000 Hz, or more than 200 cents
 */
export function patternsNear(instrument: Instrument, wanted: number, within: number, beside: readonly Pattern[]): readonly FoundPattern[] {
  const pitchWanted = hertz(wanted);
  if (!(within >= 0 && within <= widest))
    throw new ZelpitFault('out-of-range', `Patterns are looked for within 0 to ${widest} cents; ${within} came.`, { within });
  const found: FoundPattern[] = [];
  for (let index = 0; index < 2 ** instrument.holes.length; index += 1) {
    const pattern = instrument.holes.map((_, hole) => (index >> hole) & 1);
    const pitch = tablePitch(instrument, pattern);
    if (pitch === undefined) continue;
    const cents = centsBetween(pitchWanted, hertz(pitch.hertz));
    if (Math.abs(cents) > within) continue;
    found.push({ pattern, cents, isSteady: pitch.isSteady, moved: beside.reduce((sum, other) => sum + holesThatDiffer(pattern, other), 0) });
  }
  const grade = ({ cents }: FoundPattern): number => Math.floor(Math.abs(cents) / asGood);
  return found.sort((one, other) => grade(one) - grade(other) || one.moved - other.moved || patternKey(one.pattern).localeCompare(patternKey(other.pattern)));
}
