import { movementIdSchema } from '@zelpit/core/movement';
import * as z from 'zod';
import { versionSchema } from './version';
import { typedText } from './text';
import { doorSchema, studentLinkSchema } from './account';
import { dayMinutesSchema } from './review';
import { findSchema, pageOf, pageQuerySchema } from './page';
import { bringBackRoute, holders, route, staff } from './route';
import { archiveDates, signSchema } from './archive-sign';

/** What a guardian agreed to, as the teacher wrote it down. */
export const consentSchema = z.strictObject({
  guardian: typedText.trim().min(1, 'Enter the guardian who agreed.').max(120, 'At most 120 characters for the guardian.'),
  /** Day, as 2026-03-09. */
  on: z.iso.date('Enter the date.'),
  covers: typedText.trim().min(1, 'Enter what the guardian agreed to.').max(300, 'At most 300 characters for what it covers.'),
});
export type Consent = z.infer<typeof consentSchema>;

export const studentMovementsSchema = z.array(movementIdSchema).max(200, 'At most 200 movements.');

/** How far a student is. */
export const levels = ['beginner', 'growing', 'sure'] as const;
export type Level = (typeof levels)[number];

/** Classes and bands that a student plays in, by name. */
export const groupsSchema = z
  .array(typedText.trim().min(1, 'A group has a name.').max(40, 'The name of a group can have at most 40 characters.'))
  .max(10, 'A student can be in at most 10 groups.')
  .refine((names) => new Set(names).size === names.length, 'The same group stands there twice.');

/** A day of practice where nothing else is said. */
export const usualDayMinutes = 20;

const mailTo = z.email('That is not an e-mail address.').max(200).nullable();

/** A student is known by an alias; nothing else has to be said. */
export const studentInputSchema = z.strictObject({
  alias: typedText.trim().min(1, 'Enter a name or an alias.').max(60, 'An alias can have at most 60 characters.'),
  consent: consentSchema.nullable().optional(),
  /** Movements that the student has, by their ids; left as they are where nothing is said. */
  movements: studentMovementsSchema.optional(),
  level: z.enum(levels).nullable().optional(),
  /** Minutes that the student can practise on a day. */
  dayMinutes: dayMinutesSchema.optional(),
  /** Where reviews go by mail: a grown-up’s address, never a child’s. */
  mailTo: mailTo.optional(),
  groups: groupsSchema.optional(),
});
export type StudentInput = z.infer<typeof studentInputSchema>;

/** `version` is the one that was read; a later one in the database refuses the save. */
export const studentSaveSchema = studentInputSchema.extend({ version: versionSchema });
export type StudentSave = z.infer<typeof studentSaveSchema>;

export const studentSchema = z.object({
  id: z.string(),
  alias: z.string(),
  consent: consentSchema.nullable(),
  movements: studentMovementsSchema,
  level: z.enum(levels).nullable(),
  dayMinutes: z.number().int(),
  mailTo: z.string().nullable(),
  groups: z.array(z.string()),
  version: z.number().int(),
});
export type Student = z.infer<typeof studentSchema>;

/** A student in an archive. */
export const archiveStudentSchema = z.strictObject({
  ...{ sign: signSchema, alias: typedText.min(1).max(60), consent: consentSchema.nullable() },
  movements: studentMovementsSchema.default([]),
  level: z.enum(levels).nullable().default(null),
  dayMinutes: dayMinutesSchema.default(usualDayMinutes),
  mailTo: mailTo.default(null),
  groups: groupsSchema.default([]),
  ...archiveDates,
});

/** Students. */
/** A tablet, or another device, on which a student is signed in. */
export const tabletSchema = z.object({ id: z.string(), since: z.string() });
export type Tablet = z.infer<typeof tabletSchema>;

export const studentRoutes = {
  students: route({
    method: 'get',
    path: '/students',
    summary: 'The students by alias',
    who: holders,
    query: pageQuerySchema.extend({ find: findSchema }),
    answers: { 200: pageOf(studentSchema) },
  }),
  addStudent: route({ method: 'post', path: '/students', summary: 'Add a student', who: staff, body: studentInputSchema, answers: { 201: studentSchema } }),
  saveStudent: route({
    method: 'put',
    path: '/students/{id}',
    summary: 'Save a student’s alias and the guardian’s consent',
    who: staff,
    body: studentSaveSchema,
    answers: { 200: studentSchema },
  }),
  putStudentAway: route({ method: 'delete', path: '/students/{id}', summary: 'Put a student away', who: staff, answers: { 204: null } }),
  bringStudentBack: bringBackRoute('student'),
  linkForStudent: route({
    method: 'post',
    path: '/students/{id}/link',
    summary: 'A one-time link that opens a student’s own pages on their tablet',
    who: staff,
    answers: { 201: studentLinkSchema },
  }),
  linkForParent: route({
    method: 'post',
    path: '/students/{id}/parent-link',
    summary: 'A one-time link that shows a parent what was asked and done',
    who: staff,
    answers: { 201: studentLinkSchema },
  }),
  doorForStudent: route({
    method: 'post',
    path: '/students/{id}/door',
    summary: 'A private link with a short code that opens a student’s own pages again and again; one made before ends',
    who: staff,
    answers: { 201: doorSchema },
  }),
  endDoor: route({ method: 'delete', path: '/students/{id}/door', summary: 'End a student’s private link', who: staff, answers: { 204: null } }),
  tablets: route({
    method: 'get',
    path: '/students/{id}/tablets',
    summary: 'Where a student is signed in',
    who: staff,
    answers: { 200: z.array(tabletSchema) },
  }),
  endTablet: route({ method: 'delete', path: '/tablets/{id}', summary: 'Sign a student out on one tablet', who: staff, answers: { 204: null } }),
} as const;
