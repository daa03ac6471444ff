import { mostWorstPlaces, longestLongTakeSeconds, type LongTakeResult } from '@zelpit/contract';
import { readWave, ZelpitFault } from '@zelpit/core';
import { decodeTake, inputProblem, inputProblemText, judgeLongTake } from '@zelpit/core/listening';
import { parentPort } from 'node:worker_threads';
import { giveWay } from '../platform/give-way';
import type { LongTakeAnswer, LongTakeRequest } from './long-take-messages';

giveWay();

let pieces: Uint8Array[] = [];
const answer = (message: LongTakeAnswer): void => parentPort?.postMessage(message);

/** Listens apart from the server's own thread: half an hour takes half a minute. */
parentPort?.on('message', (request: LongTakeRequest) => {
  if (request.kind === 'piece') {
    pieces.push(request.bytes);
    return;
  }
  try {
    answer({ kind: 'heard', result: heardIn(request) });
  } catch (error) {
    if (!(error instanceof ZelpitFault)) throw error;
    answer({ kind: 'refused', detail: error.message });
  }
});

function heardIn({ instrument, asked }: Extract<LongTakeRequest, { kind: 'listen' }>): LongTakeResult {
  const file = Buffer.concat(pieces);
  pieces = [];
  const { samples, sampleRate } = readWave(file);
  const seconds = samples.length / sampleRate;
  if (seconds > longestLongTakeSeconds) throw new ZelpitFault('take-not-heard', `A take can have at most ${longestLongTakeSeconds / 60} minutes.`);
  const problem = inputProblem(samples, sampleRate);
  if (problem !== undefined) throw new ZelpitFault('take-not-heard', inputProblemText[problem]);
  const of = Math.round(seconds);
  const { stretches, tuning } = decodeTake(instrument, samples, sampleRate, (share) => answer({ kind: 'progress', done: Math.round(share * of), of }));
  const { worst, ...counts } = judgeLongTake(instrument, asked, stretches, mostWorstPlaces);
  return { seconds, tuning, ...counts, worst: [...worst] };
}
