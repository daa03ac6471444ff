import { patternKey, type Instrument, type Pattern } from '../fingering';
import { geometryOf, sizeRatio, soundSourceOf, vesselHertz } from './pattern-sound';
import { boreModelFor, isStopped, soundingOf, usualFoot } from './sound-model';

/** What one pattern can sound. */
export interface PatternSounding {
  readonly pattern: Pattern;
  /** In Hz at the pitch of the geometry, the lowest first: on a flue up to three registers, else the one that sounds. */
  readonly registers: readonly number[];
  readonly isSteady: boolean;
}

const known = new WeakMap<object, readonly PatternSounding[]>();

/** All patterns, with the usual half covers where holes have one; made once for a geometry. Empty for an instrument without a model. */
export function allSoundings(instrument: Instrument): readonly PatternSounding[] {
  const source = soundSourceOf(instrument);
  if (source === undefined) return [];
  const made = known.get(source.geometry) ?? compute(instrument);
  known.set(source.geometry, made);
  return made;
}

const keyed = new WeakMap<readonly PatternSounding[], ReadonlyMap<string, PatternSounding>>();

/** The same by pattern, as `patternKey` writes it. */
export function soundingsByPattern(instrument: Instrument): ReadonlyMap<string, PatternSounding> {
  const all = allSoundings(instrument);
  const made = keyed.get(all) ?? new Map(all.map((each) => [patternKey(each.pattern), each]));
  keyed.set(all, made);
  return made;
}

/** True where breath or bag decides which register sounds, so that fingers alone do not say it: on a flue with a bore, and on the Irish chanter. */
export const isOverblown = (instrument: Instrument): boolean => hasRegisters(instrument) || instrument.family === 'irish-pipes';

/** True where breath decides between registers that the model knows: on a flue with a bore. */
export const hasRegisters = (instrument: Instrument): boolean => geometryOf(instrument)?.excitation === 'window';

function compute(instrument: Instrument): readonly PatternSounding[] {
  const geometry = geometryOf(instrument);
  if (geometry === undefined) return vesselSoundings(instrument);
  const found: PatternSounding[] = [];
  const levels = instrument.holes.map(({ half }) => (half === undefined ? [1, 0] : [1, half, 0]));
  const isFlue = geometry.excitation === 'window';
  const foot = usualFoot(instrument);
  boreModelFor(instrument, geometry, sizeRatio(instrument)).forAll(
    (hole) => levels[hole],
    (coverages, resonances) => {
      const sounding = soundingOf(resonances, geometry.excitation);
      if (sounding === undefined || isStopped(coverages, foot)) return;
      found.push({ pattern: [...coverages], registers: isFlue ? sounding.registers : [sounding.hertz], isSteady: sounding.isSteady });
    },
    foot,
  );
  return found;
}

function vesselSoundings(instrument: Instrument): readonly PatternSounding[] {
  const geometry = soundSourceOf(instrument)?.geometry;
  if (geometry?.excitation !== 'vessel') return [];
  const ratio = sizeRatio(instrument);
  return Array.from({ length: 2 ** instrument.holes.length }, (_, index) => {
    const pattern = instrument.holes.map((__, hole) => (index >> hole) & 1);
    return { pattern, registers: [vesselHertz(instrument, geometry, pattern) / ratio], isSteady: true };
  });
}
