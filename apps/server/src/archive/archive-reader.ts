import type { Worker } from 'node:worker_threads';
import { HttpProblem } from '../http/problem';
import { letGo, startApart } from '../platform/apart';
import { Turns } from '../platform/turns';
import type { JobSteps } from '../jobs/job-kind';
import type { ArchiveAnswer, ArchiveRequest } from './archive-messages';
import type { CheckedArchive } from './check-archive';
import { refused } from './archive-part';

export interface ArchiveReaderSettings {
  /** The bundled `archive.worker.ts`. */
  readonly path: string;
  /** A backup may take so long, in ms. */
  readonly ms?: number;
  /** Largest heap of its thread, in MB. */
  readonly memoryMb?: number;
}

const usual = { ms: 600_000, memoryMb: 512 } as const;
const idleMs = 30_000;

/** Reads backups in a thread of its own, one at a time over all studios: they are rare and large. */
export class ArchiveReader {
  private readonly settings: Required<ArchiveReaderSettings>;
  private idle?: Worker;
  private ending?: NodeJS.Timeout;
  private readonly turns = new Turns({
    atOnce: 1,
    waiting: 2,
    full: 'This studio has other backups being restored. Wait until they are there, then try again.',
  });

  constructor(settings: ArchiveReaderSettings) {
    this.settings = { ...usual, ...settings };
  }

  /**
   * Checks all of a backup before anything is done with it; what was checked lies in the folder then.
   * @throws HttpProblem `archive-refused` with a sentence, also for one that takes too long or too much room; the signal's reason where it was ended
   */
  check(studioId: string, path: string, folder: string, steps: JobSteps): Promise<CheckedArchive> {
    return this.turns.run(studioId, () => this.checkApart({ path, folder }, steps));
  }

  /** Ends the thread that waits for the next one. */
  async close(): Promise<void> {
    const waiting = this.idle;
    this.idle = undefined;
    await waiting?.terminate();
  }

  private checkApart(request: ArchiveRequest, { progress, signal }: JobSteps): Promise<CheckedArchive> {
    signal.throwIfAborted();
    const worker = this.take();
    return new Promise<CheckedArchive>((resolve, reject) => {
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
      const lose = (): void => end(refused('This backup takes too long to read, or too much room.'));
      const leave = (): void => end(signal.reason as Error);
      const watch = setTimeout(lose, this.settings.ms);
      signal.addEventListener('abort', leave);
      worker.on('error', lose).on('exit', lose);
      worker.on('message', (answer: ArchiveAnswer) => {
        if (answer.kind === 'progress') {
          progress(answer.done, answer.of);
          return;
        }
        settle();
        this.keep(worker);
        if (answer.kind === 'refused') reject(new HttpProblem(answer.code, answer.detail));
        else resolve(answer.checked);
      });
      worker.postMessage(request);
    });
  }

  /** The thread that waits, or a new one. */
  private take(): Worker {
    clearTimeout(this.ending);
    const waiting = this.idle;
    this.idle = undefined;
    if (waiting !== undefined) return waiting;
    const { path, memoryMb } = this.settings;
    return startApart(path, { maxOldGenerationSizeMb: memoryMb });
  }

  /** Starting one takes a second: it waits for the next backup, but not for ever with all its room. */
  private keep(worker: Worker): void {
    this.idle = worker;
    worker.once('exit', () => {
      if (this.idle === worker) this.idle = undefined;
    });
    this.ending = setTimeout(() => void this.close(), idleMs).unref();
  }
}
