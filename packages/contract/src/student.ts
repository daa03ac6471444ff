import { movementIdSchema } from '@zelpit/core/movement';
import * as z from 'zod';
import { versionSchema } from './version';
import { typedText } from './text';
import { studentLinkSchema } from './account';
import { findSchema, pageOf, pageQuerySchema } from './page';
import { bringBackRoute, route, staff } from './route';
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

/** A student is known by an alias; nothing else is asked. */
export const studentInputSchema = z.strictObject({
  alias: typedText.trim().min(1, 'Enter a name or an alias.').max(60, 'An alias can have at most 60 characters.'),
  consent: consentSchema.nullable().optional(),
  /** Movements that the student has, by their ids; left as they are where nothing is said. */
  movements: studentMovementsSchema.optional(),
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
  version: z.number().int(),
});
export type Student = z.infer<typeof studentSchema>;

/** A student in an archive. */
export const archiveStudentSchema = z.strictObject({
  ...{ sign: signSchema, alias: typedText.min(1).max(60), consent: consentSchema.nullable() },
  movements: studentMovementsSchema.default([]),
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
    who: staff,
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
  tablets: route({
    method: 'get',
    path: '/students/{id}/tablets',
    summary: 'Where a student is signed in',
    who: staff,
    answers: { 200: z.array(tabletSchema) },
  }),
  endTablet: route({ method: 'delete', path: '/tablets/{id}', summary: 'Sign a student out on one tablet', who: staff, answers: { 204: null } }),
} as const;
