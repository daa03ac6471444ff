import type { Instrument } from '../fingering';
import { tableSize } from './reed-tone';
import { toneTable } from './tone-table';

const level = 0.26;
const fadeMs = 25;

/**
 * One tone held, in the colour of the instrument's family, one channel.
 * @param hertz pitch
 * @param seconds length
 */
export function heldTone(family: Instrument['family'], hertz: number, seconds: number, sampleRate: number): Float32Array<ArrayBuffer> {
  const table = toneTable(family, hertz, sampleRate);
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
