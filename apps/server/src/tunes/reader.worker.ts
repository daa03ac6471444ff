import { readBook, ZelpitFault } from '@zelpit/core';
import { parentPort } from 'node:worker_threads';
import { giveWay } from '../platform/give-way';
import { tuneReadingOf } from './kept-tune';
import type { ReaderAnswer, ReaderRequest } from './reader-messages';

giveWay();

/** Reads books apart from the server's own thread: what cannot be read in time or room ends this thread and nothing else. */
parentPort?.on('message', ({ instrument, text, from, isMeant }: ReaderRequest) => {
  const answer = (message: ReaderAnswer): void => parentPort?.postMessage(message);
  try {
    let index = from;
    for (const reading of readBook(instrument, text, isMeant ? (wanted) => wanted : undefined, from)) {
      answer({ kind: 'tune', index, reading: tuneReadingOf(reading) });
      index += 1;
    }
    answer({ kind: 'done' });
  } catch (error) {
    if (!(error instanceof ZelpitFault)) throw error;
    answer({ kind: 'refused', code: error.code, message: error.message, data: error.data });
  }
});
