import { noteOf, type Instrument } from '../fingering';
import type { Tune } from './tune';

/** A shift of the whole tune that brings more of its notes onto the instrument. */
export interface KeyMove {
  /** Semitones, positive upwards. */
  readonly semitones: number;
  readonly outsideNow: number;
  readonly outsideThen: number;
}

/**
 * The smallest move, up to an octave either way, after which the fewest theme notes lie outside the instrument.
 * `undefined` where none is outside or no move helps.
 */
export function moveThatHelps(instrument: Instrument, tune: Tune): KeyMove | undefined {
  const pitches = tune.notes.flatMap(({ written }) =>
    written.kind === 'rest' ? [] : [written.kind === 'note' ? noteOf(instrument, written.note).writtenSemitone : written.semitone],
  );
  const playable = new Set(instrument.notes.map((note) => note.writtenSemitone));
  const outside = (semitones: number): number => pitches.filter((pitch) => !playable.has(pitch + semitones)).length;
  const outsideNow = outside(0);
  let best: KeyMove | undefined;
  for (let distance = 1; distance <= 12; distance += 1) {
    for (const semitones of [distance, -distance]) {
      const outsideThen = outside(semitones);
      if (outsideThen < (best?.outsideThen ?? outsideNow)) best = { semitones, outsideNow, outsideThen };
    }
  }
  return best;
}
