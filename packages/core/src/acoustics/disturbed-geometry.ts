import type { BoreGeometry } from '../fingering';

/** How far two instruments of one kind lie apart: standard deviations, the lumped part (reed or window) as a share of itself. */
export interface Disturbance {
  readonly positionMillimetres: number;
  readonly diameterMillimetres: number;
  /** Absent where the reed or window stays as it is. */
  readonly lumpedShare?: number;
}

/** Numbers close to normal ones, from numbers from 0 to 1: twelve of these, less six. */
export const normalOf = (random: () => number) => (): number => Array.from({ length: 12 }, random).reduce((sum, each) => sum + each, -6);

/** Another instrument of the same kind. @param normal numbers of mean 0 and deviation 1 */
export function disturbedGeometry(
  geometry: BoreGeometry,
  normal: () => number,
  { positionMillimetres, diameterMillimetres, lumpedShare }: Disturbance,
): BoreGeometry {
  const holes = geometry.holes.map((hole) => ({
    ...hole,
    positionMillimetres: hole.positionMillimetres + normal() * positionMillimetres,
    diameterMillimetres: Math.max(1, hole.diameterMillimetres + normal() * diameterMillimetres),
  }));
  if (lumpedShare === undefined) return { ...geometry, holes };
  const lumped = Math.max(0.3, 1 + normal() * lumpedShare);
  return geometry.excitation === 'reed'
    ? { ...geometry, holes, reedVolumeCubicMillimetres: geometry.reedVolumeCubicMillimetres * lumped }
    : { ...geometry, holes, windowLengthMillimetres: geometry.windowLengthMillimetres * lumped };
}
