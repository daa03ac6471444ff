/// <reference lib="webworker" />
import { playNotes, renderTimeline, roundOfSamples } from '@zelpit/core/sound';
import type { SoundAnswer, SoundRequest } from './sound-messages';

addEventListener('message', ({ data }: MessageEvent<SoundRequest>) => {
  const { id, instrument, notes, settings, entries = [], sampleRate, hasBalance, hasDrone } = data;
  try {
    const timeline = playNotes(instrument, notes, settings);
    const one = renderTimeline(instrument, timeline, { sampleRate, hasBalance, hasDrone });
    const beat = (60 * sampleRate) / settings.tempo;
    const lead = Math.round(settings.countInBeats * beat);
    const samples =
      entries.length === 0
        ? one
        : roundOfSamples(
            one,
            entries.map((entry) => Math.round(entry * beat)),
            lead,
          );
    const answer: SoundAnswer = { kind: 'rendered', id, samples, timeline };
    postMessage(answer, [samples.buffer]);
  } catch (error) {
    const answer: SoundAnswer = { kind: 'failed', id, text: (error as Error).message };
    postMessage(answer);
  }
});
