import type { Instrument } from '../fingering';
import {
  fittingLayers,
  layersOf,
  leastTime,
  paceOf,
  writtenForm,
  type MovementDefinition,
  type MovementLayer,
  type MovementPace,
  type MovementReader,
  type MovementSettings,
  type Recognised,
} from '../movement';
import type { Tune, TuneNote } from './tune';

/** A written group of a tune: what it is, and whether its note is long enough for it. */
export interface TuneMovement {
  /** Which note of the tune carries it. */
  readonly note: TuneNote;
  /** As it stands in the text: "{gcd}c". */
  readonly written: string;
  readonly recognised: Recognised;
  /** How long the note lasts at the tempo, in ms. */
  readonly noteMs: number;
  /** What it needs, in ms; undefined where it is no movement. */
  readonly leastMs: number | undefined;
  /** Where the note is too short: the layers for which it is long enough, the barest first; undefined where it is long enough. */
  readonly fits: readonly MovementLayer[] | undefined;
}

interface Wishes {
  /** Beats of the meter a minute. */
  readonly tempo: number;
  readonly settings: MovementSettings;
  readonly pace?: MovementPace;
  /** Movements of the studio. */
  readonly own?: readonly MovementDefinition[];
}

/** Every written group of a tune in its order, each place once. */
export function movementsOfTune(
  instrument: Instrument,
  tune: Tune,
  reader: MovementReader,
  { tempo, settings, pace = paceOf(settings), own = [] }: Wishes,
): readonly TuneMovement[] {
  const beatMs = 60_000 / tempo;
  return tune.notes.flatMap((note, index): TuneMovement[] => {
    if (note.graceNotes.length === 0 || note.written.kind !== 'note') return [];
    const after = note.written.note;
    const previous = tune.notes[index - 1]?.written;
    const before = previous?.kind === 'note' ? previous.note : null;
    const recognised = reader.read(before, note.graceNotes, after);
    const noteMs = (lengthOf(tune, index) / tune.meter.beat) * beatMs;
    const written = writtenForm(instrument, note.graceNotes, after);
    if (recognised.kind !== 'known') return [{ note, written, recognised, noteMs, leastMs: undefined, fits: undefined }];
    const [compiled] = recognised.candidates;
    const leastMs = leastTime(compiled, pace);
    const fits = leastMs <= noteMs ? undefined : fittingLayers(layersOf(instrument, compiled.movement, before, after, { settings, pace, own }), noteMs);
    return [{ note, written, recognised, noteMs, leastMs, fits }];
  });
}

/** A note with what is tied to it, in whole notes. */
function lengthOf({ notes }: Tune, index: number): number {
  const end = notes.findIndex((each, at) => at > index && !each.isTiedFromPrevious);
  return notes.slice(index, end === -1 ? notes.length : end).reduce((sum, { duration }) => sum + duration, 0);
}
