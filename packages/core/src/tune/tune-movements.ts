import type { Instrument, NoteId } from '../fingering';
import {
  compileMovement,
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
  /** How it is written where it starts wrongly for the note before, or has a wrong element; undefined where it stands right, or nothing is near. */
  readonly right: RightForm | undefined;
}

/** The right form of a group. */
export interface RightForm {
  /** Letters of the grace notes, none where the note is left plain. */
  readonly graces: readonly NoteId[];
  /** As it stands in a text: "{acd}c". */
  readonly written: string;
  /** Why, in sentences; empty where nothing is to be said. */
  readonly text: string;
  readonly isWrongStart: boolean;
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
    if (note.graceNotes.length + note.strayGraceNotes.length === 0 || note.written.kind !== 'note') return [];
    const after = note.written.note;
    const previous = tune.notes[index - 1]?.written;
    const before = previous?.kind === 'note' ? previous.note : null;
    const letters: NoteId[] = [...note.graceNotes];
    // A letter that the instrument does not have keeps its place under its own name.
    for (const { at, text } of note.strayGraceNotes) letters.splice(at, 0, text);
    const recognised = reader.read(before, letters, after);
    const noteMs = (lengthOf(tune, index) / tune.meter.beat) * beatMs;
    const graces = letters.map((id) => instrument.notes.find((each) => each.id === id)?.abc ?? '?').join('');
    const written = `{${graces}}${writtenForm(instrument, [], after)}`;
    const right = rightForm(instrument, recognised, before, after, settings);
    if (recognised.kind !== 'known') return [{ note, written, recognised, noteMs, leastMs: undefined, fits: undefined, right }];
    const [compiled] = recognised.candidates;
    const leastMs = leastTime(compiled, pace);
    const fits = leastMs <= noteMs ? undefined : fittingLayers(layersOf(instrument, compiled.movement, before, after, { settings, pace, own }), noteMs);
    return [{ note, written, recognised, noteMs, leastMs, fits, right }];
  });
}

function rightForm(instrument: Instrument, recognised: Recognised, before: NoteId | null, after: NoteId, settings: MovementSettings): RightForm | undefined {
  const formOf = (graces: readonly NoteId[], text: readonly string[], isWrongStart: boolean): RightForm => ({
    ...{ graces, isWrongStart, written: writtenForm(instrument, graces, after), text: text.join(' ') },
  });
  if (recognised.kind === 'unknown') {
    const { steps } = recognised.nearest;
    return formOf(
      steps.map(({ written }) => written),
      [],
      false,
    );
  }
  if (recognised.kind === 'none') return undefined;
  const [first] = recognised.candidates;
  if (!first.isWrongStart) return undefined;
  const forms = recognised.candidates.map(({ movement }) => compileMovement(instrument, movement, before, after, settings));
  const right = forms.find((form) => form.kind === 'compiled') ?? forms[0];
  if (right.kind === 'unplayable') return formOf([], [right.reason], true);
  return formOf(
    right.steps.map(({ written }) => written),
    right.text,
    true,
  );
}

/** A group of grace notes in a text. */
const groupBefore = /\{[^{}]*\}(?=[^{}]*$)/;

/**
 * A tune's text with other grace notes before a note; as it was where no group is found there.
 * @param source of the note, as `TuneNote` has it
 */
export function withGraceNotes(
  instrument: Instrument,
  abc: string,
  { source, graceNotes, strayGraceNotes }: Pick<TuneNote, 'source' | 'graceNotes' | 'strayGraceNotes'>,
  graces: readonly NoteId[],
): string {
  if (graceNotes.length + strayGraceNotes.length === 0) return abc;
  const letters = graces.map((id) => instrument.notes.find((note) => note.id === id)?.abc ?? '').join('');
  // A group stands before its note, with spaces or signs between; where the reader counts it to the note, it lies inside the range.
  const head = abc.slice(0, source.end);
  const from = Math.max(0, head.lastIndexOf('{'));
  const group = groupBefore.exec(head.slice(from));
  if (group === null) return abc;
  return `${abc.slice(0, from)}${letters === '' ? '' : `{${letters}}`}${abc.slice(from + group[0].length)}`;
}

/** A note with what is tied to it, in whole notes. */
function lengthOf({ notes }: Tune, index: number): number {
  const end = notes.findIndex((each, at) => at > index && !each.isTiedFromPrevious);
  return notes.slice(index, end === -1 ? notes.length : end).reduce((sum, { duration }) => sum + duration, 0);
}
