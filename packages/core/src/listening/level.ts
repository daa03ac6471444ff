/** How loud a piece of sound is: the root of the mean of its squares. */
export function levelOf(samples: Float32Array, from: number, size: number): number {
  let sum = 0;
  for (let index = from; index < from + size; index += 1) sum += samples[index] * samples[index];
  return Math.sqrt(sum / size);
}
