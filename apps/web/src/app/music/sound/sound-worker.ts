/** The one place that starts the sound worker; unit tests put a stand-in here. */
export function startSoundWorker(): Worker {
  return new Worker(new URL('./sound.worker', import.meta.url), { type: 'module' });
}
