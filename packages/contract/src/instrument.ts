import { instrumentSchema, keptFingeringSchema, noteIdSchema, tuningSchema } from '@zelpit/core';
import * as z from 'zod';
import { pageQuerySchema } from './page';
import { idSchema } from './problem';
import { typedText } from './text';

const modelId = z.string().min(1).max(60);
const version = z.number().int().min(1);

/** An instrument that somebody plays: which model, how it is tuned and held, which notes are known on it. */
export const heldInstrumentInputSchema = z.strictObject({
  name: typedText.trim().min(1, 'A name is missing.').max(60, 'A name has at most 60 characters.'),
  /** Whose it is; null for the teacher who adds it. */
  studentId: idSchema.nullable(),
  /** A built-in instrument, or one that the studio made. */
  model: modelId,
  hands: z.enum(['left-on-top', 'right-on-top']),
  tuning: tuningSchema,
  /** Answers to the questions on which schools disagree, by question. */
  schools: z.record(z.string().max(40), z.string().max(40)),
  /** Pitch of the reference note; null for the usual one. */
  referenceHertz: z.number().min(10).max(20_000).nullable(),
  knownNotes: z.array(noteIdSchema).max(80),
  note: typedText.max(300, 'A remark has at most 300 characters.'),
});
export type HeldInstrumentInput = z.infer<typeof heldInstrumentInputSchema>;

/** `version` is the one that was read; a later one in the database refuses the save. */
export const heldInstrumentSaveSchema = heldInstrumentInputSchema.omit({ studentId: true }).extend({ version });
export type HeldInstrumentSave = z.infer<typeof heldInstrumentSaveSchema>;

export const heldInstrumentSchema = heldInstrumentInputSchema.omit({ studentId: true }).extend({
  id: z.string(),
  owner: z.object({ kind: z.enum(['student', 'teacher', 'studio']), id: z.string().nullable(), name: z.string() }),
  version: z.number().int(),
});
export type HeldInstrument = z.infer<typeof heldInstrumentSchema>;

export const heldInstrumentQuerySchema = pageQuerySchema.extend({ student: idSchema.optional() });

/** An instrument that the studio made: in the workshop, by calibration, or from a file. */
export const ownModelInputSchema = z.strictObject({ instrument: instrumentSchema });
export const ownModelSaveSchema = ownModelInputSchema.extend({ version });
export const ownModelSchema = z.object({
  id: z.string(),
  /** Its `id` is the model's. */
  instrument: instrumentSchema,
  by: z.string(),
  changed: z.string(),
  version: z.number().int(),
});
export type OwnModel = z.infer<typeof ownModelSchema>;

/** A fingering that a teacher confirmed, hid, annotated or put first, on one model. */
export const confirmedFingeringInputSchema = keptFingeringSchema.extend({ model: modelId });
export type ConfirmedFingeringInput = z.infer<typeof confirmedFingeringInputSchema>;
export const confirmedFingeringSchema = confirmedFingeringInputSchema.extend({ id: z.string(), by: z.string(), on: z.string() });
export type StudioFingering = z.infer<typeof confirmedFingeringSchema>;
export const confirmedFingeringQuerySchema = pageQuerySchema.extend({ model: modelId.optional() });
