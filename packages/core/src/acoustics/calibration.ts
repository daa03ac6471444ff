import { ZelpitFault } from '../fault';
import { chartedFingering, noteOf, soundingPitch, type BoreGeometry, type Instrument, type NoteId } from '../fingering';
import { centsBetween, hertz } from '../pitch';
import type { FitStep, Measured } from './fit-geometry';
import { geometryOf, sizeRatio } from './pattern-sound';
import { scaledGeometry } from './scaled-geometry';

/** A note with the pitch that was measured on one instrument. */
export interface MeasuredNote {
  readonly note: NoteId;
  readonly hertz: number;
}

/** Farther from its note than this, a measured pitch belongs to another one, in cents. */
const farthest = 250;
/** What a good fit may leave, in cents. */
const within = 15;

/**
 * Measured notes as patterns with pitches, in the charted fingerings.
 * @throws ZelpitFault `out-of-range` for a pitch of 0, a negative one, one beyond hearing, one far from its note; `no-measurement` for fewer than three
 */
export function measuredPatterns(instrument: Instrument, notes: readonly MeasuredNote[]): readonly Measured[] {
  if (notes.length < 3) throw new ZelpitFault('no-measurement', 'Give the pitch of at least three notes.', { count: notes.length });
  return notes.map(({ note, hertz: value }) => {
    const { schoolName } = noteOf(instrument, note);
    const cents = centsBetween(soundingPitch(instrument, note), hertz(value));
    if (Math.abs(cents) > farthest)
      throw new ZelpitFault(
        'out-of-range',
        `${value} Hz is ${Math.round(Math.abs(cents))} cents away from ${schoolName}; it can be at most ${farthest} cents away. Check the number.`,
        {
          note,
          hertz: value,
        },
      );
    const { pattern, foot } = chartedFingering(instrument, note);
    return { coverages: pattern, foot: foot ?? 'open', hertz: value };
  });
}

/**
 * The geometry that a calibration starts from, at the instrument's own size.
 * @throws ZelpitFault `no-geometry` where the instrument has no bore
 */
export function startOfCalibration(instrument: Instrument): BoreGeometry {
  const geometry = geometryOf(instrument);
  if (geometry === undefined)
    throw new ZelpitFault('no-geometry', `The ${instrument.name} has no bore to fit: its pitch depends only on how much hole is open.`, { id: instrument.id });
  return scaledGeometry(geometry, sizeRatio(instrument));
}

/** Measured notes that the fit cannot explain: those that it leaves more than 15 cents off, the farthest first. */
export function unexplained(
  notes: readonly MeasuredNote[],
  { residuals }: Pick<FitStep, 'residuals'>,
): readonly { readonly note: NoteId; readonly cents: number }[] {
  return notes
    .map(({ note }, index) => ({ note, cents: residuals[index] }))
    .filter(({ cents }) => Math.abs(cents) > within)
    .sort((one, other) => Math.abs(other.cents) - Math.abs(one.cents));
}
