import type { Instrument } from '@zelpit/core';
import { playingOf, type Playing, type TrueStretch } from './playing';
import { addNoise, addRoom, atRate } from './room';

export interface SimulatedTake {
  readonly instrument: Instrument;
  /** At `takeRate`. */
  readonly samples: Float32Array;
  readonly truth: readonly TrueStretch[];
  readonly seconds: number;
}

export type Place = 'dry' | 'room';

/** Samples a second, as takes are listened to, and as they are recorded. */
export const takeRate = 22_050;
const recordedRates = [44_100, 48_000] as const;
/** Decibels from the take down to the noise. */
const noises = [Infinity, 30, 20] as const;

/** Makes sound of what is played, at a rate. */
export type Sounding = (playing: Playing, rate: number) => Float32Array;

/** One take: what is played, made sound, in a place with its noise, recorded at one of two rates and brought to that of listening. */
export function simulatedTake(seed: number, place: Place, sounding: Sounding): SimulatedTake {
  const playing = playingOf(seed);
  const rate = recordedRates[seed % recordedRates.length];
  const recorded = sounding(playing, rate);
  if (place === 'room') addRoom(recorded, rate, playing.random);
  addNoise(recorded, noises[seed % noises.length], playing.random);
  const samples = atRate(recorded, rate, takeRate);
  return { instrument: playing.instrument, samples, truth: playing.truth, seconds: samples.length / takeRate };
}

const glideMs = 4;
const table = 4096;

/** Partials added up, blown unevenly; these are not the tones that the application plays. */
export function addedTones({ instrument, tones, random }: Playing, rate: number): Float32Array {
  const isReed = instrument.family === 'pipes';
  const wave = waveOf(isReed);
  const samples = new Float32Array(Math.ceil(((tones.at(-1)?.end ?? 0) / 1000 + 0.3) * rate));
  const glide = Math.round((glideMs / 1000) * rate);
  let [phase, step, level] = [0, 0, 0];
  const sway = 2 * Math.PI * (0.5 + random());
  const unsteady = 3 * random();
  for (const tone of tones) {
    const [wanted, target] = [(tone.hertz / rate) * table, 0.15 * tone.level];
    if (level === 0) step = wanted;
    // A glide lies around the moment at which the fingers are there.
    const from = Math.round((tone.start / 1000) * rate) - Math.round(glide / 2);
    const to = Math.round((tone.end / 1000) * rate) - (tone === tones.at(-1) ? 0 : Math.round(glide / 2));
    const [stepBefore, levelBefore] = [step, level];
    for (let index = Math.max(0, from); index < to; index += 1) {
      const share = Math.min(1, (index - from) / glide);
      step = stepBefore + (wanted - stepBefore) * share;
      level = levelBefore + (target - levelBefore) * share;
      const wobble = 2 ** ((unsteady * Math.sin((sway * index) / rate)) / 1200);
      samples[index] = level * wave[Math.floor(phase)] + (isReed ? 0 : level * 0.02 * (2 * random() - 1));
      phase = (phase + step * wobble) % table;
    }
  }
  return samples;
}

/** One period: a reed is rich in partials, a flue is nearly without. */
function waveOf(isReed: boolean): Float32Array {
  const weights = isReed ? Array.from({ length: 14 }, (_, index) => 1 / (index + 1) ** 0.9) : [1, 0.32, 0.14, 0.05, 0.02];
  const sum = weights.reduce((total, weight) => total + weight, 0);
  return Float32Array.from({ length: table }, (_, index) =>
    weights.reduce((value, weight, partial) => value + (weight / sum) * Math.sin((2 * Math.PI * (partial + 1) * index) / table + partial * partial), 0),
  );
}
