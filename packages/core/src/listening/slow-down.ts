import { windowShape } from './window-shape';

/** Pieces that are laid over each other, and how far their places may be moved so that their waves meet, in ms. Our own choices. */
const [grainMs, searchMs] = [40, 6];
/** Every so many samples are compared. */
const stride = 3;

/**
 * The same sound, slower, without change of pitch: short pieces are laid over each other so that their waves meet.
 * @param times how much longer it gets, 1 or more
 */
export function slowedDown(samples: Float32Array, sampleRate: number, times: number): Float32Array<ArrayBuffer> {
  const grain = Math.round(((grainMs / 1000) * sampleRate) / 2) * 2;
  const step = grain / 2;
  const search = Math.round((searchMs / 1000) * sampleRate);
  if (times <= 1 || samples.length < grain + search) return Float32Array.from(samples);
  const length = Math.round(samples.length * times);
  const slowed = new Float32Array(length + grain);
  const shape = windowShape(grain);
  let before = 0;
  for (let to = 0; to < length; to += step) {
    const wanted = Math.min(samples.length - grain, Math.round(to / times));
    // What would follow the piece before, had nothing been slowed.
    const from = to === 0 ? wanted : bestPlace(samples, before + step, wanted, { search, grain });
    for (let index = 0; index < grain; index += 1) slowed[to + index] += samples[from + index] * shape[index];
    before = from;
  }
  return slowed.slice(0, length);
}

/** Where near a place the sound is most like what would follow. */
function bestPlace(samples: Float32Array, following: number, wanted: number, { search, grain }: { readonly search: number; readonly grain: number }): number {
  if (following + grain > samples.length) return wanted;
  let [best, most] = [wanted, -Infinity];
  for (let from = Math.max(0, wanted - search); from <= Math.min(samples.length - grain, wanted + search); from += 1) {
    let likeness = 0;
    for (let index = 0; index < grain / 2; index += stride) likeness += samples[from + index] * samples[following + index];
    if (likeness > most) [best, most] = [from, likeness];
  }
  return best;
}
