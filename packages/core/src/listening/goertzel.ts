/**
 * Goertzel's recursion: the amplitude of one frequency.
 * @param windowed samples, shaped by a window
 * @param step the angle of the frequency from one sample to the next
 */
export function amplitudeAt(windowed: Float32Array, step: number): number {
  const twice = 2 * Math.cos(step);
  let before = 0;
  let last = 0;
  for (const sample of windowed) {
    const next = sample + twice * last - before;
    before = last;
    last = next;
  }
  return Math.sqrt(Math.max(0, last * last + before * before - twice * last * before));
}
