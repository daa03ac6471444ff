import {
  chartedPattern,
  fingerCoverage,
  noteOf,
  patternKey,
  scaleDegree,
  withFingers,
  type FingerId,
  type GraceNoteRule,
  type Instrument,
  type NoteId,
  type Pattern,
} from '../fingering';
import { nearestNote, tablePitch } from '../acoustics';
import { hertz } from '../pitch';

/**
 * A lifting grace note is possible only when its finger and every finger nearer the face are down. Which finger that is stands with the grace note;
 * where it opens several, the one nearest the face leads and the others go with it.
 */
export function allowsGraceNote(instrument: Instrument, pattern: Pattern, { opens }: Pick<GraceNoteRule, 'opens'>): boolean {
  const order = instrument.fingers.map(({ id }) => id);
  const lead = Math.min(...opens.map((finger) => order.indexOf(finger)));
  return order.slice(0, lead + 1).every((finger) => fingerCoverage(instrument, pattern, finger) === 1);
}

/** The grace note that is written with a note's letter. @throws ZelpitFault `unknown-note` */
export function graceNoteNamed(instrument: Instrument, written: NoteId): GraceNoteRule | undefined {
  noteOf(instrument, written);
  return instrument.graceNotes.find((rule) => rule.written === written);
}

/**
 * What opens a movement: the first of the openers that is possible on the note before and on the note after, as its finger lifts over the one and closes on
 * the other. With no note before, the note after alone decides. Undefined where none is possible.
 * @param openers letters in the order of preference
 */
export function openerOf(instrument: Instrument, openers: readonly NoteId[], before: NoteId | null, after: NoteId): GraceNoteRule | undefined {
  const patterns = [...(before === null ? [] : [before]), after].map((note) => chartedPattern(instrument, note));
  return openers
    .flatMap((written) => graceNoteNamed(instrument, written) ?? [])
    .find((rule) => patterns.every((pattern) => allowsGraceNote(instrument, pattern, rule)));
}

/** The first of some grace notes that is possible on a note. */
export function firstAllowed(instrument: Instrument, written: readonly NoteId[], on: NoteId): GraceNoteRule | undefined {
  const pattern = chartedPattern(instrument, on);
  return written.flatMap((each) => graceNoteNamed(instrument, each) ?? []).find((rule) => allowsGraceNote(instrument, pattern, rule));
}

/** A grace note's fingers and the next one below of the same hand, where that lies too. */
export function withNextFinger(instrument: Instrument, pattern: Pattern, opens: readonly FingerId[]): readonly FingerId[] {
  const last = Math.max(...opens.map((finger) => instrument.fingers.findIndex(({ id }) => id === finger)));
  const [leader, next] = [instrument.fingers[last], instrument.fingers[last + 1]];
  const isLying = next?.hand === leader.hand && fingerCoverage(instrument, pattern, next.id) === 1;
  return isLying ? [...opens, next.id] : opens;
}

/** A tap: fingers that close for a moment, and what it is written as. */
export interface Tap {
  readonly closes: readonly FingerId[];
  readonly pattern: Pattern;
  readonly written: NoteId;
}

/**
 * How a note is tapped: with the thumb up by a sweep of the thumb; else where the upper hand is open by its open finger nearest the face; else by all open
 * fingers of the lower hand, or lightly by the one nearest the face. Undefined where every hole is closed.
 */
export function tapOf(instrument: Instrument, note: NoteId, weight: 'heavy' | 'light' = 'heavy'): Tap | undefined {
  const pattern = chartedPattern(instrument, note);
  const open = instrument.fingers.filter(({ id }) => fingerCoverage(instrument, pattern, id) < 1);
  const thumbs = open.filter(({ thumb }) => thumb);
  const upper = open.filter(({ hand, thumb }) => !thumb && hand === instrument.fingers[0].hand);
  const lower = open.filter(({ hand, thumb }) => !thumb && hand !== instrument.fingers[0].hand);
  const lowerTap = weight === 'heavy' ? lower : lower.slice(0, 1);
  const fingers = [thumbs, upper.slice(0, 1), lowerTap].find((each) => each.length > 0);
  if (fingers === undefined) return undefined;
  const closes = fingers.map(({ id }) => id);
  const tapped = withFingers(instrument, pattern, closes, 1);
  return { closes, pattern: tapped, written: letterOf(instrument, tapped, note) };
}

/** The letter with which a pattern on a note is written: the chart's, the instrument's own word for that tap, else the note that it sounds nearest. */
function letterOf(instrument: Instrument, pattern: Pattern, on: NoteId): NoteId {
  const charted = instrument.fingerings.find((each) => each.rank === 1 && patternKey(each.pattern) === patternKey(pattern));
  if (charted !== undefined) return charted.note;
  const own = instrument.taps.find((tap) => tap.on === on);
  if (own !== undefined) return own.written;
  const pitch = tablePitch(instrument, pattern)?.hertz;
  return pitch === undefined ? instrument.notes[Math.max(0, scaleDegree(instrument, on) - 1)].id : nearestNote(instrument, hertz(pitch));
}
