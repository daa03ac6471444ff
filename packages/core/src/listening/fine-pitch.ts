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
  let best = -reach;
  for (let cents = -reach; cents <= reach; cents += 10) if (fit(cents) > fit(best)) best = cents;
  let [low, high] = [best - 10, best + 10];
  while (high - low > 0.5) {
    const [one, other] = [high - golden * (high - low), low + golden * (high - low)];
    if (fit(one) > fit(other)) high = other;
    else low = one;
  }
  return (low + high) / 2;
}
