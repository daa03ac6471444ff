import type { Worker } from 'node:worker_threads';
import { HttpProblem } from '../http/problem';
import { letGo, startApart } from '../platform/apart';
import { Turns } from '../platform/turns';
import { archivePartsOf, type Thing } from '../things/thing';
import type { ReadArchive } from './archive-file';
import type { ArchiveAnswer } from './archive-messages';
import { refused } from './archive-part';

export interface ArchiveReaderSettings {
  /** The bundled `archive.worker.ts`. */
  readonly path: string;
  /** A backup may take so long, in ms. */
  readonly ms?: number;
  /** Largest heap of its thread, in MB. */
  readonly memoryMb?: number;
}

const usual = { ms: 60_000, memoryMb: 1024 } as const;
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

  constructor(
    private readonly things: readonly Thing[],
    settings: ArchiveReaderSettings,
  ) {
    this.settings = { ...usual, ...settings };
  }

  /**
   * All of a backup, checked before anything is done with it.
   * @throws HttpProblem `archive-refused` with a sentence, also for one that takes too long or too much room
   */
  read(studioId: string, bytes: Uint8Array): Promise<ReadArchive> {
    return this.turns.run(studioId, () => this.readApart(bytes));
  }

  /** Ends the thread that waits for the next one. */
  async close(): Promise<void> {
    const waiting = this.idle;
    this.idle = undefined;
    await waiting?.terminate();
  }

  private readApart(bytes: Uint8Array): Promise<ReadArchive> {
    const worker = this.take();
    const parts = new Map(archivePartsOf(this.things).map(({ kind, part }) => [kind, part]));
    const files = new Map<string, { readonly content: unknown; readonly prepared: unknown }>();
    return new Promise<ReadArchive>((resolve, reject) => {
      const lose = (): void => {
        clearTimeout(watch);
        letGo(worker);
        void worker.terminate();
        reject(refused('This backup takes too long to read, or too much room.'));
      };
      const watch = setTimeout(lose, this.settings.ms);
      const settle = (): void => {
        clearTimeout(watch);
        letGo(worker);
        this.keep(worker);
      };
      worker.on('error', lose).on('exit', lose);
      worker.on('message', (answer: ArchiveAnswer) => {
        if (answer.kind === 'file') files.set(answer.of, answer);
        else if (answer.kind === 'more') (files.get(answer.of)?.content as unknown[]).push(...answer.content);
        else {
          settle();
          if (answer.kind === 'refused') reject(new HttpProblem(answer.code, answer.detail));
          else
            resolve({ studio: answer.studio, files: [...files].map(([kind, { content, prepared }]) => ({ kind, part: parts.get(kind)!, content, prepared })) });
        }
      });
      worker.postMessage(bytes);
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
