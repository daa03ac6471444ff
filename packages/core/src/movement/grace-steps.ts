import {
  chartedPattern,
  fingerCoverage,
  scaleDegree,
  withFingers,
  type FingerId,
  type GraceNoteRule,
  type Instrument,
  type NoteId,
  type Pattern,
} from '../fingering';

/** One grace note of a group, as fingers. */
export interface GraceStep {
  readonly written: NoteId;
  readonly pattern: Pattern;
  /** `lifting`: a finger opened over `base`; `tap`: fingers closed on it; `charted`: played as the note of its letter. */
  readonly kind: 'lifting' | 'tap' | 'charted';
  readonly base: NoteId;
  /** Fingers opened or closed over the base; empty for `charted`. */
  readonly fingers: readonly FingerId[];
  readonly name?: string;
}

/**
 * Reads the grace notes written before a theme note by the instrument's table of single grace notes. A letter higher
 * than what follows it opens a finger over that; a lower one is played as its note, and the letters before it stand on it.
 * A letter between two of the same lower note is opened on that note, even where it is the theme's own.
 * @param letters the group as written, first to last
 */
export function graceSteps(instrument: Instrument, letters: readonly NoteId[], theme: NoteId): readonly GraceStep[] {
  const steps: GraceStep[] = [];
  let base = theme;
  for (let index = letters.length - 1; index >= 0; index -= 1) {
    const step = stepFor(instrument, letters, index, base, theme);
    steps.unshift(step);
    if (step.kind === 'charted') base = step.written;
  }
  return steps;
}

function stepFor(instrument: Instrument, letters: readonly NoteId[], index: number, base: NoteId, theme: NoteId): GraceStep {
  const written = letters[index];
  const charted: GraceStep = { written, pattern: chartedPattern(instrument, written), kind: 'charted', base: written, fingers: [] };
  const isEnclosed = index > 0 && letters[index - 1] === base && letters[index + 1] === base && written !== base;
  if (written === theme && !isEnclosed) return charted;
  const rule = graceNoteRule(instrument, written, base);
  if (rule !== undefined) {
    const pattern = withFingers(instrument, chartedPattern(instrument, base), rule.opens, 0);
    return { written, pattern, kind: 'lifting', base, fingers: rule.opens, name: rule.name };
  }
  const tap = instrument.taps.find((each) => each.on === base && each.written === written);
  if (tap === undefined) return charted;
  return { written, pattern: withFingers(instrument, chartedPattern(instrument, base), tap.closes, 1), kind: 'tap', base, fingers: tap.closes };
}

/** The rule for a lifting grace note on a theme note; `undefined` where the table has none. */
export function graceNoteRule(instrument: Instrument, written: NoteId, on: NoteId): GraceNoteRule | undefined {
  if (scaleDegree(instrument, written) <= scaleDegree(instrument, on)) return undefined;
  return instrument.graceNotes.find((rule) => rule.written === written && rule.on.includes(on));
}

/**
 * The opening grace note that hides the change into `theme`: its finger lifts over `before`, the other fingers change
 * under it, it closes on the theme note. `undefined` where the group opens otherwise or its finger is itself a mover.
 */
export function hidingGraceNote(instrument: Instrument, before: NoteId, steps: readonly GraceStep[]): GraceStep | undefined {
  const [opener] = steps;
  if (opener?.kind !== 'lifting' || graceNoteRule(instrument, opener.written, before) === undefined) return undefined;
  const holes = chartedPattern(instrument, before);
  return opener.fingers.every((finger) => fingerCoverage(instrument, holes, finger) === 1) ? opener : undefined;
}
