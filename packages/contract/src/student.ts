import { movementIdSchema } from '@zelpit/core';
import * as z from 'zod';
import { typedText } from './text';

/** What a guardian agreed to, as the teacher wrote it down. */
export const consentSchema = z.strictObject({
  guardian: typedText.trim().min(1, 'Who gave the consent is missing.').max(120, 'At most 120 characters for the guardian.'),
  /** Day, as 2026-03-09. */
  on: z.iso.date('The day is missing.'),
  covers: typedText.trim().min(1, 'What the consent covers is missing.').max(300, 'At most 300 characters for what it covers.'),
});
export type Consent = z.infer<typeof consentSchema>;

export const studentMovementsSchema = z.array(movementIdSchema).max(200, 'At most 200 movements.');

/** A student is known by an alias; nothing else is asked. */
export const studentInputSchema = z.strictObject({
  alias: typedText.trim().min(1, 'A name or alias is missing.').max(60, 'An alias has at most 60 characters.'),
  consent: consentSchema.nullable().optional(),
  /** Movements that the student has, by their ids; left as they are where nothing is said. */
  movements: studentMovementsSchema.optional(),
});
export type StudentInput = z.infer<typeof studentInputSchema>;

/** `version` is the one that was read; a later one in the database refuses the save. */
export const studentSaveSchema = studentInputSchema.extend({ version: z.number().int().min(1) });
export type StudentSave = z.infer<typeof studentSaveSchema>;

export const studentSchema = z.object({
  id: z.string(),
  alias: z.string(),
  consent: consentSchema.nullable(),
  movements: studentMovementsSchema,
  version: z.number().int(),
});
export type Student = z.infer<typeof studentSchema>;
