import { longestTitle } from '@zelpit/core/practice';
import * as z from 'zod';
import { momentSchema, signSchema } from './archive-sign';
import { idSchema } from './problem';
import { holders, route, staff } from './route';
import { typedText } from './text';
import { versionSchema } from './version';

const dayText = z.iso.date('A day is written as 2026-12-01.');
const timeText = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time is written as 16:00.');

/** So many days of lessons are asked for at once. */
export const mostLessonDays = 62;

/** Something that is planned for a lesson: an item of a sheet, or a thing of its own. */
export const planItemSchema = z.strictObject({
  /** The item of a sheet that it is; null for none. */
  itemId: idSchema.nullable(),
  title: typedText.trim().min(1, 'Say what is planned.').max(longestTitle, `A title can have at most ${longestTitle} characters.`),
  kind: z.enum(['line', 'scale', 'movement', 'chunk', 'part', 'tune', 'words']),
  /** The instrument that it is played on. */
  model: z.string().min(1).max(60),
  /** Beats a minute; null for an own pace. */
  tempo: z.number().int().min(10).max(400).nullable(),
  times: z.number().int().min(1).max(100),
});
export type PlanItem = z.infer<typeof planItemSchema>;

const lessonShape = {
  /** The day and the time by the clock of the studio; of a weekly lesson the first one. */
  on: dayText,
  time: timeText,
  minutes: z.number().int().min(5, 'A lesson lasts at least five minutes.').max(240, 'A lesson lasts at most four hours.'),
  repeats: z.enum(['once', 'weekly']),
  /** The last day of a weekly lesson; null for no end. */
  until: dayText.nullable(),
  note: typedText.max(2000, 'A note can have at most 2 000 characters.'),
};

export const lessonInputSchema = z.strictObject({ studentId: idSchema, ...lessonShape });
export type LessonInput = z.infer<typeof lessonInputSchema>;
export const lessonSaveSchema = z.strictObject({
  ...lessonShape,
  plan: z.array(planItemSchema).max(50, 'At most 50 things can be planned for a lesson.'),
  version: versionSchema,
});

export const lessonSchema = lessonInputSchema.extend({
  id: z.string(),
  /** The weekly lesson that this one was; null for none. */
  weeklyId: z.string().nullable(),
  student: z.string(),
  plan: z.array(planItemSchema),
  begunAt: z.string().nullable(),
  endedAt: z.string().nullable(),
  /** The review that was begun after it; null for none. */
  review: z.object({ id: z.string(), sentAt: z.string().nullable() }).nullable(),
  version: z.number().int(),
});
export type Lesson = z.infer<typeof lessonSchema>;

/** Without days it is the week that begins today. */
export const lessonQuerySchema = z.object({ from: dayText.optional(), to: dayText.optional(), student: idSchema.optional() });

/** A lesson in an archive; `weekly` is the sign of the weekly lesson that it was. */
export const archiveLessonSchema = z.strictObject({
  sign: signSchema,
  student: signSchema,
  weekly: signSchema.nullable(),
  ...lessonShape,
  plan: z.array(planItemSchema.omit({ itemId: true })).max(50),
  begun: momentSchema.nullable(),
  ended: momentSchema.nullable(),
});

/** When students come, and what is planned. */
export const lessonRoutes = {
  lessons: route({
    method: 'get',
    path: '/lessons',
    summary: `Lessons of at most ${mostLessonDays} days by day and time; a weekly one stands on each of its days until it is held there`,
    who: holders,
    query: lessonQuerySchema,
    answers: { 200: z.array(lessonSchema) },
  }),
  lesson: route({ method: 'get', path: '/lessons/{id}', summary: 'One lesson', who: holders, answers: { 200: lessonSchema } }),
  addLesson: route({
    method: 'post',
    path: '/lessons',
    summary: 'Set a lesson, once or every week',
    who: staff,
    body: lessonInputSchema,
    answers: { 201: lessonSchema },
  }),
  saveLesson: route({
    method: 'put',
    path: '/lessons/{id}',
    summary: 'Change a lesson and its plan; 409 where it was changed after it was read',
    who: holders,
    body: lessonSaveSchema,
    answers: { 200: lessonSchema },
  }),
  dropLesson: route({
    method: 'delete',
    path: '/lessons/{id}',
    summary: 'Take a lesson out; what was practised in it stays in the log',
    who: staff,
    answers: { 204: null },
  }),
  beginLesson: route({
    method: 'post',
    path: '/lessons/{id}/begin',
    summary: 'Begin a lesson on a day: its plan is what stands on the student’s last sheet, unless one was made. Begun before, it goes on',
    who: holders,
    body: z.strictObject({ on: dayText }),
    answers: { 200: lessonSchema },
  }),
  endLesson: route({
    method: 'post',
    path: '/lessons/{id}/end',
    summary: 'End a lesson',
    who: holders,
    body: z.strictObject({}),
    answers: { 200: lessonSchema },
  }),
} as const;
