import * as z from 'zod';
import {
  invitationInputSchema,
  invitationSchema,
  linkLookSchema,
  linkSchema,
  linkUseSchema,
  mailSchema,
  resetInputSchema,
  studentLinkSchema,
  studioChangeSchema,
  studioCreateSchema,
  studioSchema,
  teacherRoleSchema,
  teacherSchema,
} from './account';
import { archiveQuerySchema, archiveResultSchema } from './archive';
import { auditEntrySchema } from './audit';
import { pageOf, pageQuerySchema, findSchema } from './page';
import { putAwaySchema } from './put-away';
import { route, type Role } from './route';
import { passwordChangeSchema, sessionSchema, signInSchema } from './session';
import { openedLineSchema, sheetCreateSchema, sheetDetailSchema, sheetListQuerySchema, sheetSaveSchema, sheetSummarySchema } from './sheet';
import { studentInputSchema, studentSaveSchema, studentSchema } from './student';
import { importResultSchema, tuneDetailSchema, tuneInputSchema, tuneListQuerySchema, tuneMoveSchema, tuneSaveSchema, tuneSummarySchema } from './tune';

const owner: readonly Role[] = ['owner'];
const staff: readonly Role[] = ['owner', 'teacher'];
const everyone: readonly Role[] = ['owner', 'teacher', 'student'];
const named = pageQuerySchema.extend({ find: findSchema });

