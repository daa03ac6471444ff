import { noteOf, type Instrument } from '../fingering';
import { isLowestOf, type NeighbourOrnament, type OrnamentKind } from '../movement';
import type { Tune, TuneNote } from './tune';

/** An ornament that stands in a tune: as a sign over its note, or written out in grace notes. */
export interface WrittenOrnament {
  readonly note: TuneNote;
  readonly kind: OrnamentKind | NeighbourOrnament;
}

const eighth = 1 / 8;
const tolerance = 1e-6;

/**
 * Ornaments of whistle, Irish pipes, recorder and ocarina in a tune, in their order. A roll on the lowest note is a cran; a roll of three eighths is a long one. Rolls
 * and crans written out in cuts and taps on repeated notes are told as one. On the Highland pipes groups of grace notes are movements: see `movementsOfTune`.
 */
export function writtenOrnaments(instrument: Instrument, tune: Tune): readonly WrittenOrnament[] {
  if (instrument.family === 'pipes') return [];
  const isFolk = instrument.family === 'whistle' || instrument.family === 'irish-pipes';
  const found: WrittenOrnament[] = [];
  let taken = 0;
  tune.notes.forEach((note, index) => {
    if (index < taken || note.written.kind !== 'note') return;
    const signed = note.sign === undefined ? undefined : signedKind(instrument, note, isFolk);
    const out = isFolk ? writtenOut(instrument, tune, index) : undefined;
    const kind = signed ?? out?.kind ?? graceKind(instrument, note, isFolk);
    if (kind === undefined) return;
    found.push({ note, kind });
    if (signed === undefined && out !== undefined) taken = index + out.notes;
  });
  return found;
}

function signedKind(instrument: Instrument, note: TuneNote, isFolk: boolean): WrittenOrnament['kind'] {
  const { sign, duration, written } = note;
  if (sign === 'slide' || sign === 'trill') return sign;
  if (!isFolk) return sign === 'lower-mordent' ? sign : 'upper-mordent';
  const isLong = duration >= 3 * eighth - tolerance;
  if (written.kind === 'note' && isLowestOf(instrument, written.note)) return isLong ? 'long-cran' : 'short-cran';
  return isLong ? 'long-roll' : 'short-roll';
}

/** A cut lies above its note and a tap below it; for recorder and ocarina it is a grace note. */
function graceKind(instrument: Instrument, note: TuneNote, isFolk: boolean): WrittenOrnament['kind'] | undefined {
  if (note.graceNotes.length !== 1 || note.written.kind !== 'note') return undefined;
  if (!isFolk) return 'grace-note';
  return isAbove(instrument, note) ? 'cut' : 'tap';
}

/** A roll or cran in notes of one height: the note, cut, tap; cut and tap; on the lowest note cuts alone. */
function writtenOut(instrument: Instrument, tune: Tune, index: number): { readonly kind: OrnamentKind; readonly notes: number } | undefined {
  const [one, two, three] = tune.notes.slice(index, index + 3);
  if (one.written.kind !== 'note') return undefined;
  const { note } = one.written;
  const isSame = (other: TuneNote | undefined): boolean =>
    other?.written.kind === 'note' && other.written.note === note && Math.abs(other.duration - one.duration) < tolerance;
  const does = (each: TuneNote): 'cut' | 'tap' | undefined => {
    const kind = graceKind(instrument, each, true);
    return kind === 'cut' || kind === 'tap' ? kind : undefined;
  };
  if (!isSame(two) || Math.abs(one.duration - eighth) > tolerance) return undefined;
  const isLowest = isLowestOf(instrument, note);
  const second = isLowest ? 'cut' : 'tap';
  if (one.graceNotes.length === 0 && isSame(three) && does(two) === 'cut' && does(three) === second)
    return { kind: isLowest ? 'long-cran' : 'long-roll', notes: 3 };
  if (does(one) === 'cut' && does(two) === second) return { kind: isLowest ? 'short-cran' : 'short-roll', notes: 2 };
  return undefined;
}

function isAbove(instrument: Instrument, { graceNotes: [grace], written }: TuneNote): boolean {
  return written.kind === 'note' && noteOf(instrument, grace).writtenSemitone > noteOf(instrument, written.note).writtenSemitone;
}
