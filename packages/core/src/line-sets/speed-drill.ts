import { ZelpitFault } from '../fault';
import type { CountedLine } from '../line';

/** How fast a line is practised: as it is, slow then a little faster then in full, or quicker until the first slip. */
export type DrillKind = 'as-it-is' | 'three-speeds' | 'speed-drill';

/** How often and at which speeds a line is drilled. */
export type Drill = Pick<CountedLine, 'tempo' | 'repetitions' | 'speeds'> & { readonly point: string };

/** Slow and a little faster, as shares of the full speed. */
const [slowShare, middleShare] = [0.5, 0.75];
const drillSteps = 6;
const drillGrowth = 1.08;

/**
 * One line's drill up to a full speed: a line with its speeds, not a line for each of them.
 * @param full the full speed, in beats a minute
 * @throws ZelpitFault `out-of-range` for a full speed outside 40 to 300
 * @example drillOf('three-speeds', 80).speeds // [40, 60, 80]
 */
export function drillOf(kind: DrillKind, full: number): Drill {
  if (!(full >= 40 && full <= 300)) throw new ZelpitFault('out-of-range', `Full speed must be between 40 and 300 beats a minute, not ${full}.`, { full });
  switch (kind) {
    case 'as-it-is':
      return { tempo: full, speeds: null, repetitions: 4, point: '' };
    case 'three-speeds':
      return atSpeeds(
        [slowShare, middleShare, 1].map((part) => full * part),
        4,
        'Back to slow at the first slip.',
      );
    case 'speed-drill':
      return atSpeeds(
        Array.from({ length: drillSteps }, (_, index) => full * slowShare * drillGrowth ** (index * 1.8)),
        1,
        'The fastest clean speed is the score.',
      );
  }
}

function atSpeeds(wanted: readonly number[], repetitions: number, point: string): Drill {
  const speeds = wanted.map(Math.round);
  return { tempo: speeds[0], speeds, repetitions, point };
}
