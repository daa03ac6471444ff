import { Worker, type ResourceLimits } from 'node:worker_threads';

/** A thread of its own for what could keep the server from answering: it sees no settings, and does not hold the process. */
export function startApart(path: string, resourceLimits: ResourceLimits): Worker {
  const worker = new Worker(path, { resourceLimits, env: {}, stdout: true, stderr: true });
  worker.unref();
  return worker;
}

/** Nobody listens to it any more; one that ends while nobody listens would end the server. */
export function letGo(worker: Worker): void {
  worker.removeAllListeners('message').removeAllListeners('error').removeAllListeners('exit');
  worker.on('error', () => undefined);
}
