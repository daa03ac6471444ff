/// <reference lib="webworker" />
import { blowingOf, decodeTake, judgeTake, pitchTrace } from '@zelpit/core/listening';
import type { TakeAnswer, TakeRequest } from './take-messages';

addEventListener('message', ({ data: { id, instrument, wanted, samples, sampleRate } }: MessageEvent<TakeRequest>) => {
  const { stretches, tuning } = decodeTake(instrument, samples, sampleRate);
  const blowing = blowingOf(instrument, pitchTrace(instrument, stretches, samples, sampleRate, tuning));
  const answer: TakeAnswer = { id, tuning, take: judgeTake(instrument, wanted, stretches), blowing };
  postMessage(answer);
});
