/** Air at 25 degrees Celsius. Losses after Keefe (1984). */
export const soundSpeed = 346.1;
/** In kg per cubic metre. */
export const airDensity = 1.184;
const lossFactor = 3.0e-5;

/** Damping of a wave in a tube of this radius in m, per metre. */
export function damping(hertz: number, radius: number): number {
  return (lossFactor * Math.sqrt(hertz)) / radius;
}
