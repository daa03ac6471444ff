import { noteOf, soundingPitch, type Fingering, type Instrument } from '../fingering';
import type { Measured } from './fit-geometry';

/** A charted fingering as a pitch that the model should give. The geometry's holes stand in the order of the instrument's. */
export function chartedTarget(instrument: Instrument, fingering: Fingering): Measured {
  return {
    coverages: fingering.pattern,
    foot: fingering.foot ?? 'open',
    hertz: soundingPitch(instrument, fingering.note),
  };
}

/** Notes that the model of a bore with straight cones is known to miss, so that a fit must not bend towards them. */
const beyondTheModel: Readonly<Record<string, readonly number[]>> = { baroque: [22, 23, 24], German: [18, 20, 22, 23, 24] };

/**
 * The fingerings taught first, by which an instrument is tuned. Left out: half covers and the forked C natural of a whistle, which are made by ear; the
 * Irish chanter's second register, which the bag makes; the highest notes of a recorder and two forks of its German model.
 */
export function tuningFingerings(instrument: Instrument): readonly Fingering[] {
  const lowest = instrument.notes[0].writtenSemitone;
  return instrument.fingerings.filter(({ rank, pattern, register, note }) => {
    const isForked = pattern[0] === 0 && pattern.includes(1);
    const isByEar = instrument.family === 'whistle' && (isForked || pattern.some((coverage) => coverage > 0 && coverage < 1));
    const isByPressure = instrument.family === 'irish-pipes' && register > 1;
    const isBeyond = beyondTheModel[instrument.model ?? '']?.includes(noteOf(instrument, note).writtenSemitone - lowest) === true;
    return rank === 1 && !isByEar && !isByPressure && !isBeyond;
  });
}
