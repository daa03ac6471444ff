import { ZelpitFault } from '../fault';

/** How fast a line is practised: as it is, slow then a little faster then in full, or quicker until the first slip. */
export type DrillKind = 'as-it-is' | 'three-speeds' | 'speed-drill';

/** A line at one speed. */
export interface DrillStep {
  readonly tempo: number;
  readonly repetitions: number;
  readonly point: string;
}

/** Slow and a little faster, as shares of the full speed. */
const [slowShare, middleShare] = [0.5, 0.75];
const drillSteps = 6;
const drillGrowth = 1.08;

/**
 * The speeds at which a line is played one after the other.
 * @param full the full speed, in beats a minute
 * @throws ZelpitFault `out-of-range` for a full speed outside 40 to 300
 */
export function drillOf(kind: DrillKind, full: number): readonly DrillStep[] {
  if (!(full >= 40 && full <= 300)) throw new ZelpitFault('out-of-range', `A full speed lies between 40 and 300 beats a minute; ${full} came.`, { full });
  switch (kind) {
    case 'as-it-is':
      return [{ tempo: full, repetitions: 8, point: '' }];
    case 'three-speeds':
      return [
        { tempo: Math.round(full * slowShare), repetitions: 4, point: 'Slow.' },
        { tempo: Math.round(full * middleShare), repetitions: 4, point: 'A little faster.' },
        { tempo: full, repetitions: 4, point: 'Full speed; back to slow at the first slip.' },
      ];
    case 'speed-drill':
      return Array.from({ length: drillSteps }, (_, index) => ({
        tempo: Math.round(full * slowShare * drillGrowth ** (index * 1.8)),
        repetitions: 1,
        point: index === 0 ? 'Quicker line by line until the first slip: stop at once, start over. The score is the fastest clean one.' : '',
      }));
  }
}
