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

/** What a thread says of its work while it goes on. */
interface Progress {
  readonly kind: 'progress';
  readonly done: number;
  readonly of: number;
}

export interface Waiting {
  readonly progress: (done: number, of: number | null) => void;
  readonly signal: AbortSignal;
  /** It may take so long, in ms. */
  readonly ms: number;
  /** Why it failed, where the thread ended or took too long. */
  readonly lost: () => Error;
}

/** The answer of a thread that was just asked. One that is ended, ends by itself or takes too long answers no more. Errors: those of `lost`; the signal's reason */
export function answerOf<A extends { readonly kind: string }>(worker: Worker, { progress, signal, ms, lost }: Waiting): Promise<Exclude<A, Progress>> {
  return new Promise((resolve, reject) => {
    const settle = (): void => {
      clearTimeout(watch);
      signal.removeEventListener('abort', leave);
      letGo(worker);
    };
    const end = (reason: Error): void => {
      settle();
      void worker.terminate();
      reject(reason);
    };
    const lose = (): void => end(lost());
    const leave = (): void => end(signal.reason as Error);
    const watch = setTimeout(lose, ms);
    signal.addEventListener('abort', leave);
    worker.on('error', lose).on('exit', lose);
    worker.on('message', (answer: A | Progress) => {
      if (answer.kind === 'progress') {
        progress((answer as Progress).done, (answer as Progress).of);
        return;
      }
      settle();
      resolve(answer as Exclude<A, Progress>);
    });
  });
}
