import { excerptSchema } from '@zelpit/core/excerpt';
import { exerciseSchema, lineFingeringSchema } from '@zelpit/core/line';
import { itemDetailsSchema } from '@zelpit/core/review';
import * as z from 'zod';
import { versionSchema } from './version';
import { typedText } from './text';
import { findSchema, pageOf, pageQuerySchema } from './page';
import { idSchema } from './problem';
import { archiveReviewSchema, reviewSchema } from './review';
import { bringBackRoute, everyone, readers, route, staff } from './route';
import { archiveDates, momentSchema, signSchema } from './archive-sign';
import { hasItsMusic, itsMusic, musicKinds, musicShape, sheetLimits, sheetLineInputSchema, wordsShape } from './sheet-item';

const title = typedText.trim().min(1, 'Enter a title.').max(sheetLimits.title, `A title can have at most ${sheetLimits.title} characters.`);
const isOnce = (found: readonly { id?: string }[]): boolean => {
  const ids = found.flatMap(({ id }) => (id === undefined ? [] : [id]));
  return new Set(ids).size === ids.length;
};
const lines = z
  .array(sheetLineInputSchema)
  .max(sheetLimits.lines, `A sheet can have at most ${sheetLimits.lines} lines.`)
  .refine(isOnce, 'The same line is on the sheet twice.');

export const sheetCreateSchema = z.strictObject({
  studentId: idSchema,
  tuneId: idSchema.nullable(),
  instrument: z.string().min(1).max(60),
  title,
  note: typedText.max(sheetLimits.note, `The message at the top can have at most ${sheetLimits.note} characters.`),
  lines,
});
export type SheetCreate = z.infer<typeof sheetCreateSchema>;

export const sheetListQuerySchema = pageQuerySchema.extend({ find: findSchema, student: idSchema.optional() });

/** `version` is the one that was read; a later one in the database refuses the save. */
export const sheetSaveSchema = z.strictObject({
  title,
  note: typedText.max(sheetLimits.note, `The message at the top can have at most ${sheetLimits.note} characters.`),
  lines,
  /** What makes it a review, only where it is one; left as it is where nothing is said. */
  review: reviewSchema.optional(),
  version: versionSchema,
});
export type SheetSave = z.infer<typeof sheetSaveSchema>;

const storedShape = {
  id: z.string(),
  code: z.string(),
  repetitions: z.number().int(),
  tempo: z.number().int().nullable(),
  speeds: z.array(z.number().int()).readonly().nullable(),
  point: z.string(),
  details: itemDetailsSchema.nullable(),
};
const musicItemSchema = z.object({
  ...storedShape,
  kind: z.enum(musicKinds),
  home: z.string(),
  other: z.string(),
  exercise: exerciseSchema.nullable(),
  excerpt: excerptSchema.nullable(),
  fingering: lineFingeringSchema.nullable(),
});
export const sheetLineSchema = z.discriminatedUnion('kind', [musicItemSchema, z.object({ ...storedShape, kind: z.literal('words'), text: z.string() })]);
export type SheetLine = z.infer<typeof sheetLineSchema>;

export const sheetSummarySchema = z.object({
  id: z.string(),
  title: z.string(),
  student: z.object({ id: z.string(), alias: z.string() }),
  tune: z.object({ id: z.string(), title: z.string() }).nullable(),
  instrument: z.string(),
  lineCount: z.number().int(),
  updatedAt: z.string(),
  /** True for one that is written after a lesson. */
  isReview: z.boolean(),
  /** When it was sent; null for one that was not, which the student does not see where it is a review. A sent one never changes. */
  sentAt: z.string().nullable(),
});
export type SheetSummary = z.infer<typeof sheetSummarySchema>;

export const sheetDetailSchema = sheetSummarySchema.extend({
  note: z.string(),
  version: z.number().int(),
  lines: z.array(sheetLineSchema),
  review: reviewSchema.nullable(),
  /** The lesson after which it was written; null for none. */
  lessonId: z.string().nullable(),
  /** When the student opened it first. */
  openedAt: z.string().nullable(),
  /** The version that it was written anew from, and the one that was written anew from it. */
  replaces: z.string().nullable(),
  replacedBy: z.string().nullable(),
});
export type SheetDetail = z.infer<typeof sheetDetailSchema>;

/** A line opened by its short code. */
export const openedLineSchema = z.object({
  line: sheetLineSchema,
  instrument: z.string(),
  sheet: z.object({ id: z.string(), title: z.string() }),
  student: z.object({ id: z.string(), alias: z.string() }),
});
export type OpenedLine = z.infer<typeof openedLineSchema>;

/** Signs of a short code: no 0/O, 1/I/L, so that it can be read from paper. */
export const codeSigns = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
export const codeSchema = z
  .string()
  .trim()
  .toUpperCase()
  .regex(new RegExp(`^[${codeSigns}]{4}$`), 'A code has four letters or digits, as printed beside the line.');

const archivedCode = { code: z.string().regex(/^[2-9A-HJKMNP-Z]{4}$/) };
const archiveItemSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...musicShape, ...archivedCode }).refine(hasItsMusic, itsMusic),
  z.strictObject({ ...wordsShape, ...archivedCode }),
]);

/** A sheet in an archive. */
export const archiveSheetSchema = z.strictObject({
  sign: signSchema,
  student: signSchema,
  tune: signSchema.nullable(),
  instrument: z.string().min(1).max(60),
  title: typedText.min(1).max(sheetLimits.title),
  note: typedText.max(sheetLimits.note),
  changed: momentSchema,
  ...archiveReviewSchema.shape,
  lines: z.array(archiveItemSchema).max(sheetLimits.lines),
  ...archiveDates,
});

/** Practice sheets. */
export const sheetRoutes = {
  sheets: route({
    method: 'get',
    path: '/sheets',
    summary: 'The sheets, changed last first; a student sees the own ones',
    who: readers,
    query: sheetListQuerySchema,
    answers: { 200: pageOf(sheetSummarySchema) },
  }),
  addSheet: route({ method: 'post', path: '/sheets', summary: 'Add a sheet', who: staff, body: sheetCreateSchema, answers: { 201: sheetDetailSchema } }),
  sheet: route({ method: 'get', path: '/sheets/{id}', summary: 'One sheet with its lines', who: readers, answers: { 200: sheetDetailSchema } }),
  saveSheet: route({
    method: 'put',
    path: '/sheets/{id}',
    summary: 'Save a sheet; 409 where it was changed after it was read',
    who: staff,
    body: sheetSaveSchema,
    answers: { 200: sheetDetailSchema },
  }),
  linesOfSheet: route({ method: 'get', path: '/sheets/{id}/lines.abc', summary: 'The lines of a sheet as ABC', who: readers, answers: { 200: 'abc' } }),
  putSheetAway: route({ method: 'delete', path: '/sheets/{id}', summary: 'Put a sheet away', who: staff, answers: { 204: null } }),
  bringSheetBack: bringBackRoute('sheet'),
  lineByCode: route({
    method: 'get',
    path: '/lines/{code}',
    summary: 'A line by the code printed beside it',
    who: everyone,
    answers: { 200: openedLineSchema },
  }),
} as const;
