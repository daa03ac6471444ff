import { noteOf, type Instrument, type NoteId } from '../fingering';
import { compileMovement, movementById, usualMovementSettings, type MovementSettings, type OrnamentKind, type OrnamentSettings } from '../movement';
import { proposeSeparations, type Density, type SeparationKind, type Tune } from '../tune';
import { isFree } from './arrangement';

/** One ornament that is proposed, and why. */
export interface Embellishment {
  /** Index of the note. */
  readonly note: number;
  readonly bar: number;
  /** "G grace note", "doubling", "cut" */
  readonly name: string;
  readonly text: string;
  /** Letters of the grace notes; on the pipes. */
  readonly graces?: readonly NoteId[];
  /** On whistle and Irish pipes; `trill` on recorder and ocarina is said only. */
  readonly ornament?: OrnamentKind;
}

export interface EmbellishWishes {
  readonly density: Density;
  /** At most so many in a phrase of four bars; what keeps repeated notes apart is not counted. */
  readonly perPhrase?: number;
  /** Movements that the player has, by their ids; all where none are given. */
  readonly movements?: readonly string[];
  readonly settings?: MovementSettings;
  readonly ornaments?: OrnamentSettings;
}

const barsInPhrase = 4;
const usualPerPhrase: Readonly<Record<Density, number>> = { plain: 0, 'a-few': 2, session: 8 };
const tolerance = 1e-6;

/**
 * Ornaments for the notes of a tune that carry none: what a teacher set is never overwritten. Highland pipes by the note before and the beat; whistle and Irish pipes by
 * repeated notes, phrase ends and high entries; recorder and ocarina the tongue, and a trill where a phrase ends. "A few" never decorates two notes in a row.
 */
export function embellish(instrument: Instrument, tune: Tune, wishes: EmbellishWishes): readonly Embellishment[] {
  const found = foundFor(instrument, tune, wishes);
  return wishes.density === 'session' ? found : apart(found, tune);
}

function foundFor(instrument: Instrument, tune: Tune, wishes: EmbellishWishes): readonly Embellishment[] {
  if (instrument.family === 'pipes') return highland(instrument, tune, wishes);
  if (instrument.family === 'whistle' || instrument.family === 'irish-pipes') return folk(instrument, tune, wishes);
  return tongued(instrument, tune, wishes);
}

/** Of neighbours only the first stays. */
function apart(found: readonly Embellishment[], { notes }: Tune): readonly Embellishment[] {
  let last = -2;
  return found.filter(({ note }) => {
    const before = notes.slice(0, note).findLastIndex(({ isTiedFromPrevious, written }) => !isTiedFromPrevious && written.kind !== 'rest');
    const isNext = before === last || (notes[before]?.graceNotes.length ?? 0) > 0;
    if (isNext) return false;
    last = note;
    return true;
  });
}

interface Candidate {
  readonly note: number;
  readonly bar: number;
  readonly isRepeated: boolean;
  readonly weight: number;
  /** Movements that could stand here, the likeliest first, each with its reason. */
  readonly movements: readonly (readonly [id: string, text: string])[];
}

function highland(
  instrument: Instrument,
  tune: Tune,
  { density, perPhrase = usualPerPhrase[density], movements, settings = usualMovementSettings }: EmbellishWishes,
): readonly Embellishment[] {
  const candidates = tune.notes.flatMap(({ index }) => highlandAt(instrument, tune, index, density) ?? []);
  const spent = new Map<number, number>();
  const chosen: Embellishment[] = [];
  for (const candidate of [...candidates].sort((one, other) => other.weight - one.weight || one.note - other.note)) {
    const phrase = Math.floor((Math.max(1, candidate.bar) - 1) / barsInPhrase);
    const isAffordable = (spent.get(phrase) ?? 0) < perPhrase;
    if (!candidate.isRepeated && !isAffordable) continue;
    const made = candidate.movements.flatMap(([id, text]) =>
      movements === undefined || movements.length === 0 || movements.includes(id) || id === 'grace-note'
        ? (madeAt(instrument, tune, candidate.note, id, text, settings) ?? [])
        : [],
    );
    // What only keeps repeated notes apart stays small where there is no room for more.
    const one = isAffordable ? made.at(0) : made.find(({ graces = [] }) => graces.length === 1);
    if (one === undefined) continue;
    if (!candidate.isRepeated) spent.set(phrase, (spent.get(phrase) ?? 0) + 1);
    chosen.push(one);
  }
  return chosen.sort((one, other) => one.note - other.note);
}

