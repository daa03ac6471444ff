import { Worker } from 'node:worker_threads';
import { HttpProblem } from '../http/problem';
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

/** Reads backups, each in a thread of its own, one at a time over all studios: they are rare and large. */
export class ArchiveReader {
  private readonly settings: Required<ArchiveReaderSettings>;
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

  private readApart(bytes: Uint8Array): Promise<ReadArchive> {
    const { path, ms, memoryMb } = this.settings;
    const worker = new Worker(path, { resourceLimits: { maxOldGenerationSizeMb: memoryMb }, env: {}, stdout: true, stderr: true });
    worker.unref();
    return new Promise<ArchiveAnswer>((resolve, reject) => {
      const lose = (): void => reject(refused('This backup takes too long to read, or too much room.'));
      const watch = setTimeout(lose, ms);
      worker.once('message', resolve).once('error', lose).once('exit', lose);
      void Promise.resolve().then(() => worker.postMessage(bytes));
      worker.once('exit', () => clearTimeout(watch));
    })
      .finally(() => void worker.terminate())
      .then((answer) => {
        if (answer.kind === 'refused') throw new HttpProblem(answer.code, answer.detail);
        const parts = new Map(archivePartsOf(this.things).map(({ kind, part }) => [kind, part]));
        return { studio: answer.studio, files: answer.files.flatMap((file) => ({ ...file, part: parts.get(file.kind)! })) };
      });
  }
}