/** Every address of the API. */
export const routes = {
  health: route({
    method: 'get',
    path: '/health',
    summary: 'Whether the server lives',
    who: 'anyone',
    answers: { 200: z.object({ status: z.literal('ok') }) },
  }),
  ready: route({
    method: 'get',
    path: '/ready',
    summary: 'Whether the server can work: its database answers',
    who: 'anyone',
    answers: { 200: z.object({ status: z.literal('ready') }) },
  }),
  description: route({
    method: 'get',
    path: '/openapi.json',
    summary: 'This description',
    who: 'anyone',
    answers: { 200: z.looseObject({ openapi: z.string() }) },
  }),

  session: route({ method: 'get', path: '/session', summary: 'Who sits here, and the token for writes', who: 'anyone', answers: { 200: sessionSchema } }),
  signIn: route({ method: 'post', path: '/session', summary: 'Sign in', who: 'anyone', body: signInSchema, answers: { 200: sessionSchema } }),
  signOut: route({ method: 'delete', path: '/session', summary: 'Sign out', who: 'anyone', answers: { 200: sessionSchema } }),
  createStudio: route({
    method: 'post',
    path: '/studios',
    summary: 'Create a studio and sign in as its owner',
    who: 'anyone',
    body: studioCreateSchema,
    answers: { 201: sessionSchema },
  }),
  askReset: route({
    method: 'post',
    path: '/account/reset',
    summary: 'Ask for a link that sets a new password; the answer is the same whether such an account is here or not',
    who: 'anyone',
    body: resetInputSchema,
    answers: { 204: null },
  }),
  lookAtLink: route({
    method: 'post',
    path: '/links/look',
    summary: 'What a one-time link is for',
    who: 'anyone',
    body: linkLookSchema,
    answers: { 200: linkSchema },
  }),
  takeLink: route({
    method: 'post',
    path: '/links/take',
    summary: 'Use a one-time link: join a studio, set a new password, or open a student’s own pages',
    who: 'anyone',
    body: linkUseSchema,
    answers: { 200: sessionSchema },
  }),
  outbox: route({
    method: 'get',
    path: '/outbox',
    summary: 'What would be mailed, newest first; on the server’s own computer only',
    who: 'anyone',
    query: pageQuerySchema,
    answers: { 200: pageOf(mailSchema) },
  }),

  changePassword: route({
    method: 'put',
    path: '/account/password',
    summary: 'Set a new password; sessions on other computers end',
    who: staff,
    body: passwordChangeSchema,
    answers: { 204: null },
  }),
  endSessions: route({ method: 'delete', path: '/account/sessions', summary: 'Sign out on all computers', who: staff, answers: { 204: null } }),

  renameStudio: route({ method: 'put', path: '/studio', summary: 'Rename the studio', who: owner, body: studioChangeSchema, answers: { 200: studioSchema } }),
  teachers: route({ method: 'get', path: '/teachers', summary: 'Who teaches here', who: staff, answers: { 200: z.array(teacherSchema) } }),
  setTeacherRole: route({
    method: 'put',
    path: '/teachers/{id}',
    summary: 'Make a teacher an owner, or an owner a teacher',
    who: owner,
    body: teacherRoleSchema,
    answers: { 200: teacherSchema },
  }),
  removeTeacher: route({ method: 'delete', path: '/teachers/{id}', summary: 'Remove a teacher; their sessions end', who: owner, answers: { 204: null } }),
  invitations: route({
    method: 'get',
    path: '/invitations',
    summary: 'Invitations that nobody has used yet',
    who: owner,
    answers: { 200: z.array(invitationSchema) },
  }),
  invite: route({
    method: 'post',
    path: '/invitations',
    summary: 'Invite a teacher by a one-time link',
    who: owner,
    body: invitationInputSchema,
    answers: { 201: invitationSchema },
  }),
  withdrawInvitation: route({ method: 'delete', path: '/invitations/{id}', summary: 'Withdraw an invitation', who: owner, answers: { 204: null } }),
  audit: route({
    method: 'get',
    path: '/audit',
    summary: 'Who changed what, newest first',
    who: owner,
    query: pageQuerySchema.extend({ find: findSchema, kind: auditEntrySchema.shape.kind.optional() }),
    answers: { 200: pageOf(auditEntrySchema) },
  }),
  takeArchive: route({ method: 'get', path: '/archive', summary: 'The whole studio as one file', who: owner, answers: { 200: 'zip' } }),
  bringArchive: route({
    method: 'post',
    path: '/archive',
    summary: 'Bring in a whole studio; what was there is put away first where that is asked for',
    who: owner,
    query: archiveQuerySchema,
    body: 'zip',
    answers: { 200: archiveResultSchema },
  }),

  students: route({ method: 'get', path: '/students', summary: 'The students by alias', who: staff, query: named, answers: { 200: pageOf(studentSchema) } }),
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
  bringStudentBack: route({ method: 'post', path: '/students/{id}/restore', summary: 'Bring a student back', who: staff, answers: { 204: null } }),
  linkForStudent: route({
    method: 'post',
    path: '/students/{id}/link',
    summary: 'A one-time link that opens a student’s own pages on their tablet',
    who: staff,
    answers: { 201: studentLinkSchema },
  }),

  tunes: route({
    method: 'get',
    path: '/tunes',
    summary: 'The tunes by title',
    who: staff,
    query: tuneListQuerySchema,
    answers: { 200: pageOf(tuneSummarySchema) },
  }),
  tune: route({ method: 'get', path: '/tunes/{id}', summary: 'One tune with its text', who: staff, answers: { 200: tuneDetailSchema } }),
  bringTunes: route({
    method: 'post',
    path: '/tunes/import',
    summary: 'Bring in an ABC file: what can be read is saved, what cannot is named with its faults (201 where anything was saved)',
    who: staff,
    body: 'abc',
    answers: { 200: importResultSchema, 201: importResultSchema },
  }),
  saveTune: route({
    method: 'put',
    path: '/tunes/{id}',
    summary: 'Save the text of a tune; a text that cannot be read is not saved and its faults come back',
    who: staff,
    body: tuneInputSchema,
    answers: { 200: tuneSaveSchema },
  }),
  moveTune: route({
    method: 'post',
    path: '/tunes/{id}/move',
    summary: 'Move a tune to another key',
    who: staff,
    body: tuneMoveSchema,
    answers: { 200: tuneSaveSchema },
  }),
  putTuneAway: route({ method: 'delete', path: '/tunes/{id}', summary: 'Put a tune away', who: staff, answers: { 204: null } }),
  bringTuneBack: route({ method: 'post', path: '/tunes/{id}/restore', summary: 'Bring a tune back', who: staff, answers: { 204: null } }),

  sheets: route({
    method: 'get',
    path: '/sheets',
    summary: 'The sheets, changed last first; a student sees the own ones',
    who: everyone,
    query: sheetListQuerySchema,
    answers: { 200: pageOf(sheetSummarySchema) },
  }),
  addSheet: route({ method: 'post', path: '/sheets', summary: 'Add a sheet', who: staff, body: sheetCreateSchema, answers: { 201: sheetDetailSchema } }),
  sheet: route({ method: 'get', path: '/sheets/{id}', summary: 'One sheet with its lines', who: everyone, answers: { 200: sheetDetailSchema } }),
  saveSheet: route({
    method: 'put',
    path: '/sheets/{id}',
    summary: 'Save a sheet; 409 where it was changed after it was read',
    who: staff,
    body: sheetSaveSchema,
    answers: { 200: sheetDetailSchema },
  }),
  linesOfSheet: route({ method: 'get', path: '/sheets/{id}/lines.abc', summary: 'The lines of a sheet as ABC', who: everyone, answers: { 200: 'abc' } }),
  putSheetAway: route({ method: 'delete', path: '/sheets/{id}', summary: 'Put a sheet away', who: staff, answers: { 204: null } }),
  bringSheetBack: route({ method: 'post', path: '/sheets/{id}/restore', summary: 'Bring a sheet back', who: staff, answers: { 204: null } }),
  lineByCode: route({
    method: 'get',
    path: '/lines/{code}',
    summary: 'A line by the code printed beside it',
    who: everyone,
    answers: { 200: openedLineSchema },
  }),

  putAway: route({
    method: 'get',
    path: '/put-away',
    summary: 'What can be brought back, newest first',
    who: staff,
    query: pageQuerySchema,
    answers: { 200: pageOf(putAwaySchema) },
  }),
  forgetStudent: route({
    method: 'delete',
    path: '/put-away/students/{id}',
    summary: 'Delete a student and all that is theirs for good',
    who: staff,
    answers: { 204: null },
  }),
} as const;
