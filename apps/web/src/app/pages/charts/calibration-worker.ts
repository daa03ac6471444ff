/** Starts the worker that fits geometries. */
export const startCalibrationWorker = (): Worker => new Worker(new URL('./calibration.worker', import.meta.url), { type: 'module' });
