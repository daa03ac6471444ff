import * as z from 'zod';
import { ZelpitFault } from '../fault';
import { holesSchema, noteIdSchema, withoutMarks, type Fingering, type Instrument, type NoteId } from './instrument';
import { noteOf } from './lookup';
import { isSameFingers } from './pattern';
import { withFirst } from './schools';

/** A teacher's word on a fingering: an own one, or a built-in one put first, hidden or annotated. */
export const keptFingeringSchema = z.strictObject({
  note: noteIdSchema,
  pattern: holesSchema,
  foot: z.enum(['closed', 'open']).optional(),
  /** Taught before all others. */
  isFirst: z.boolean(),
  isHidden: z.boolean(),
  remark: z.string().trim().max(300).regex(withoutMarks, 'A remark is plain text, without marks such as <b>.'),
  /** A stand-in: what comes later, and from which day. */
  forNow: z.strictObject({ eventually: holesSchema, until: z.iso.date() }).nullable(),
});
export type KeptFingering = z.infer<typeof keptFingeringSchema>;

export interface ConfirmedFingering extends KeptFingering {
  readonly by: string;
  /** Day, as 2026-03-09. */
  readonly on: string;
}

/**
 * The instrument as the teacher keeps it: own fingerings beside the built-in ones, which stay untouched.
 * @throws ZelpitFault `unknown-note`; `invalid-pattern` for fingers that the instrument does not have, for the fingers of another
 * note, and where a note would be left without any fingering
 */
export function withKeptFingerings(instrument: Instrument, kept: readonly ConfirmedFingering[]): Instrument {
  return kept.reduce(withOne, instrument);
}

function withOne(instrument: Instrument, kept: ConfirmedFingering): Instrument {
  assertPlayable(instrument, kept);
  const charted = instrument.fingerings.find(({ note, pattern, foot }) => note === kept.note && foot === kept.foot && isSameFingers(pattern, kept.pattern));
  const others = instrument.fingerings.filter((each) => each !== charted);
  const ofNote = others.filter(({ note }) => note === kept.note);
  if (kept.isHidden) return hiding(instrument, kept, others, ofNote);
  const own: Fingering = {
    ...(charted ?? {
      note: kept.note,
      pattern: kept.pattern,
      school: 'own',
      register: registerFor(instrument, kept.note),
      rank: 1 + Math.max(0, ...ofNote.map(({ rank }) => rank)),
      source: 'teacher',
    }),
    ...(kept.foot !== undefined && { foot: kept.foot }),
    ...(kept.remark !== '' && { remark: kept.remark }),
    ...(kept.forNow !== null && { forNow: kept.forNow }),
    confirmed: { by: kept.by, on: kept.on },
  };
  const fingerings = charted === undefined ? [...instrument.fingerings, own] : instrument.fingerings.map((each) => (each === charted ? own : each));
  return { ...instrument, fingerings: kept.isFirst ? withFirst(fingerings, own) : fingerings };
}

function hiding(instrument: Instrument, kept: ConfirmedFingering, others: readonly Fingering[], ofNote: readonly Fingering[]): Instrument {
  if (ofNote.length === 0)
    throw new ZelpitFault('invalid-pattern', `${noteOf(instrument, kept.note).schoolName} would have no fingering left.`, { note: kept.note });
  const best = ofNote.reduce((one, other) => (other.rank < one.rank ? other : one));
  return { ...instrument, fingerings: best.rank === 1 ? [...others] : others.map((each) => (each === best ? { ...each, rank: 1 } : each)) };
}

/** The register in which the note is charted. */
const registerFor = ({ fingerings }: Instrument, note: NoteId): number => fingerings.find((each) => each.note === note && each.rank === 1)?.register ?? 1;

function assertPlayable(instrument: Instrument, { note, pattern, foot, forNow }: KeptFingering): void {
  const name = noteOf(instrument, note).schoolName;
  const count = instrument.holes.length;
  for (const each of [pattern, ...(forNow === null ? [] : [forNow.eventually])])
    if (each.length !== count)
      throw new ZelpitFault('invalid-pattern', `The ${instrument.name} has ${count} holes, but this fingering of ${name} has ${each.length}.`, { note });
  const register = registerFor(instrument, note);
  const other = instrument.fingerings.find(
    (each) => each.note !== note && each.foot === foot && each.register === register && isSameFingers(each.pattern, pattern),
  );
  if (other !== undefined)
    throw new ZelpitFault('invalid-pattern', `These are the fingers of ${noteOf(instrument, other.note).schoolName}, so ${name} cannot have them too.`, {
      note,
      other: other.note,
    });
}
