import { playNotes, practiceChanter, renderTimeline, waveFile, type Instrument } from '@zelpit/core';

/** A recording of C to E and back, eight changes, with low G between for so long. @param hertz of the reference, where it is not the instrument's own */
export function recording(ms: number, instrument: Instrument = practiceChanter, hertz?: number): Buffer {
  const notes = Array.from({ length: 9 }, (_, index) => ({ note: index % 2 === 0 ? 'c' : 'e', graceNotes: [], beats: 1, index, isTied: false }));
  const settings = { tempo: 90, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
  const timeline = playNotes(instrument, notes, { ...settings, ...(ms > 0 && { fault: { kind: 'land-early' as const, ms } }) });
  return Buffer.from(waveFile(renderTimeline(instrument, timeline, { sampleRate: 44_100, ...(hertz !== undefined && { referenceHertz: hertz }) }), 44_100));
}
