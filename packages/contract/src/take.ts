import { noteIdSchema } from '@zelpit/core/fingering';
import * as z from 'zod';
import { momentSchema, signSchema } from './archive-sign';
import { pageOf, pageQuerySchema } from './page';
import { idSchema } from './problem';
import { everyone, holders, readers, route, staff } from './route';
import { codeSchema } from './sheet';
import { typedText } from './text';

/** Longest take that is kept, in seconds, and its largest file: five minutes of what is listened to. */
export const longestTakeSeconds = 300;
export const longestTakeBytes = 14_000_000;
/** Days for which a take can be kept; 0 until it is deleted. */
export const takeDays = [7, 90, 0] as const;
export const usualTakeDays = 90;
/** Remarks that one take can have. */
export const mostRemarks = 40;

/** A click that a take can be played to, in beats a minute. */
export const [slowestClick, fastestClick] = [20, 300];
/** The click that it was played to; absent where there was none. */
const clickSchema = z.number().int().min(slowestClick).max(fastestClick).optional();

/** What was asked for: one change to and fro, a tune or a part of it, or what stands on a sheet. */
export const takeAskedSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('changes'), from: noteIdSchema, to: noteIdSchema }),
  z.strictObject({ kind: z.literal('tune'), tuneId: idSchema, what: z.string().max(40), click: clickSchema }),
  /** A line or a piece that stands on a sheet, by its code. */
  z.strictObject({ kind: z.literal('line'), code: codeSchema, click: clickSchema }),
]);
export type TakeAsked = z.infer<typeof takeAskedSchema>;

/** What somebody says of one moment of a take. */
export const takeRemarkSchema = z.strictObject({
  /** In ms from its beginning. */
  at: z
    .number()
    .int()
    .min(0)
    .max(longestTakeSeconds * 1000),
  text: typedText.trim().min(1, 'Write what is to be said of this moment.').max(300, 'A remark can have at most 300 characters.'),
});
export type TakeRemark = z.infer<typeof takeRemarkSchema>;

const days = z.union([z.literal(7), z.literal(90), z.literal(0)], { error: 'A take is kept for 7 days, for 90 days, or until it is deleted.' });
const placeCount = z.number().int().min(0).max(100_000);

export const takeInputSchema = z.strictObject({
  /** Null for a teacher who recorded themselves; a student's own takes are always the student's. */
  studentId: idSchema.nullable(),
  /** The sound, sent before. */
  soundId: idSchema,
  title: typedText.trim().min(1, 'Say what was played.').max(200, 'A title can have at most 200 characters.'),
  asked: takeAskedSchema,
  model: z.string().min(1).max(60),
  seconds: z.number().int().min(0).max(longestTakeSeconds),
  /** Places that were judged, and how many of them were not as asked, as it was heard then. */
  places: placeCount,
  faulty: placeCount,
  /** What was heard, in a sentence or two. */
  text: typedText.max(300),
  keepDays: days.default(usualTakeDays),
  at: momentSchema,
});
export type TakeInput = z.infer<typeof takeInputSchema>;

export const takeSchema = takeInputSchema.omit({ soundId: true, keepDays: true }).extend({
  id: z.string(),
  by: z.enum(['student', 'teacher']),
  remarks: z.array(takeRemarkSchema),
  /** When it goes by itself; null where it stays until it is deleted. */
  keptUntil: z.string().nullable(),
  /** True for a teacher's own that students hear beside theirs: a demonstration. */
  isShown: z.boolean(),
  version: z.number().int(),
});
export type Take = z.infer<typeof takeSchema>;

export const takeSaveSchema = z.strictObject({
  remarks: z.array(takeRemarkSchema).max(mostRemarks, `A take has at most ${mostRemarks} remarks.`),
  /** From now on; absent where it stays as it is. */
  keepDays: days.optional(),
  /** Only of a teacher's own; absent where it stays as it is. */
  isShown: z.boolean().optional(),
  version: z.number().int().min(1),
});
export type TakeSave = z.infer<typeof takeSaveSchema>;

/** In base64, four signs hold three bytes. */
const longestInText = Math.ceil(longestTakeBytes / 3) * 4;

/** `model` is a sign of the archive, or a built-in instrument; the student a sign, or null for a teacher's own. The tune is null where it is gone for good. */
export const archiveTakeSchema = z.strictObject({
  student: signSchema.nullable(),
  asked: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('changes'), from: noteIdSchema, to: noteIdSchema }),
    z.strictObject({ kind: z.literal('tune'), tune: signSchema.nullable(), what: z.string().max(40), click: clickSchema }),
    z.strictObject({ kind: z.literal('line'), code: codeSchema, click: clickSchema }),
  ]),
  ...takeInputSchema.pick({ title: true, model: true, seconds: true, places: true, faulty: true, text: true, at: true }).shape,
  by: z.enum(['student', 'teacher']),
  remarks: z.array(takeRemarkSchema).max(mostRemarks),
  keptUntil: momentSchema.nullable(),
  isShown: z.boolean(),
  /** A WAV file, in base64. */
  sound: z.base64().max(longestInText),
});
export type ArchiveTake = z.infer<typeof archiveTakeSchema>;

/** Takes that are kept: their sound lies on the studio's server, and goes nowhere without consent. */
export const takeRoutes = {
  takes: route({
    method: 'get',
    path: '/takes',
    summary: 'Takes that are kept, newest first; a student sees the own ones, and of the teachers’ own those that are shown to students',
    who: readers,
    query: pageQuerySchema.extend({
      student: idSchema.optional(),
      /** Those that teachers recorded of themselves. */
      of: z.literal('teachers').optional(),
    }),
    answers: { 200: pageOf(takeSchema) },
  }),
  take: route({ method: 'get', path: '/takes/{id}', summary: 'One take that is kept', who: readers, answers: { 200: takeSchema } }),
  addTakeSound: route({
    method: 'post',
    path: '/takes/sound',
    summary: 'Send the sound of a take (WAV); it is kept for a day unless a take names it. Only where a guardian has agreed',
    who: everyone,
    query: z.object({ student: idSchema.optional() }),
    body: 'sound',
    isStreamed: true,
    answers: { 201: z.object({ id: z.string(), bytes: z.number().int() }) },
  }),
  addTake: route({
    method: 'post',
    path: '/takes',
    summary: 'Keep a take with what was heard in it; only where a guardian has agreed',
    who: everyone,
    body: takeInputSchema,
    answers: { 201: takeSchema },
  }),
  saveTake: route({
    method: 'put',
    path: '/takes/{id}',
    summary: 'Save the remarks on a take, and how long it is kept',
    who: holders,
    body: takeSaveSchema,
    answers: { 200: takeSchema },
  }),
  takeSound: route({
    method: 'get',
    path: '/takes/{id}/sound',
    summary: 'The sound of a take; not where a guardian no longer agrees',
    who: readers,
    answers: { 200: 'sound' },
  }),
  dropTake: route({ method: 'delete', path: '/takes/{id}', summary: 'Delete a take with its sound, for good', who: everyone, answers: { 204: null } }),
  dropTakesOf: route({
    method: 'delete',
    path: '/students/{id}/takes',
    summary: 'Delete all takes of a student, for good',
    who: staff,
    answers: { 200: z.object({ deleted: z.number().int() }) },
  }),
} as const;
