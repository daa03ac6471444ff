/// <reference lib="webworker" />
import { playNotes, renderTimeline } from '@zelpit/core';
import type { SoundAnswer, SoundRequest } from './sound-messages';

addEventListener('message', ({ data }: MessageEvent<SoundRequest>) => {
  const { id, instrument, notes, settings, sampleRate, hasBalance, hasDrone } = data;
  try {
    const timeline = playNotes(instrument, notes, settings);
    const samples = renderTimeline(instrument, timeline, { sampleRate, hasBalance, hasDrone });
    const answer: SoundAnswer = { kind: 'rendered', id, samples, timeline };
    postMessage(answer, [samples.buffer]);
  } catch (error) {
    const answer: SoundAnswer = { kind: 'failed', id, text: (error as Error).message };
    postMessage(answer);
  }
});
