import { ZelpitFault } from '../fault';
import { hertz, type Hertz } from '../pitch';
import type { Finger, FingerId, Fingering, Instrument, Note, NoteId, Pattern } from './instrument';

/** @throws ZelpitFault `unknown-note` */
export function noteOf(instrument: Instrument, id: NoteId): Note {
  const note = instrument.notes.find((candidate) => candidate.id === id);
  return note ?? unknownNote(instrument, id);
}

function unknownNote(instrument: Instrument, id: NoteId): never {
  const known = instrument.notes.map((each) => each.schoolName).join(', ');
  throw new ZelpitFault('unknown-note', `The ${instrument.name} plays ${known}, not “${id}”.`, { id });
}

/** @throws ZelpitFault `unknown-finger` */
export function fingerOf(instrument: Instrument, id: FingerId): Finger {
  const finger = instrument.fingers.find((candidate) => candidate.id === id);
  if (finger === undefined) throw new ZelpitFault('unknown-finger', `The ${instrument.name} has no finger ${id}.`, { id });
  return finger;
}

/** Place of a note in the scale, 0 for the lowest. */
export function scaleDegree(instrument: Instrument, id: NoteId): number {
  return instrument.notes.indexOf(noteOf(instrument, id));
}

/** What is to be minded with some notes, by their names: "Third D: shrill …"; empty for nothing. */
export function cautionsOf({ notes }: Instrument, ids: readonly NoteId[]): string {
  const minded = notes.filter(({ id, caution }) => caution !== undefined && ids.includes(id));
  const texts = new Set(minded.map(({ caution }) => caution));
  return [...texts]
    .map(
      (text) =>
        `${minded
          .filter(({ caution }) => caution === text)
          .map(({ schoolName }) => schoolName)
          .join(', ')}: ${text}`,
    )
    .map((text) => text.charAt(0).toUpperCase() + text.slice(1))
    .join(' ');
}

/** Every way of a note, the one taught first before the others; none for a note that is not there. */
export const waysOf = ({ fingerings }: Instrument, id: NoteId): readonly Fingering[] =>
  fingerings.filter(({ note }) => note === id).sort((one, other) => one.rank - other.rank);

/** The fingering taught first for a note. @throws ZelpitFault `unknown-note` */
export function chartedFingering(instrument: Instrument, id: NoteId): Fingering {
  return instrument.fingerings.find((fingering) => fingering.note === id && fingering.rank === 1) ?? unknownNote(instrument, id);
}

/**
 * The pattern taught first for a note.
 * @throws ZelpitFault `unknown-note`
 * @example chartedPattern(practiceChanter, 'b') // pattern('X XXX XXOO')
 */
export function chartedPattern(instrument: Instrument, id: NoteId): Pattern {
  return chartedFingering(instrument, id).pattern;
}

/**
 * Sounding pitch of a charted note in Hz, from its ratio and the instrument's reference.
 * @throws ZelpitFault `unknown-note`
 * @example soundingPitch(practiceChanter, 'high-a') // 475
 */
export function soundingPitch(instrument: Instrument, id: NoteId, reference: Hertz = hertz(instrument.reference.hertz)): Hertz {
  return hertz(reference * noteOf(instrument, id).ratio);
}

/** True where the tongue starts a note: a reed in a bag or under a cap is never tongued. */
export const isTonguedFamily = (family: Instrument['family']): boolean => family === 'whistle' || family === 'recorder' || family === 'ocarina';
