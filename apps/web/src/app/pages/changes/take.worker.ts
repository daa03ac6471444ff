/// <reference lib="webworker" />
import { decodeTake, judgeTake } from '@zelpit/core/listening';
import type { TakeAnswer, TakeRequest } from './take-messages';

addEventListener('message', ({ data: { id, instrument, wanted, samples, sampleRate } }: MessageEvent<TakeRequest>) => {
  const { stretches, tuning } = decodeTake(instrument, samples, sampleRate);
  const answer: TakeAnswer = { id, tuning, take: judgeTake(instrument, wanted, stretches) };
  postMessage(answer);
});
