/// <reference lib="webworker" />
import { ZelpitFault } from '@zelpit/core/fault';
import { blowingOf, decodeTake, judgeAsked, judgeTake, pitchTrace } from '@zelpit/core/listening';
import type { TakeAnswer, TakeRequest } from './take-messages';

addEventListener('message', ({ data }: MessageEvent<TakeRequest>) => {
  try {
    postMessage(answerTo(data));
  } catch (error) {
    if (!(error instanceof ZelpitFault)) throw error;
    const answer: TakeAnswer = { id: data.id, tuning: 0, blowing: [], heard: { kind: 'fault', message: error.message } };
    postMessage(answer);
  }
});

function answerTo({ id, instrument, wanted, samples, sampleRate }: TakeRequest): TakeAnswer {
  const { stretches, tuning } = decodeTake(instrument, samples, sampleRate);
  const blowing = blowingOf(instrument, pitchTrace(instrument, stretches, samples, sampleRate, tuning));
  if (wanted.kind === 'piece') return { id, tuning, blowing, heard: { kind: 'piece', piece: judgeAsked(instrument, wanted.notes, stretches) } };
  return { id, tuning, blowing, heard: { kind: 'changes', take: judgeTake(instrument, wanted.notes, stretches) } };
}
