import type { BoreGeometry, SoundGeometry, VesselGeometry } from '../fingering';

/** The same instrument `ratio` times as high: all lengths so many times as short. Thin air layers do not shrink with it, so it comes out a few cents off. */
export function scaledGeometry(geometry: BoreGeometry, ratio: number): BoreGeometry;
export function scaledGeometry(geometry: SoundGeometry, ratio: number): SoundGeometry;
export function scaledGeometry(geometry: SoundGeometry, ratio: number): SoundGeometry {
  if (ratio === 1) return geometry;
  if (geometry.excitation === 'vessel') return scaledVessel(geometry, ratio);
  const bore = geometry.bore.map((point) => ({
    positionMillimetres: point.positionMillimetres / ratio,
    diameterMillimetres: point.diameterMillimetres / ratio,
  }));
  const holes = geometry.holes.map((hole) => ({
    ...hole,
    positionMillimetres: hole.positionMillimetres / ratio,
    diameterMillimetres: hole.diameterMillimetres / ratio,
    chimneyMillimetres: hole.chimneyMillimetres / ratio,
  }));
  const shape = { bore, holes, outerDiameterMillimetres: geometry.outerDiameterMillimetres / ratio };
  return geometry.excitation === 'reed'
    ? { ...geometry, ...shape, reedVolumeCubicMillimetres: geometry.reedVolumeCubicMillimetres / ratio ** 3 }
    : {
        ...geometry,
        ...shape,
        windowLengthMillimetres: geometry.windowLengthMillimetres / ratio,
        windowReferenceHertz: geometry.windowReferenceHertz * ratio,
      };
}

function scaledVessel(geometry: VesselGeometry, ratio: number): VesselGeometry {
  return {
    ...geometry,
    vesselMillilitres: geometry.vesselMillilitres / ratio ** 3,
    windowConductanceMillimetres: geometry.windowConductanceMillimetres / ratio,
    wallMillimetres: geometry.wallMillimetres / ratio,
    holes: geometry.holes.map((hole) => ({ ...hole, diameterMillimetres: hole.diameterMillimetres / ratio })),
  };
}
