import type { Instrument } from '../fingering';
import type { BoreGeometry } from '../fingering';
import { chartedTarget, tuningFingerings } from './charted';
import { fitGeometry, type FitStep, type Measured } from './fit-geometry';
import { disturbedGeometry, normalOf, type Disturbance } from './disturbed-geometry';
import { allPitches } from './all-pitches';
import type { SoundTable } from './sound-table';
import { centsOfRatio } from '../pitch';

const refits = 20;
/** How far geometries lie apart that players would call the same instrument. */
const apart: Disturbance = { positionMillimetres: 3, diameterMillimetres: 0.8, lumpedShare: 0.3 };

/** The last step of a fit to the instrument's own chart. */
export function fittedToChart(instrument: Instrument, start: BoreGeometry): FitStep {
  return lastStep(start, targetsOf(instrument));
}

function targetsOf(instrument: Instrument): readonly Measured[] {
  return tuningFingerings(instrument).map((fingering) => chartedTarget(instrument, fingering));
}

function lastStep(start: BoreGeometry, targets: readonly Measured[]): FitStep {
  let last: FitStep | undefined;
  for (const step of fitGeometry(start, targets)) last = step;
  return last as FitStep;
}

/**
 * The table of an instrument, with its spread over refits from disturbed starting geometries.
 * @param random numbers from 0 to 1
 */
export function soundTable(instrument: Instrument, geometry: BoreGeometry, random: () => number): SoundTable {
  const { hertz, steady } = allPitches(instrument, geometry);
  const targets = targetsOf(instrument);
  const normal = normalOf(random);
  const others = Array.from({ length: refits }, () => allPitches(instrument, lastStep(disturbedGeometry(geometry, normal, apart), targets).geometry).hertz);
  const spread = hertz.map((_, index) => {
    const pitches = others.map((each) => each[index]).filter((pitch) => pitch > 0);
    if (pitches.length === 0) return 0;
    const sorted = pitches.sort((one, other) => one - other);
    return Math.round(centsOfRatio(sorted[Math.floor(0.95 * (sorted.length - 1))] / sorted[Math.ceil(0.05 * (sorted.length - 1))]));
  });
  return { hertz, steady, spread };
}
