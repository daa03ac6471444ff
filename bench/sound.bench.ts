import { instrumentById, playNotes, renderTimeline, type PlayedNote } from '@zelpit/core';
import { benchCommand, medianTime, type Figure } from './measure';

const sampleRate = 48_000;

export function soundFigures(): readonly Figure[] {
  const chanter = instrumentById('practice-chanter');
  const scale = chanter.notes.map((note) => note.id);
  const notes = Array.from({ length: 72 }, (_, index): PlayedNote => ({
    note: scale[(index * 4) % scale.length],
    graceNotes: index % 2 === 0 ? ['high-g'] : [],
    beats: 1,
    index,
    isTied: false,
  }));
  const timeline = playNotes(chanter, notes, {
    tempo: 72,
    beatsInBar: 4,
    countInBeats: 0,
    isClickOn: true,
    firstBeat: 0,
    graceNoteMs: 50,
    fault: { kind: 'worst', ms: 20 },
  });
  const seconds = timeline.length / 1000;
  const computing = medianTime(() => void renderTimeline(chanter, timeline, { sampleRate }), 15, 5);
  const plain = medianTime(() => void sineOf(seconds), 15, 5);
  const speed = (seconds * 1000) / computing;
  return [
    {
      name: 'one minute of sound at 48 kHz mono, faults and clicks in it',
      median: speed,
      unit: 'times real time',
      goal: 'at least 200',
      isMet: Math.abs(seconds - 60) < 0.01 && speed >= 200,
      better: 'higher',
      baseline: { name: 'a plain sine of the same length by Math.sin', median: (seconds * 1000) / plain },
      ratio: plain / computing,
      command: benchCommand,
    },
  ];
}

function sineOf(seconds: number): Float32Array {
  const samples = new Float32Array(seconds * sampleRate);
  for (let index = 0; index < samples.length; index += 1) samples[index] = 0.3 * Math.sin((2 * Math.PI * 440 * index) / sampleRate);
  return samples;
}
