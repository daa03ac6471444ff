import { readBook, readKept, splitBook, ZelpitFault } from '@zelpit/core';
import { parentPort } from 'node:worker_threads';
import { giveWay } from '../platform/give-way';
import { bookText } from './book-text';
import { keptTuneOf, tooMuch, tuneReadingOf } from './kept-tune';
import type { BookRequest, ReaderAnswer, ReaderRequest } from './reader-messages';

giveWay();

const answer = (message: ReaderAnswer): void => parentPort?.postMessage(message);

/** Reads books apart from the server's own thread: what cannot be read in time or room ends this thread and nothing else. */
parentPort?.on('message', (request: ReaderRequest) => {
  try {
    if (request.kind === 'book') readAll(request);
    else answer({ kind: 'kept', tune: keptTuneOf(request.instrument, readKept(request.instrument, request.abc, request), request.chordNote) });
    answer({ kind: 'done' });
  } catch (error) {
    if (!(error instanceof ZelpitFault)) throw error;
    answer({ kind: 'refused', code: error.code, message: error.message, data: error.data });
  }
});

function readAll({ instrument, file, from, wasTooMuch, isMeant, choice }: BookRequest): void {
  const text = typeof file === 'string' ? file : bookText(file);
  answer({ kind: 'begun', tunes: splitBook(text).length });
  if (wasTooMuch) answer({ kind: 'tune', reading: tooMuch(text, from - 1) });
  for (const reading of readBook(instrument, text, isMeant ? (wanted) => wanted : undefined, from, choice))
    answer({ kind: 'tune', reading: tuneReadingOf(instrument, reading, choice.chordNote) });
}
