import * as z from 'zod';
import { archiveQuerySchema, archiveResultSchema } from './archive';
import { momentSchema } from './archive-sign';
import { owner, route, staff } from './route';
import { typedText } from './text';
import { importResultSchema, tuneImportQuerySchema } from './tune';

/** Long work that the server does by itself: a book of tunes read, a backup written or restored. */
export const jobKinds = ['bring-tunes', 'take-archive', 'bring-archive'] as const;
export type JobKind = (typeof jobKinds)[number];

/** `failed` says why; `stopped` was ended by whoever began it. */
export const jobStates = ['waiting', 'running', 'done', 'failed', 'stopped'] as const;
export type JobState = (typeof jobStates)[number];

/** Jobs of one studio that may wait, while one of them runs. */
export const mostJobsWaiting = 12;
/** Days for which an ended job and what it gave are kept. */
export const jobDays = 7;

const jobFields = {
  id: z.string(),
  /** The file that came in, or what is written: "Fell Row book.abc". */
  name: z.string(),
  state: z.enum(jobStates),
  /** How many tunes or things are done, and of how many; null where that is not known yet. */
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
  stopJob: route({ method: 'post', path: '/jobs/{id}/stop', summary: 'End a job; nothing of it is kept', who: staff, answers: { 200: jobSchema } }),
  jobFile: route({ method: 'get', path: '/jobs/{id}/file', summary: 'The file that a job wrote', who: staff, answers: { 200: 'zip' } }),
  forgetJob: route({ method: 'delete', path: '/jobs/{id}', summary: 'Take an ended job off the list, with its file', who: staff, answers: { 204: null } }),
} as const;
