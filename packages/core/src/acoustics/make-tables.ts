import type { Instrument } from '../fingering';
import type { BoreGeometry } from './bore-geometry';
import { chartedTarget, tuningFingerings } from './charted';
import { fitGeometry, type FitStep, type Measured } from './fit-geometry';
import { disturbedGeometry, normalOf, type Disturbance } from './disturbed-geometry';
import { indexOf, type SoundTable } from './sound-table';
import { boreModelFor, soundingOf } from './sound-model';

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

/** Pitches of all patterns in the order of the table; 0 where nothing sounds. */
export function allPitches(instrument: Instrument, geometry: BoreGeometry): { readonly hertz: number[]; readonly steady: string } {
  const model = boreModelFor(instrument, geometry);
  const hertz = new Array<number>(2 ** geometry.holes.length).fill(0);
  const steady = new Array<string>(hertz.length).fill('0');
  const foot = instrument.family === 'irish-pipes' ? 'closed' : 'open';
  model.forAll(
    () => [1, 0],
    (coverages, found) => {
      const index = indexOf(coverages);
      const sounding = soundingOf(found, geometry.excitation);
      hertz[index] = sounding === undefined ? 0 : Math.round(sounding.hertz * 10) / 10;
      steady[index] = sounding?.isSteady === true ? '1' : '0';
    },
    foot,
  );
  return { hertz, steady: steady.join('') };
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
    return Math.round(1200 * Math.log2(sorted[Math.floor(0.95 * (sorted.length - 1))] / sorted[Math.ceil(0.05 * (sorted.length - 1))]));
  });
  return { hertz, steady, spread };
}
