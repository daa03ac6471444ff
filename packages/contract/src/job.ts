import { noteIdSchema } from '@zelpit/core/fingering';
import * as z from 'zod';
import { archiveQuerySchema, archiveResultSchema } from './archive';
import { momentSchema } from './archive-sign';
import { idSchema } from './problem';
import { owner, route, staff } from './route';
import { typedText } from './text';
import { importResultSchema, tuneImportQuerySchema } from './tune';

/** Long work that the server does by itself: a book of tunes read, a backup written or restored, a long take listened to. */
export const jobKinds = ['bring-tunes', 'take-archive', 'bring-archive', 'listen'] as const;
export type JobKind = (typeof jobKinds)[number];

/** `failed` says why; `stopped` was ended by whoever began it. */
export const jobStates = ['waiting', 'running', 'done', 'failed', 'stopped'] as const;
export type JobState = (typeof jobStates)[number];

/** Jobs of one studio that may wait, while one of them runs. */
export const mostJobsWaiting = 12;
/** Days for which an ended job and what it gave are kept. */
export const jobDays = 7;

/** Longest take that the server listens to, in seconds, and its largest file: half an hour of what is listened to. */
export const longestLongTakeSeconds = 1800;
export const longestLongTakeBytes = 80_000_000;
/** Places of a long take that are named, the worst first. */
export const mostWorstPlaces = 20;

/** What was asked for in a long take: one change to and fro; or notes in the order of playing, as often as they are played. */
export const longTakeAskedSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('changes'), from: noteIdSchema, to: noteIdSchema }),
  z.strictObject({
    kind: z.literal('piece'),
    notes: z
      .array(
        z.strictObject({
          /** Null for a rest. */
          note: noteIdSchema.nullable(),
          graceNotes: z.array(noteIdSchema).max(40),
          beats: z.number().min(0).max(1000),
          /** True where it goes on from a tied note. */
          isTied: z.boolean(),
          /** Bar as counted aloud, 0 for the lead-in; absent where there are none. */
          bar: z.number().int().min(0).max(100_000).optional(),
          /** What its grace notes are together. */
          movement: z.string().max(60).optional(),
        }),
      )
      .min(1)
      .max(4000, 'At most 4 000 notes can be asked for at once.'),
  }),
]);
export type LongTakeAsked = z.infer<typeof longTakeAskedSchema>;

export const longTakeInputSchema = z.strictObject({
  /** Null for a teacher who recorded themselves. */
  studentId: idSchema.nullable(),
  /** The sound, sent before. */
  soundId: idSchema,
  /** The file that it was: "rehearsal.wav". */
  name: typedText.trim().min(1).max(200),
  model: z.string().min(1).max(60),
  asked: longTakeAskedSchema,
});
export type LongTakeInput = z.infer<typeof longTakeInputSchema>;

/** What was heard in a long take. Its sound is deleted when it was listened to. */
export const longTakeResultSchema = z.object({
  seconds: z.number(),
  /** How far the whole take is from the instrument's own pitch, in cents. */
  tuning: z.number(),
  /** Places that were judged, how many of them were not as asked, and of how many nothing is claimed. */
  places: z.number().int(),
  faulty: z.number().int(),
  unsure: z.number().int(),
  /** The worst first, each with when it is, in ms from the beginning. */
  worst: z.array(z.object({ at: z.number(), text: z.string() })),
});
export type LongTakeResult = z.infer<typeof longTakeResultSchema>;

const jobFields = {
  id: z.string(),
  /** The file that came in, or what is written: "Fell Row book.abc". */
  name: z.string(),
  state: z.enum(jobStates),
  /** How many tunes, things or seconds are done, and of how many; null where that is not known yet. */
  done: z.number().int(),
  of: z.number().int().nullable(),
  begunAt: momentSchema,
  endedAt: momentSchema.nullable(),
  /** Why it failed, in sentences; empty where it did not. */
  problem: z.string(),
};

/** A job; its result is there once it is done. */
export const jobSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('bring-tunes'), ...jobFields, result: importResultSchema.nullable() }),
  /** Its file is fetched by itself. */
  z.object({ kind: z.literal('take-archive'), ...jobFields, result: z.object({ bytes: z.number().int() }).nullable() }),
  z.object({ kind: z.literal('bring-archive'), ...jobFields, result: archiveResultSchema.nullable() }),
  z.object({ kind: z.literal('listen'), ...jobFields, result: longTakeResultSchema.nullable() }),
]);
export type Job = z.infer<typeof jobSchema>;
export type JobResult<K extends JobKind = JobKind> = NonNullable<Extract<Job, { kind: K }>['result']>;

const fileNameSchema = typedText.trim().min(1).max(200);

/** Whoever began a job sees it, ends it and takes what it gave. */
export const jobRoutes = {
  jobs: route({
    method: 'get',
    path: '/jobs',
    summary: 'One’s own long work, the latest first: what is under way, and what has ended and was not taken off the list',
    who: staff,
    answers: { 200: z.object({ items: z.array(jobSchema) }) },
  }),
  job: route({ method: 'get', path: '/jobs/{id}', summary: 'How far a job is, and what it gave', who: staff, answers: { 200: jobSchema } }),
  bringTunesLater: route({
    method: 'post',
    path: '/jobs/tunes',
    summary: 'Bring in a long ABC file: it is kept at once and read afterwards',
    who: staff,
    query: tuneImportQuerySchema.extend({ name: fileNameSchema.default('tunes') }),
    body: 'abc',
    answers: { 202: jobSchema },
  }),
  takeArchive: route({
    method: 'post',
    path: '/jobs/backup',
    summary: 'Write the whole studio into one file, which can be fetched when it is done; with takes only where that is asked for',
    who: owner,
    query: z.object({ takes: z.literal('true').optional() }),
    answers: { 202: jobSchema },
  }),
  bringArchive: route({
    method: 'post',
    path: '/jobs/restore',
    summary: 'Bring in a whole studio; what was there is put away first where that is asked for',
    who: owner,
    query: archiveQuerySchema.extend({ name: fileNameSchema.default('backup.zip') }),
    body: 'zip',
    isStreamed: true,
    answers: { 202: jobSchema },
  }),
  addLongTakeSound: route({
    method: 'post',
    path: '/jobs/listen/sound',
    summary:
      'Send the sound of a long take (WAV, one channel, 16 bits); it is deleted when it was listened to, and within a day. Only where a guardian has agreed',
    who: staff,
    query: z.object({ student: idSchema.optional() }),
    body: 'long-sound',
    isStreamed: true,
    answers: { 201: z.object({ id: z.string(), bytes: z.number().int() }) },
  }),
  listenLater: route({
    method: 'post',
    path: '/jobs/listen',
    summary: 'Listen to a long take, against what was asked for',
    who: staff,
    body: longTakeInputSchema,
    answers: { 202: jobSchema },
  }),
  stopJob: route({ method: 'post', path: '/jobs/{id}/stop', summary: 'End a job; nothing of it is kept', who: staff, answers: { 200: jobSchema } }),
  jobFile: route({ method: 'get', path: '/jobs/{id}/file', summary: 'The file that a job wrote', who: staff, answers: { 200: 'zip' } }),
  forgetJob: route({ method: 'delete', path: '/jobs/{id}', summary: 'Take an ended job off the list, with its file', who: staff, answers: { 204: null } }),
} as const;
