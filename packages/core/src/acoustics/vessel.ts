import { soundSpeed } from './air';
import type { VesselGeometry } from '../fingering';

/** Range of naturals over which breath bends the pitch, in Hz. */
export interface BreathRange {
  readonly lowest: number;
  readonly highest: number;
}

/**
 * Pitch of a vessel in Hz: it depends on the open area alone. `coverages` in the order of the geometry's holes.
 * Source: Rayleigh (1896); the breath bend is linear in the logarithm of the pitch.
 */
export function vesselPitch(geometry: VesselGeometry, coverages: readonly number[], { lowest, highest }: BreathRange): number {
  const conductance = geometry.holes.reduce((sum, { diameterMillimetres }, index) => {
    const radius = (diameterMillimetres / 2) * Math.sqrt(1 - coverages[index]);
    return radius === 0 ? sum : sum + (Math.PI * radius ** 2) / (geometry.wallMillimetres + 1.65 * radius);
  }, geometry.windowConductanceMillimetres);
  const natural = ((soundSpeed * 1000) / (2 * Math.PI)) * Math.sqrt(conductance / (geometry.vesselMillilitres * 1000));
  const share = Math.log2(natural / lowest) / Math.log2(highest / lowest);
  return natural * 2 ** ((geometry.breathBendCents * (share - 0.5)) / 1200);
}
