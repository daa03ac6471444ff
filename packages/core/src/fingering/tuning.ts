import * as z from 'zod';
import { ZelpitFault } from '../fault';
import { noteIdSchema, type Instrument, type Note, type NoteId } from './instrument';
import { noteOf } from './lookup';
import { centsOfRatio } from '../pitch';

const widestCents = 100;

/**
 * How the notes of one instrument lie to its reference note: by the chart, in equal temperament, by a tuner's fractions where he
 * differs from the chart, or in cents from equal temperament.
 */
export const tuningSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('chart') }),
  z.strictObject({ kind: z.literal('equal') }),
  z.strictObject({ kind: z.literal('ratios'), ratios: z.record(noteIdSchema, z.string().max(12)) }),
  z.strictObject({ kind: z.literal('cents'), cents: z.record(noteIdSchema, z.number().min(-widestCents).max(widestCents)) }),
]);
export type Tuning = z.infer<typeof tuningSchema>;

/**
 * A fraction as tuners say it, as a number.
 * @throws ZelpitFault `invalid-tuning` for anything else
 * @example ratioOf('7/4') // 1.75
 */
export function ratioOf(text: string): number {
  const [, above, below] = /^([1-9]\d{0,3})\/([1-9]\d{0,3})$/.exec(text.trim()) ?? [];
  if (above === undefined) throw new ZelpitFault('invalid-tuning', `Write a ratio as a fraction such as 7/4, not “${text}”.`, { text });
  return Number(above) / Number(below);
}

/**
 * The instrument with its notes tuned so; fingers stay as they are.
 * @throws ZelpitFault `unknown-note` for a note that it does not have, `invalid-tuning` for a fraction that is none or more than a semitone off
 */
export function withTuning(instrument: Instrument, tuning: Tuning): Instrument {
  if (tuning.kind === 'chart') return instrument;
  if (tuning.kind === 'equal') return retuned(instrument, (note) => equalRatio(instrument, note));
  if (tuning.kind === 'ratios') {
    const ratios = new Map(Object.entries(tuning.ratios).map(([id, text]) => [noteOf(instrument, id).id, ratioNear(noteOf(instrument, id), text)]));
    return retuned(instrument, (note) => ratios.get(note.id) ?? note.ratio);
  }
  const cents = new Map<NoteId, number>(Object.entries(tuning.cents).map(([id, value]) => [noteOf(instrument, id).id, value]));
  return retuned(instrument, (note) => equalRatio(instrument, note) * 2 ** ((cents.get(note.id) ?? 0) / 1200));
}

/** What the note is in equal temperament from the reference note, as a ratio. */
export function equalRatio(instrument: Instrument, note: Note): number {
  return 2 ** ((note.writtenSemitone - noteOf(instrument, instrument.reference.note).writtenSemitone) / 12);
}

function ratioNear(note: Note, text: string): number {
  const ratio = ratioOf(text);
  const off = centsOfRatio(ratio / note.ratio);
  if (Math.abs(off) > widestCents)
    throw new ZelpitFault(
      'invalid-tuning',
      `${note.schoolName} at ${text} would be ${Math.round(Math.abs(off))} cents away from the chart; at most ${widestCents} is possible.`,
      {
        note: note.id,
        text,
      },
    );
  return ratio;
}

function retuned(instrument: Instrument, ratioFor: (note: Note) => number): Instrument {
  return { ...instrument, notes: instrument.notes.map((note) => ({ ...note, ratio: ratioFor(note) })) };
}
