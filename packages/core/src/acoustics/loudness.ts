import { soundingPitch, type Instrument } from '../fingering';

/** The same as it is shown: undefined too where the instrument hides the differences. */
export const loudnessShown = (instrument: Instrument, hertz: number): number | undefined =>
  instrument.hidesLoudness === true ? undefined : loudnessAt(instrument, hertz);

/**
 * Loudness of a pitch in dB against the reference note: the profile that players report, between its notes in proportion to the
 * interval. Calibrated, not computed. Undefined where no profile is known.
 */
export function loudnessAt(instrument: Instrument, hertz: number): number | undefined {
  const points = instrument.notes.map((note) => ({ at: Math.log2(soundingPitch(instrument, note.id)), level: note.loudnessDecibels }));
  if (points.every(({ level }) => level === 0)) return undefined;
  const at = Math.log2(hertz);
  const next = points.findIndex((point) => point.at >= at);
  if (next === 0) return points[0].level;
  if (next === -1) return points[points.length - 1].level;
  const [before, after] = [points[next - 1], points[next]];
  return before.level + ((after.level - before.level) * (at - before.at)) / (after.at - before.at);
}
