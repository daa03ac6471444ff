import type { PlayedNote } from './play-tune';
import { levelCap } from './render';

/** How the beats of a tune are bent: as written, swung, or with dots and cuts made sharper. */
export type Feel = 'straight' | 'swing' | 'pointed';

/** Where in a beat, 0 to 1, something falls that is written at the first place; between them it is drawn evenly. Our own choice. */
const bends: Readonly<Record<Feel, readonly (readonly [written: number, played: number])[]>> = {
  straight: [],
  swing: [[0.5, 0.62]],
  pointed: [
    [0.25, 0.15],
    [0.5, 0.5],
    [0.75, 0.85],
  ],
};

/** A place in beats as it is played. */
function bent(at: number, points: (typeof bends)[Feel]): number {
  const beat = Math.floor(at + 1e-9);
  const share = at - beat;
  const all = [[0, 0], ...points, [1, 1]] as const;
  const next = Math.max(
    1,
    all.findIndex(([written]) => written > share + 1e-9),
  );
  const [[fromWritten, fromPlayed], [toWritten, toPlayed]] = [all[next - 1], all[next]];
  return beat + fromPlayed + ((share - fromWritten) / (toWritten - fromWritten)) * (toPlayed - fromPlayed);
}

/**
 * Notes with their beats bent; the whole is as long as before.
 * @param firstBeat where in its bar the first note stands, in beats from the bar line
 */
export function bentNotes(notes: readonly PlayedNote[], feel: Feel, firstBeat = 0): readonly PlayedNote[] {
  const points = bends[feel];
  if (points.length === 0) return notes;
  let at = firstBeat;
  return notes.map((note) => {
    const [from, to] = [bent(at, points), bent(at + note.beats, points)];
    at += note.beats;
    return { ...note, beats: to - from };
  });
}

/**
 * One voice's sound several times over, each beginning later: a round, within the same upper limit.
 * @param samples of one voice, without its count-in: `lead` samples at its start come once only
 * @param entries when each voice enters, in samples after the first
 */
export function roundOfSamples(samples: Float32Array, entries: readonly number[], lead = 0): Float32Array<ArrayBuffer> {
  const last = Math.max(0, ...entries);
  const mixed = new Float32Array(samples.length + last);
  const share = 1 / Math.sqrt(Math.max(1, entries.length));
  mixed.set(samples.subarray(0, lead));
  for (const entry of entries) for (let index = lead; index < samples.length; index += 1) mixed[index + entry] += samples[index] * share;
  // Several voices are no louder than one can be.
  return mixed.map((sample) => Math.max(-levelCap, Math.min(levelCap, sample)));
}
