import type { Instrument } from '../fingering';
import { reedTable, tableSize } from './reed-tone';

/** Harmonics of a flue: the fundamental and little above it. */
const flueHarmonics = [1, 0.22, 0.1, 0.03];

/** One period of the tone of a family, as `reedTable` gives it. */
export function toneTable(family: Instrument['family'], highestHertz: number, sampleRate: number): Float64Array {
  return family === 'pipes' || family === 'irish-pipes' ? reedTable(highestHertz, sampleRate) : flueTable();
}

function flueTable(): Float64Array {
  const sum = flueHarmonics.reduce((total, each) => total + each, 0);
  return Float64Array.from({ length: tableSize + 1 }, (_, index) =>
    flueHarmonics.reduce((value, amplitude, harmonic) => value + (amplitude / sum) * Math.sin((2 * Math.PI * (harmonic + 1) * index) / tableSize), 0),
  );
}
