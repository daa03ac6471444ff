import { playNotes, practiceChanter, renderTimeline, waveFile } from '@zelpit/core';

/** A recording of C to E and back, eight changes, with low G between for so long. */
export function recording(ms: number): Buffer {
  const notes = Array.from({ length: 9 }, (_, index) => ({ note: index % 2 === 0 ? 'c' : 'e', graceNotes: [], beats: 1, index, isTied: false }));
  const settings = { tempo: 90, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
  const timeline = playNotes(practiceChanter, notes, { ...settings, ...(ms > 0 && { fault: { kind: 'land-early' as const, ms } }) });
  return Buffer.from(waveFile(renderTimeline(practiceChanter, timeline, { sampleRate: 44_100 }), 44_100));
}
