import 'reflect-metadata';
import { parentPort } from 'node:worker_threads';
import { HttpProblem, isDiskFull, noRoom } from '../http/problem';
import { giveWay } from '../platform/give-way';
import { things } from '../things/things';
import type { ArchiveAnswer, ArchiveRequest } from './archive-messages';
import { checkArchive } from './check-archive';

giveWay();

const progressMs = 250;

/** Checks backups apart from the server's own thread: what cannot be read in time or room ends this thread and nothing else. */
parentPort?.on('message', ({ path, folder }: ArchiveRequest) => {
  const answer = (message: ArchiveAnswer): void => parentPort?.postMessage(message);
  let said = 0;
  const progress = (done: number, of: number): void => {
    const now = performance.now();
    if (now - said < progressMs) return;
    said = now;
    answer({ kind: 'progress', done, of });
  };
  checkArchive(things, path, folder, progress).then(
    (checked) => answer({ kind: 'checked', checked }),
    (error: unknown) => {
      const problem = isDiskFull(error) ? noRoom() : error;
      if (!(problem instanceof HttpProblem)) throw error;
      answer({ kind: 'refused', code: problem.code, detail: problem.detail });
    },
  );
});
