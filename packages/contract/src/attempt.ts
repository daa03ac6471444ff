import * as z from 'zod';
import { momentSchema, signSchema } from './archive-sign';
import { pageOf, pageQuerySchema } from './page';
import { idSchema } from './problem';
import { everyone, readers, route, holders } from './route';
import { typedText } from './text';

/** How a try went, in a teacher's words; a try that nobody judged raises nothing. */
export const attemptRatings = ['clean', 'nearly', 'not-yet', 'unjudged'] as const;
export type AttemptRating = (typeof attemptRatings)[number];

/** The remark on every try of the demo's log, which a model of learning wrote. */
export const madeUpNote = 'made up by a model of learning';

const tempo = z.number().int().min(10, 'A tempo is at least 10 beats a minute.').max(400, 'A tempo is at most 400 beats a minute.');

/** A climb in tempos: what was played on it, in its order. */
export const attemptLadderSchema = z.strictObject({
  start: tempo,
  step: z.number().int().min(1).max(60),
  ceiling: tempo,
  rungs: z.array(z.strictObject({ tempo, rating: z.enum(['clean', 'nearly', 'slip', 'unjudged']) })).max(200, 'A ladder has at most 200 rungs.'),
});

export const attemptInputSchema = z.strictObject({
  studentId: idSchema,
  /** Which item of a sheet it was; null for something that stands on none. */
  itemId: idSchema.nullable(),
  /** In which lesson it was; null at home. */
  lessonId: idSchema.nullable().default(null),
  /** What it was called then: a log outlives the sheet. */
  title: typedText.trim().min(1, 'Say what was practised.').max(200, 'A title can have at most 200 characters.'),
  kind: z.enum(['line', 'scale', 'movement', 'chunk', 'part', 'tune', 'words']),
  model: z.string().min(1).max(60),
  /** Beats a minute; null for an own pace. */
  tempo: tempo.nullable(),
  /** Times through that were played. */
  count: z.number().int().min(0).max(1000),
  rating: z.enum(attemptRatings),
  ladder: attemptLadderSchema.nullable(),
  seconds: z.number().int().min(0).max(86_400, 'One try lasts a day at most.'),
  device: z.enum(['phone', 'tablet', 'desk']),
  note: typedText.max(300, 'A remark can have at most 300 characters.'),
  /** When it began, by the clock of the device; what was practised without the server comes later. */
  at: momentSchema,
});
export type AttemptInput = z.infer<typeof attemptInputSchema>;

export const attemptCorrectionInputSchema = z.strictObject({
  rating: z.enum(attemptRatings),
  note: typedText.max(300, 'A remark can have at most 300 characters.').default(''),
});

export const attemptSchema = attemptInputSchema.extend({
  id: z.string(),
  /** Who judged it: a student alone is an own ear. */
  by: z.enum(['student', 'teacher']),
  /** The last correction; what was logged first stays as it is. */
  correction: z.object({ rating: z.enum(attemptRatings), note: z.string(), who: z.string(), at: z.string() }).nullable(),
});
export type Attempt = z.infer<typeof attemptSchema>;

export const attemptQuerySchema = pageQuerySchema.extend({
  student: idSchema.optional(),
  item: idSchema.optional(),
  lesson: idSchema.optional(),
  /** Only what was called so. */
  title: z.string().max(200).optional(),
  /** Only what began at this moment or later. */
  since: momentSchema.optional(),
});

/** An attempt in an archive, with its corrections, the oldest first. */
export const archiveAttemptSchema = z.strictObject({
  student: signSchema,
  attempt: attemptInputSchema.omit({ studentId: true, itemId: true, lessonId: true }),
  by: z.enum(['student', 'teacher']),
  corrections: z.array(attemptCorrectionInputSchema.extend({ who: z.string().max(200), at: momentSchema })).max(1000),
});

const moment = z.number();
const tempoOrNone = z.number().nullable();
/** A logbook: what the log says, worked out. Moments are in ms. */
export const logbookSchema = z.object({
  items: z.array(
    z.object({
      ...{ item: z.string(), title: z.string(), kind: z.string(), tries: z.number().int(), clean: z.number().int() },
      /** Fastest clean tempo in beats a minute; absent where none was judged so. */
      best: z.number().optional(),
      isOwnEar: z.boolean(),
      weeks: z.array(z.object({ week: moment, best: z.number() })),
      lastAt: moment,
      isStale: z.boolean(),
      /** Of the judged tries of the last three weeks. */
      recent: z.object({ judged: z.number().int(), clean: z.number().int() }),
    }),
  ),
  days: z.array(z.object({ day: moment, minutes: z.number().int() })),
  ladders: z.array(z.object({ title: z.string(), at: moment, start: z.number(), ceiling: z.number(), score: tempoOrNone, slip: tempoOrNone })),
});

export const logbookQuerySchema = z.object({
  /** Whose; a student's and a parent's is always their own. */
  student: idSchema.optional(),
  /** Only what began at this moment or later. */
  since: momentSchema.optional(),
  days: z.coerce.number().int().min(1).max(400).default(28),
  /** By how much the clock of who reads is ahead of UTC, in minutes. */
  offset: z.coerce.number().int().min(-900).max(900).default(0),
});

/** What was practised, when, and how it went. */
export const attemptRoutes = {
  attempts: route({
    method: 'get',
    path: '/attempts',
    summary: 'What was practised, newest first, each with its last correction; a student sees the own ones',
    who: readers,
    query: attemptQuerySchema,
    answers: { 200: pageOf(attemptSchema) },
  }),
  logbook: route({
    method: 'get',
    path: '/logbook',
    summary: 'What the log of one student says: fastest clean tempos by week, minutes by day, climbs, what is how often clean',
    who: readers,
    query: logbookQuerySchema,
    answers: { 200: logbookSchema },
  }),
  addAttempt: route({
    method: 'post',
    path: '/attempts',
    summary: 'Log a try; a student’s own are always the student’s. Nothing in the log is changed later',
    who: everyone,
    body: attemptInputSchema,
    answers: { 201: attemptSchema },
  }),
  correctAttempt: route({
    method: 'post',
    path: '/attempts/{id}/correction',
    summary: 'Judge a try otherwise; the correction is kept beside it',
    who: holders,
    body: attemptCorrectionInputSchema,
    answers: { 200: attemptSchema },
  }),
} as const;
