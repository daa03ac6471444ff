import type { Worker } from 'node:worker_threads';
import { HttpProblem } from '../http/problem';
import { answerOf, startApart } from '../platform/apart';
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

  private async checkApart(request: ArchiveRequest, { progress, signal }: JobSteps): Promise<CheckedArchive> {
    signal.throwIfAborted();
    const worker = this.take();
    const lost = (): Error => refused('This backup takes too long to read, or too much room.');
    const coming = answerOf<ArchiveAnswer>(worker, { progress, signal, ms: this.settings.ms, lost });
    worker.postMessage(request);
    const answer = await coming;
    this.keep(worker);
    if (answer.kind === 'refused') throw new HttpProblem(answer.code, answer.detail);
    return answer.checked;
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
