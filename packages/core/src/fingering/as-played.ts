import { ZelpitFault } from '../fault';
import { withHands, type Hands } from './hands';
import type { Instrument } from './instrument';
import { withKeptFingerings, type ConfirmedFingering } from './kept-fingerings';
import { withSchools, type Schools } from './schools';
import { withTuning, type Tuning } from './tuning';
import { withWrittenOctave, type WrittenOctave } from './written-octave';

/** How one person plays and tunes an instrument. */
export interface InstrumentSettings {
  readonly tuning: Tuning;
  readonly schools: Schools;
  /** Pitch of the reference note in Hz; null for the usual one. */
  readonly referenceHertz: number | null;
  /** Which hand is on top; the left where nothing is said. */
  readonly hands?: Hands;
  /** In which octave its music is written; as it sounds where nothing is said. */
  readonly written?: WrittenOctave;
}

/**
 * The instrument as one person plays it: the teacher's own fingerings, the chosen schools, the tuning.
 * @throws ZelpitFault as `withKeptFingerings`, `withSchools`, `withTuning` and `withHands`; `out-of-range` for a reference that the instrument is not tuned to
 */
export function asPlayed(instrument: Instrument, settings: InstrumentSettings, kept: readonly ConfirmedFingering[] = []): Instrument {
  const held = withHands(withWrittenOctave(instrument, settings.written ?? 'as-charted'), settings.hands ?? 'left-on-top');
  const played = withTuning(withKeptFingerings(withSchools(held, settings.schools), kept), settings.tuning);
  return settings.referenceHertz === null ? played : withReference(played, settings.referenceHertz);
}

function withReference(instrument: Instrument, hertz: number): Instrument {
  const { lowestHertz, highestHertz } = instrument.reference;
  if (!(hertz >= lowestHertz && hertz <= highestHertz)) {
    const [low, high] = [lowestHertz.toFixed(1), highestHertz.toFixed(1)];
    throw new ZelpitFault('out-of-range', `The ${instrument.name} can be tuned between ${low} and ${high} Hz, not ${hertz}.`, { hertz });
  }
  return { ...instrument, reference: { ...instrument.reference, hertz } };
}
