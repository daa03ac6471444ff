import 'reflect-metadata';
import { parentPort } from 'node:worker_threads';
import { HttpProblem } from '../http/problem';
import { giveWay } from '../platform/give-way';
import { things } from '../things/things';
import { readArchive } from './archive-file';
import type { ArchiveAnswer } from './archive-messages';

giveWay();

/** Things that cross at once: taking them over keeps the server's own thread from answering others. */
const slice = 500;

/** Reads backups apart from the server's own thread: what cannot be read in time or room ends this thread and nothing else. */
parentPort?.on('message', (bytes: Uint8Array) => {
  const answer = (message: ArchiveAnswer): void => parentPort?.postMessage(message);
  readArchive(things, bytes).then(
    ({ studio, files }) => {
      for (const { kind: of, content, prepared } of files) {
        const list = Array.isArray(content) ? (content as readonly unknown[]) : undefined;
        answer({ kind: 'file', of, content: list === undefined ? content : list.slice(0, slice), prepared });
        for (let start = slice; list !== undefined && start < list.length; start += slice)
          answer({ kind: 'more', of, content: list.slice(start, start + slice) });
      }
      answer({ kind: 'read', studio });
    },
    (error: unknown) => {
      if (!(error instanceof HttpProblem)) throw error;
      answer({ kind: 'refused', code: error.code, detail: error.detail });
    },
  );
});