function highlandAt(instrument: Instrument, tune: Tune, index: number, density: Density): Candidate | undefined {
  const { written, bar, beat, duration } = tune.notes[index];
  if (written.kind !== 'note' || !isFree(tune, index)) return undefined;
  const before = tune.notes[index - 1]?.written;
  const isRepeated = before?.kind === 'note' && before.note === written.note;
  const isOnBeat = Math.abs(beat - Math.round(beat)) < 0.01;
  const isLong = duration >= tune.meter.beat - tolerance;
  const name = noteOf(instrument, written.note).schoolName;
  if (isRepeated)
    return {
      note: index,
      bar,
      isRepeated,
      weight: 4,
      movements: [
        ['grace-note', `${name} repeats: a grace note keeps the two apart.`],
        ['tap', `${name} repeats: a tap keeps the two apart.`],
      ],
    };
  if (density === 'plain' || !isOnBeat) return undefined;
  const rises = before?.kind === 'note' && noteOf(instrument, before.note).writtenSemitone < noteOf(instrument, written.note).writtenSemitone;
  const single = ['grace-note', `${name} falls on the beat: a grace note marks it.`] as const;
  const isStart = Math.abs(beat - 1) < 0.01;
  if (isLong && written.note === 'd' && rises)
    return { note: index, bar, isRepeated, weight: 3.5, movements: [['light-throw', 'D comes from below on the beat: the throw leads into it.'], single] };
  if (isLong)
    return {
      note: index,
      bar,
      isRepeated,
      weight: isStart ? 3 : 2.5,
      movements: [['doubling', `${name} is long and on the beat: a doubling fills its start.`], single],
    };
  return { note: index, bar, isRepeated, weight: isStart ? 2 : 1, movements: [single] };
}

function madeAt(instrument: Instrument, tune: Tune, note: number, id: string, text: string, settings: MovementSettings): Embellishment | undefined {
  const { written, bar } = tune.notes[note];
  const previous = tune.notes[note - 1]?.written;
  if (written.kind !== 'note') return undefined;
  const movement = movementById(id);
  const made = compileMovement(instrument, movement, previous?.kind === 'note' ? previous.note : null, written.note, settings);
  if (made.kind === 'unplayable' || made.steps.length === 0) return undefined;
  return { note, bar, name: movement.names[0], text, graces: made.steps.map((step) => step.written) };
}

function folk(instrument: Instrument, tune: Tune, { density, perPhrase, ornaments }: EmbellishWishes): readonly Embellishment[] {
  const spent = new Map<number, number>();
  return proposeSeparations(instrument, tune, { density, ...(ornaments !== undefined && { ornaments }) }).flatMap(({ note, kind, text }): Embellishment[] => {
    if (!isOrnament(kind)) return [];
    const phrase = Math.floor((Math.max(1, note.bar) - 1) / barsInPhrase);
    const count = spent.get(phrase) ?? 0;
    if (perPhrase !== undefined && count >= perPhrase) return [];
    spent.set(phrase, count + 1);
    return [{ note: note.index, bar: note.bar, name: kind.replaceAll('-', ' '), text, ornament: kind }];
  });
}

/** What is written over a note; the tongue and a stop leave nothing on the page. */
const isOrnament = (kind: SeparationKind): kind is OrnamentKind => kind !== 'tongue' && kind !== 'stop' && kind !== 'triplet' && kind !== 'flutter';

/** Recorder and ocarina: the tongue separates; a trill stands where a phrase ends on a long note. */
function tongued(instrument: Instrument, tune: Tune, { density }: EmbellishWishes): readonly Embellishment[] {
  if (density === 'plain') return [];
  return tune.notes.flatMap(({ index, written, bar, duration }): Embellishment[] => {
    if (written.kind !== 'note' || !isFree(tune, index) || bar === 0 || bar % barsInPhrase !== 0) return [];
    if (duration < tune.meter.beat - tolerance) return [];
    const name = noteOf(instrument, written.note).schoolName;
    return [{ note: index, bar, name: 'trill', text: `The phrase ends on ${name}: a trill can close it.` }];
  });
}
