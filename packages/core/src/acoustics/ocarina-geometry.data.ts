import type { VesselGeometry } from '../fingering';

/** Twelve-hole alto in C, fitted to its naturals (volume by 2.5 cents). Holes in the order of the instrument's, in mm. */
export const ocarinaGeometry: VesselGeometry = {
  excitation: 'vessel',
  vesselMillilitres: 80.31,
  windowConductanceMillimetres: 5.4133,
  wallMillimetres: 6,
  breathBendCents: 100,
  holes: [
    { hole: 'T', diameterMillimetres: 13.854 },
    { hole: 'RT', diameterMillimetres: 11.788 },
    { hole: 'L1', diameterMillimetres: 6.525 },
    { hole: 'L2', diameterMillimetres: 9.327 },
    { hole: 'L3', diameterMillimetres: 8.02 },
    { hole: 'L4', diameterMillimetres: 9.461 },
    { hole: 'R1', diameterMillimetres: 6.921 },
    { hole: 'R2', diameterMillimetres: 4.016 },
    { hole: 'R3', diameterMillimetres: 5.585 },
    { hole: 'R4', diameterMillimetres: 4.86 },
    { hole: 'S1', diameterMillimetres: 3.966 },
    { hole: 'S2', diameterMillimetres: 2.895 },
  ],
};
