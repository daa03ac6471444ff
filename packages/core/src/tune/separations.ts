import { noteOf, type Instrument, type NoteId } from '../fingering';
import { compileOrnament, usualOrnaments, type OrnamentKind, type OrnamentSettings } from '../movement';
import type { Tune, TuneNote } from './tune';
import { writtenOrnaments } from './written-ornaments';

/** How many ornaments a tune carries: only what parts repeated notes, a few, or as many as in a session. */
export type Density = 'plain' | 'a-few' | 'session';

/** What parts or decorates a note: an ornament, or the tongue. */
export type SeparationKind = OrnamentKind | 'tongue';

export interface Separation {
  readonly note: TuneNote;
  readonly kind: SeparationKind;
  /** Why just this, in a sentence. */
  readonly text: string;
}

export interface SeparationWishes {
  readonly density: Density;
  readonly ornaments?: OrnamentSettings;
  /** False where cuts over the thin part of the scale are left out: they need a well-speaking instrument. */
  readonly hasThinCuts?: boolean;
}

/** Ornaments in a phrase, what parts repeated notes by tongue or stop not counted. */
const budgets: Readonly<Record<Density, number>> = { plain: 0, 'a-few': 2, session: 5 };
const barsInPhrase = 4;
const eighth = 1 / 8;
/** An eighth as long as this, in ms, belongs to a slow tune: crans and rolls would break its line. */
const slowEighthMs = 430;
/** A note entered from so many semitones below, in the second register, may be slid into. */
const [wideEntry, octave] = [5, 12];
/** What busies a slow tune. */
const busy: ReadonlySet<OrnamentKind> = new Set(['long-roll', 'short-roll', 'long-cran', 'short-cran', 'triplet']);

interface Candidate {
  readonly index: number;
  readonly note: TuneNote;
  readonly id: NoteId;
  readonly isRepeated: boolean;
  /** The more, the sooner it is decorated. */
  readonly weight: number;
  readonly kinds: readonly OrnamentKind[];
}

/**
 * One proposal for each place where notes repeat, and for long notes as far as the budget of their phrase of four bars goes. The tune stays in front: what is left
 * over is parted by the tongue, on the pipes by a stop. Only for whistle and Irish pipes.
 */
export function proposeSeparations(
  instrument: Instrument,
  tune: Tune,
  { density, ornaments = usualOrnaments, hasThinCuts = false }: SeparationWishes,
): readonly Separation[] {
  if (instrument.family !== 'whistle' && instrument.family !== 'irish-pipes') return [];
  const plainKind: SeparationKind = instrument.family === 'irish-pipes' ? 'stop' : 'tongue';
  const decorated = new Set(writtenOrnaments(instrument, tune).map(({ note }) => note));
  const isSlow = eighthMsOf(tune) >= slowEighthMs;
  const candidates = tune.notes
    .flatMap((note, index) => (decorated.has(note) ? [] : (candidateAt(instrument, tune, note, index) ?? [])))
    .map((candidate) => (isSlow ? { ...candidate, kinds: candidate.kinds.filter((kind) => !busy.has(kind)) } : candidate));
  const spent = new Map<number, number>();
  const proposals = new Map<number, Separation>();
  for (const { index, note, id, isRepeated, kinds } of [...candidates].sort((one, other) => other.weight - one.weight || one.index - other.index)) {
    const phrase = Math.floor((Math.max(1, note.bar) - 1) / barsInPhrase);
    const isAffordable = (spent.get(phrase) ?? 0) < budgets[density];
    const kind = isAffordable ? kinds.find((each) => isPossible(instrument, each, id, ornaments, hasThinCuts)) : undefined;
    if (kind !== undefined) spent.set(phrase, (spent.get(phrase) ?? 0) + 1);
    else if (!isRepeated) continue;
    proposals.set(index, { note, kind: kind ?? plainKind, text: reason(kind, isRepeated, plainKind) });
  }
  return [...proposals].sort(([one], [other]) => one - other).map(([, proposal]) => proposal);
}

