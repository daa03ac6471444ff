import 'reflect-metadata';
import { parentPort } from 'node:worker_threads';
import { HttpProblem } from '../http/problem';
import { giveWay } from '../platform/give-way';
import { things } from '../things/things';
import { readArchive } from './archive-file';
import type { ArchiveAnswer } from './archive-messages';

giveWay();

/** Reads one backup apart from the server's own thread: what cannot be read in time or room ends this thread and nothing else. */
parentPort?.once('message', (bytes: Uint8Array) => {
  const answer = (message: ArchiveAnswer): void => parentPort?.postMessage(message);
  readArchive(things, bytes).then(
    ({ studio, files }) => answer({ kind: 'read', studio, files: files.map(({ kind, content, prepared }) => ({ kind, content, prepared })) }),
    (error: unknown) => {
      if (!(error instanceof HttpProblem)) throw error;
      answer({ kind: 'refused', code: error.code, detail: error.detail });
    },
  );
});
