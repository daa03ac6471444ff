import { noteOf, type Instrument } from '../fingering';

/**
 * Pitches of a drone in Hz: on the Highland pipes an octave and two under low A, elsewhere one under the lowest note.
 * @param reference pitch of the instrument's reference note
 */
export function droneHertz(instrument: Instrument, reference: number = instrument.reference.hertz): readonly number[] {
  if (instrument.family === 'pipes') {
    const lowA = reference * noteOf(instrument, 'low-a').ratio;
    return [lowA / 2, lowA / 4];
  }
  return [(reference * Math.min(...instrument.notes.map(({ ratio }) => ratio))) / 2];
}