function candidateAt(instrument: Instrument, tune: Tune, note: TuneNote, index: number): Candidate | undefined {
  if (note.written.kind !== 'note' || note.isTiedFromPrevious || note.graceNotes.length > 0) return undefined;
  const id = note.written.note;
  const previous = tune.notes[index - 1]?.written;
  const isRepeated = previous?.kind === 'note' && previous.note === id;
  const isOnBeat = Math.abs(note.beat - Math.round(note.beat)) < 0.01;
  const isLong = note.duration >= 3 * eighth - 1e-6;
  if (isLong) return { index, note, id, isRepeated, weight: isOnBeat ? 3 : 2, kinds: ['long-roll', 'long-cran', 'cut'] };
  const isQuarter = note.duration >= 2 * eighth - 1e-6;
  if (isRepeated && isQuarter)
    return { index, note, id, isRepeated, weight: isOnBeat ? 2.6 : 1.6, kinds: isOnBeat ? ['short-roll', 'cut', 'tap'] : ['triplet', 'tap', 'cut'] };
  if (isRepeated) return { index, note, id, isRepeated, weight: isOnBeat ? 2.5 : 1.5, kinds: isOnBeat ? ['cut', 'tap'] : ['tap', 'cut'] };
  if (isOnBeat && isQuarter && isHighEntry(instrument, previous, id)) return { index, note, id, isRepeated, weight: 1.2, kinds: ['slide'] };
  const endsPhrase = note.bar > 0 && note.bar % barsInPhrase === 0 && isQuarter && isOnBeat;
  return endsPhrase ? { index, note, id, isRepeated, weight: 1, kinds: ['short-roll', 'short-cran'] } : undefined;
}

/** How long an eighth lasts at the tune's own tempo, in ms. */
export const eighthMsOf = ({ meter, tempo }: Tune): number => (60_000 / tempo) * (eighth / meter.beat);

/** True where the tune enters the second register from well below, or after a rest. */
function isHighEntry(instrument: Instrument, previous: TuneNote['written'] | undefined, id: NoteId): boolean {
  const semitone = noteOf(instrument, id).writtenSemitone;
  if (semitone - instrument.notes[0].writtenSemitone < octave) return false;
  return previous?.kind !== 'note' || semitone - noteOf(instrument, previous.note).writtenSemitone >= wideEntry;
}

/** Cuts over the thin part of the scale, where hardly a hole is closed, need a well-speaking instrument. */
function isPossible(instrument: Instrument, kind: OrnamentKind, note: NoteId, ornaments: OrnamentSettings, hasThinCuts: boolean): boolean {
  const made = compileOrnament(instrument, kind, note, ornaments);
  if (made.kind === 'unplayable') return false;
  const isThin = made.steps.some((step) => step.kind === 'cut' && step.pattern.filter((coverage) => coverage > 0).length <= 1);
  return !isThin || hasThinCuts;
}

const names: Readonly<Record<OrnamentKind | 'tongue', string>> = {
  cut: 'a cut',
  tap: 'a tap',
  'short-roll': 'a short roll',
  'long-roll': 'a long roll',
  'short-cran': 'a short cran',
  'long-cran': 'a long cran',
  'three-cut-cran': 'a cran of three cuts',
  slide: 'a slide',
  stop: 'a stop',
  triplet: 'a triplet',
  flutter: 'a flutter',
  tongue: 'the tongue',
};

function reason(kind: OrnamentKind | undefined, isRepeated: boolean, plain: SeparationKind): string {
  if (kind === undefined) return `The note repeats, but the phrase has enough ornaments: ${names[plain]} separates it.`;
  if (kind === 'cut' || kind === 'tap') return isRepeated ? `The note repeats: ${names[kind]} separates it.` : `A long note: ${names[kind]} starts it.`;
  if (kind === 'slide') return `The tune enters high: ${names[kind]} softens it.`;
  if (isRepeated && (kind === 'short-roll' || kind === 'triplet')) return `The note repeats: ${names[kind]} separates and fills it.`;
  return kind === 'short-roll' || kind === 'short-cran' ? `The phrase ends here: ${names[kind]} makes it firm.` : `A long note: ${names[kind]} fills it.`;
}
