import { noteIdSchema } from '@zelpit/core/fingering';
import * as z from 'zod';
import { pageOf, pageQuerySchema } from './page';
import { idSchema } from './problem';
import { everyone, readers, route, staff } from './route';
import { momentSchema, signSchema } from './archive-sign';

const fingerId = z.string().regex(/^(RT|T|[LR]\d)$/, 'A finger is written T, RT, L1 to L4 or R1 to R4.');
const ms = z.number().min(-2000).max(2000);
const deviation = z.number().min(0).max(200);
const count = z.number().int().min(0).max(10_000);
const estimate = z.strictObject({ value: ms, error: z.number().min(0).max(2000) });

/** The timing of one player, as the timing model takes it. */
export const timingSchema = z.strictObject({
  sigma: deviation,
  sigmaOf: z.record(fingerId, deviation).optional(),
  biasOf: z.record(fingerId, ms).optional(),
  rho: z.number().min(0).max(1),
  lead: z.number().min(-200).max(200),
});

/** A change that was played by fingers on keys or on the screen, and what it shows of the player's timing. */
export const fingersTrialSchema = z.strictObject({
  kind: z.literal('fingers'),
  from: noteIdSchema,
  to: noteIdSchema,
  /** Changes played, and how many of them had each verdict. */
  verdicts: z.strictObject({ clean: count, low: count, run: count, 'over-open': count }),
  /** Mean length of what was heard between, in ms. */
  meanMs: z.number().min(0).max(60_000),
  /** Null where too few were played. */
  timing: timingSchema.nullable(),
  fingers: z.array(z.strictObject({ finger: fingerId, bias: estimate, sigma: estimate, count })).max(12),
  /** True where the timing is to be used for this player from now on. */
  isTaken: z.boolean(),
});

/** A blind test of one change: the length of fault that the ear just tells, between two bounds. */
export const earTrialSchema = z.strictObject({
  kind: z.literal('ear'),
  from: noteIdSchema,
  to: noteIdSchema,
  thresholdMs: z.number().min(0).max(1000),
  lowMs: z.number().min(0).max(1000),
  highMs: z.number().min(0).max(1000),
  right: count,
  asked: count,
});

/** Faults found in what a simulated student played. */
export const faultHuntSchema = z.strictObject({
  kind: z.literal('fault-hunt'),
  title: z.string().min(1).max(200),
  faults: count,
  found: count,
  wronglyNamed: count,
});

/** Bars that were said to break first, before a tune was tried the first time, and what came of them and of the others. */
export const foretoldTrialSchema = z
  .strictObject({
    kind: z.literal('foretold'),
    title: z.string().min(1).max(200),
    bars: count,
    broke: count,
    others: count,
    othersBroke: count,
  })
  .refine(({ bars, broke, others, othersBroke }) => broke <= bars && othersBroke <= others, { error: 'No more bars can break than were played.' });

export const trialInputSchema = z.strictObject({
  /** Null for a teacher who tries it; a student's own trials are always the student's. */
  studentId: idSchema.nullable(),
  model: z.string().min(1).max(60),
  result: z.discriminatedUnion('kind', [fingersTrialSchema, earTrialSchema, faultHuntSchema, foretoldTrialSchema]),
});
export type TrialInput = z.infer<typeof trialInputSchema>;
export type TrialResult = TrialInput['result'];

export const trialSchema = trialInputSchema.extend({ id: z.string(), at: z.string() });
export type Trial = z.infer<typeof trialSchema>;

export const trialQuerySchema = pageQuerySchema.extend({
  student: idSchema.optional(),
  kind: z.enum(['fingers', 'ear', 'fault-hunt', 'foretold']).optional(),
  /** Only those whose measured timing was taken for the player. */
  taken: z.literal('true').optional(),
});

/** `model` is a sign of this archive, or a built-in instrument; the student a sign, or null for a teacher who tried it. */
export const archiveTrialSchema = z.strictObject({
  student: signSchema.nullable(),
  model: z.string().min(1).max(60),
  result: trialInputSchema.shape.result,
  at: momentSchema,
});

/** What was played, heard and found. */
export const trialRoutes = {
  trials: route({
    method: 'get',
    path: '/trials',
    summary: 'What was played on keys, heard in ear tests, found in simulated playing and foretold of takes, newest first; a student sees the own ones',
    who: readers,
    query: trialQuerySchema,
    answers: { 200: pageOf(trialSchema) },
  }),
  addTrial: route({
    method: 'post',
    path: '/trials',
    summary: 'Keep the result of a trial; a student’s own are always the student’s',
    who: everyone,
    body: trialInputSchema,
    answers: { 201: trialSchema },
  }),
  dropTrial: route({ method: 'delete', path: '/trials/{id}', summary: 'Delete the result of a trial', who: staff, answers: { 204: null } }),
} as const;
