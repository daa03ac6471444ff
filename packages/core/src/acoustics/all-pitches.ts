import type { BoreGeometry, Instrument } from '../fingering';
import { boreModelFor, soundingOf, usualFoot } from './sound-model';
import { indexOf } from './sound-table';

/** Pitches of all patterns in the order of the table; 0 where nothing sounds. */
export function allPitches(instrument: Instrument, geometry: BoreGeometry): { readonly hertz: number[]; readonly steady: string } {
  const model = boreModelFor(instrument, geometry);
  const hertz = new Array<number>(2 ** geometry.holes.length).fill(0);
  const steady = new Array<string>(hertz.length).fill('0');
  model.forAll(
    () => [1, 0],
    (coverages, found) => {
      const index = indexOf(coverages);
      const sounding = soundingOf(found, geometry.excitation);
      hertz[index] = sounding === undefined ? 0 : Math.round(sounding.hertz * 10) / 10;
      steady[index] = sounding?.isSteady === true ? '1' : '0';
    },
    usualFoot(instrument),
  );
  return { hertz, steady: steady.join('') };
}
