/** Starts the worker that computes the map of changes. */
export const startChangeMapWorker = (): Worker => new Worker(new URL('./change-map.worker', import.meta.url), { type: 'module' });
