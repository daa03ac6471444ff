import { coverOf, fingerCoverage, type Instrument } from '../fingering';
import { listed } from '../words';
import type { Change } from './change';

/** For so many fingers of the lower hand a small turn of the wrist helps. */
const wristFrom = 3;

/** The physical hints that are known for a change; none where none is. */
export function physicalHints({ movers }: Change): readonly string[] {
  const lower = movers.filter(({ finger }) => /^R\d$/.test(finger)).length;
  if (lower >= wristFrom) return ['Turn the wrist a little, about ten degrees: it helps the index finger of the lower hand.'];
  return movers.length > 1 ? ['Keep the fingers close to the holes, slightly staggered, not level.'] : [];
}

/**
 * What a mirror must show of the hand at the foot once the second note stands: a wrong shape there cannot be heard on every instrument, so it has to be seen.
 * @example mirrorCheck(practiceChanter, changeBetween(practiceChanter, 'c', 'e')) // 'In the mirror, on E: right index, middle and ring down, little up.'
 */
export function mirrorCheck(instrument: Instrument, change: Change): string {
  const { hand } = instrument.fingers[instrument.fingers.length - 1];
  const own = instrument.fingers.filter((finger) => finger.hand === hand && !finger.thumb);
  const short = (spoken: string): string => spoken.replace(`${hand} `, '');
  const [down, up] = [true, false].map((isDown) =>
    own.filter(({ id }) => fingerCoverage(instrument, change.toPattern, id) > 0 === isDown).map(({ spoken }) => short(spoken)),
  );
  const parts = [...(down.length === 0 ? [] : [`${listed(down)} down`]), ...(up.length === 0 ? [] : [`${listed(up)} up`])];
  const name = instrument.notes.find(({ id }) => id === change.to)?.schoolName ?? '';
  return `In the mirror, on ${name}: ${hand} ${parts.join(', ')}.`;
}

/** True where only the thumb's cover changes. */
export const isPinch = ({ movers }: Change): boolean => movers.length === 1 && movers[0].finger === 'T';

/** True where a hole is covered in part before or after, or the thumb pinches: the pitch glides there. */
export function isGlide(change: Change): boolean {
  const isPartly = change.fromPattern.some(
    (coverage, hole) => coverage !== change.toPattern[hole] && (coverOf(coverage) === 'half' || coverOf(change.toPattern[hole]) === 'half'),
  );
  return isPinch(change) || isPartly;
}
