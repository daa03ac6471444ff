/// <reference lib="webworker" />
import { ZelpitFault } from '@zelpit/core/fault';
import type { Instrument } from '@zelpit/core/fingering';
import {
  blowingOf,
  decodeTake,
  heardResult,
  heardRung,
  judgeAsked,
  judgeTake,
  movesOfChanges,
  movesOfPiece,
  pitchTrace,
  timingOfSound,
  type HeardMove,
} from '@zelpit/core/listening';
import type { HeardTiming, TakeAnswer, TakeRequest, TakeTimingAnswer } from './take-messages';

addEventListener('message', ({ data }: MessageEvent<TakeRequest>) => {
  try {
    const answer = answerTo(data);
    postMessage(answer);
    // What takes longer comes after what is waited for. Fingers that were taken tell their timing themselves.
    if (data.stretches === undefined && data.wanted.kind !== 'rung')
      postMessage({ id: data.id, timing: timingIn(data.instrument, answer) } satisfies TakeTimingAnswer);
  } catch (error) {
    if (!(error instanceof ZelpitFault)) throw error;
    const answer: TakeAnswer = { id: data.id, tuning: 0, blowing: [], heard: { kind: 'fault', message: error.message } };
    postMessage(answer);
  }
});

function timingIn(instrument: Instrument, { heard }: TakeAnswer): HeardTiming | undefined {
  let moves: readonly HeardMove[] = [];
  if (heard.kind === 'changes') moves = movesOfChanges(instrument, heard.take.changes);
  else if (heard.kind === 'piece') moves = movesOfPiece(instrument, heard.piece.notes);
  const fitted = timingOfSound(instrument, moves);
  return fitted === undefined ? undefined : { fitted, result: heardResult(instrument, moves, fitted) };
}

function answerTo({ id, instrument, wanted, samples, sampleRate, stretches: known }: TakeRequest): TakeAnswer {
  const { stretches, tuning } = known === undefined ? decodeTake(instrument, samples, sampleRate) : { stretches: known, tuning: 0 };
  // A rung is answered while the next one waits for it: nothing else is looked at.
  if (wanted.kind === 'rung') return { id, tuning, blowing: [], heard: { kind: 'rung', rung: heardRung(instrument, wanted.notes, stretches, wanted) } };
  const blowing = known === undefined ? blowingOf(instrument, pitchTrace(instrument, stretches, samples, sampleRate, tuning)) : [];
  if (wanted.kind === 'piece') return { id, tuning, blowing, heard: { kind: 'piece', piece: judgeAsked(instrument, wanted.notes, stretches, wanted.click) } };
  return { id, tuning, blowing, heard: { kind: 'changes', take: judgeTake(instrument, wanted.notes, stretches) } };
}
