import { exerciseSchema, noteIdSchema } from '@zelpit/core';
import * as z from 'zod';
import { typedText } from './text';
import { findSchema, pageQuerySchema } from './page';
import { idSchema } from './problem';

export const sheetLineInputSchema = z.strictObject({
  /** The line's own; a new line may bring one that no line has yet, or none. */
  id: idSchema.optional(),
  home: noteIdSchema,
  other: noteIdSchema,
  /** Times through the line. */
  repetitions: z.number().int().min(1, 'At least once.').max(50, 'At most 50 times.'),
  /** Beats a minute; null for free. */
  tempo: z.number().int().min(20, 'At least 20 beats a minute.').max(300, 'At most 300 beats a minute.').nullable(),
  point: typedText.max(300, 'A point to watch has at most 300 characters.'),
  /** The line's own music; without it the line is the change there and back, eight times. */
  exercise: exerciseSchema.nullable().optional(),
});
export type SheetLineInput = z.infer<typeof sheetLineInputSchema>;

const title = typedText.trim().min(1, 'A title is missing.').max(120, 'A title has at most 120 characters.');
const isOnce = (found: readonly { id?: string }[]): boolean => {
  const ids = found.flatMap(({ id }) => (id === undefined ? [] : [id]));
  return new Set(ids).size === ids.length;
};
const lines = z.array(sheetLineInputSchema).max(60, 'A sheet has at most 60 lines.').refine(isOnce, 'One line stands on the sheet twice.');

export const sheetCreateSchema = z.strictObject({
  studentId: idSchema,
  tuneId: idSchema.nullable(),
  instrument: z.string().min(1).max(60),
  title,
  note: typedText.max(300, 'The words at the head have at most 300 characters.'),
  lines,
});
export type SheetCreate = z.infer<typeof sheetCreateSchema>;

export const sheetListQuerySchema = pageQuerySchema.extend({ find: findSchema, student: idSchema.optional() });

/** `version` is the one that was read; a later one in the database refuses the save. */
export const sheetSaveSchema = z.strictObject({
  title,
  note: typedText.max(300, 'The words at the head have at most 300 characters.'),
  lines,
  version: z.number().int().min(1),
});
export type SheetSave = z.infer<typeof sheetSaveSchema>;

export const sheetLineSchema = z.object({
  id: z.string(),
  code: z.string(),
  home: z.string(),
  other: z.string(),
  repetitions: z.number().int(),
  tempo: z.number().int().nullable(),
  point: z.string(),
  exercise: exerciseSchema.nullable(),
});
export type SheetLine = z.infer<typeof sheetLineSchema>;

export const sheetSummarySchema = z.object({
  id: z.string(),
  title: z.string(),
  student: z.object({ id: z.string(), alias: z.string() }),
  tune: z.object({ id: z.string(), title: z.string() }).nullable(),
  instrument: z.string(),
  lineCount: z.number().int(),
  updatedAt: z.string(),
});
export type SheetSummary = z.infer<typeof sheetSummarySchema>;

export const sheetDetailSchema = sheetSummarySchema.extend({ note: z.string(), version: z.number().int(), lines: z.array(sheetLineSchema) });
export type SheetDetail = z.infer<typeof sheetDetailSchema>;

/** A line opened by its short code. */
export const openedLineSchema = z.object({
  line: sheetLineSchema,
  instrument: z.string(),
  sheet: z.object({ id: z.string(), title: z.string() }),
  student: z.string(),
});
export type OpenedLine = z.infer<typeof openedLineSchema>;

/** Signs of a short code: no 0/O, 1/I/L, so that it can be read from paper. */
export const codeSigns = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
export const codeSchema = z
  .string()
  .trim()
  .toUpperCase()
  .regex(new RegExp(`^[${codeSigns}]{4}$`), 'A code has four letters or figures, as printed beside the line.');
