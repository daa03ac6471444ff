/// <reference lib="webworker" />
import { ZelpitFault } from '@zelpit/core/fault';
import { blowingOf, decodeTake, heardRung, judgeAsked, judgeTake, pitchTrace } from '@zelpit/core/listening';
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

function answerTo({ id, instrument, wanted, samples, sampleRate, stretches: known }: TakeRequest): TakeAnswer {
  const { stretches, tuning } = known === undefined ? decodeTake(instrument, samples, sampleRate) : { stretches: known, tuning: 0 };
  // A rung is answered while the next one waits for it: nothing else is looked at.
  if (wanted.kind === 'rung') return { id, tuning, blowing: [], heard: { kind: 'rung', rung: heardRung(instrument, wanted.notes, stretches, wanted) } };
  const blowing = known === undefined ? blowingOf(instrument, pitchTrace(instrument, stretches, samples, sampleRate, tuning)) : [];
  if (wanted.kind === 'piece') return { id, tuning, blowing, heard: { kind: 'piece', piece: judgeAsked(instrument, wanted.notes, stretches, wanted.click) } };
  return { id, tuning, blowing, heard: { kind: 'changes', take: judgeTake(instrument, wanted.notes, stretches) } };
}
