import { amplitudeAt } from './goertzel';

const partials = 5;
/** So far from the note it is looked for, in cents. */
const reach = 70;
const golden = (Math.sqrt(5) - 1) / 2;

/**
 * How far what sounds is from a pitch: where its partials hold most, by golden section, since between two neighbours there is one top.
 * @param windowed samples, shaped by a window
 * @param pitch in Hz
 * @returns in cents
 */
export function finePitch(windowed: Float32Array, sampleRate: number, pitch: number): number {
  const fit = (cents: number): number => {
    const shifted = pitch * 2 ** (cents / 1200);
    let sum = 0;
    for (let partial = 1; partial <= partials && partial * shifted < sampleRate / 2; partial += 1)
      sum += amplitudeAt(windowed, (2 * Math.PI * partial * shifted) / sampleRate);
    return sum;
  };
  // The top is found roughly first, so that the section does not end on a side lobe.
  let [best, most] = [-reach, fit(-reach)];
  for (let cents = 10 - reach; cents <= reach; cents += 10) {
    const here = fit(cents);
    if (here > most) [best, most] = [cents, here];
  }
  let [low, high] = [best - 10, best + 10];
  let [one, other] = [high - golden * (high - low), low + golden * (high - low)];
  let [fitOfOne, fitOfOther] = [fit(one), fit(other)];
  // Of the two within, one stays within: only the other one is looked at anew.
  while (high - low > 0.5) {
    if (fitOfOne > fitOfOther) {
      [high, other, fitOfOther] = [other, one, fitOfOne];
      one = high - golden * (high - low);
      fitOfOne = fit(one);
    } else {
      [low, one, fitOfOne] = [one, other, fitOfOther];
      other = low + golden * (high - low);
      fitOfOther = fit(other);
    }
  }
  return (low + high) / 2;
}
