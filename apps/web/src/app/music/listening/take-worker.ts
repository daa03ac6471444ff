/** Starts the worker that listens to a take. */
export const startTakeWorker = (): Worker => new Worker(new URL('./take.worker', import.meta.url), { type: 'module' });
