import type { Instrument } from '../fingering';
import { reedTable, tableSize } from './reed-tone';

const level = 0.26;
const fadeMs = 25;
/** Harmonics of a flue: the fundamental and little above it. */
const flueHarmonics = [1, 0.22, 0.1, 0.03];

/**
 * One tone held, in the colour of the instrument's family, one channel.
 * @param hertz pitch
 * @param seconds length
 */
export function heldTone(family: Instrument['family'], hertz: number, seconds: number, sampleRate: number): Float32Array<ArrayBuffer> {
  const isReed = family === 'pipes' || family === 'irish-pipes';
  const table = isReed ? reedTable(hertz, sampleRate) : flueTable();
  const samples = new Float32Array(Math.ceil(seconds * sampleRate));
  const fade = (fadeMs / 1000) * sampleRate;
  const stepSize = (hertz / sampleRate) * tableSize;
  let phase = 0;
  for (let index = 0; index < samples.length; index += 1) {
    const edge = Math.min(1, index / fade, (samples.length - 1 - index) / fade);
    const whole = Math.floor(phase);
    samples[index] = level * edge * (table[whole] + (phase - whole) * (table[whole + 1] - table[whole]));
    phase += stepSize;
    while (phase >= tableSize) phase -= tableSize;
  }
  return samples;
}

function flueTable(): Float64Array {
  const sum = flueHarmonics.reduce((total, each) => total + each, 0);
  return Float64Array.from({ length: tableSize + 1 }, (_, index) =>
    flueHarmonics.reduce((value, amplitude, harmonic) => value + (amplitude / sum) * Math.sin((2 * Math.PI * (harmonic + 1) * index) / tableSize), 0),
  );
}
