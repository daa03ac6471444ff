/** Combs and all-pass filters: a room of a third of a second, some 8 dB softer than what comes straight. */
export function addRoom(samples: Float32Array, rate: number, random: () => number): void {
  const dry = Float32Array.from(samples);
  const wet = new Float32Array(samples.length);
  for (const ms of [29.7, 37.1, 41.1, 43.7]) {
    const delay = Math.round(((ms * (0.9 + 0.2 * random())) / 1000) * rate);
    const feedback = 10 ** ((-3 * ms) / 1000 / 0.35);
    const line = new Float32Array(samples.length);
    for (let index = 0; index < samples.length; index += 1) {
      line[index] = dry[index] + (index >= delay ? feedback * line[index - delay] : 0);
      if (index >= delay) wet[index] += line[index - delay] / 4;
    }
  }
  for (let index = 0; index < samples.length; index += 1) samples[index] = dry[index] + 0.3 * wet[index];
}

/** White noise, so many decibels softer than the take. */
export function addNoise(samples: Float32Array, decibels: number, random: () => number): void {
  if (decibels === Infinity) return;
  const level = Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length) * 10 ** (-decibels / 20);
  for (let index = 0; index < samples.length; index += 1) samples[index] += level * Math.sqrt(3) * (2 * random() - 1);
}

/** How far a sample is looked for on either side, in samples of the lower rate; and how finely the curve that weighs them is drawn. */
const [reach, fineness] = [24, 512];

/** The same sound at a lower rate, without what that one cannot hold: a sine over its argument, faded out at its ends. */
export function atRate(samples: Float32Array, from: number, to: number): Float32Array {
  const ratio = from / to;
  const cutoff = 0.94;
  const curve = Float32Array.from({ length: reach * fineness + 1 }, (_, index) => {
    const x = index / fineness;
    const sine = x === 0 ? 1 : Math.sin(Math.PI * cutoff * x) / (Math.PI * cutoff * x);
    return ((cutoff / ratio) * sine * (1 + Math.cos((Math.PI * x) / reach))) / 2;
  });
  const lower = new Float32Array(Math.floor(samples.length / ratio));
  for (let index = 0; index < lower.length; index += 1) {
    const middle = index * ratio;
    const [first, last] = [Math.max(0, Math.ceil(middle - reach * ratio)), Math.min(samples.length - 1, Math.floor(middle + reach * ratio))];
    for (let at = first; at <= last; at += 1) lower[index] += samples[at] * curve[Math.round((Math.abs(at - middle) / ratio) * fineness)];
  }
  return lower;
}
