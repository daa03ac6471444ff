/** One period of a reed-like tone as a table; the last sample repeats the first so that reading between two is simple. */
export const tableSize = 2048;

/**
 * Odd and even harmonics that fall off slowly, with a hump near the sixth, as double reeds of small bore have; phases
 * are spread (Schroeder 1970) so that the peak stays low. Cut below half the sampling rate for the highest pitch.
 */
export function reedTable(highestHertz: number, sampleRate: number): Float64Array {
  const harmonics = Math.max(1, Math.min(40, Math.floor((0.45 * sampleRate) / highestHertz)));
  const table = new Float64Array(tableSize + 1);
  for (let harmonic = 1; harmonic <= harmonics; harmonic += 1) {
    const hump = 1 + 1.6 * Math.exp(-((harmonic - 6) ** 2) / 8);
    const amplitude = hump / harmonic ** 1.15;
    const phase = (-Math.PI * harmonic * (harmonic - 1)) / harmonics;
    for (let index = 0; index <= tableSize; index += 1) {
      table[index] += amplitude * Math.sin((2 * Math.PI * harmonic * index) / tableSize + phase);
    }
  }
  const peak = table.reduce((highest, value) => Math.max(highest, Math.abs(value)), 0);
  return table.map((value) => value / peak);
}
