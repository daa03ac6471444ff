/** Stands where the sound worker starts: unit tests make no sound. */
export function startSoundWorker(): never {
  throw new Error('No worker in unit tests.');
}
