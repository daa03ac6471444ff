import * as z from 'zod';
import { newPasswordSchema, passwordChangeSchema, sessionSchema } from './session';
import { idSchema } from './problem';
import { typedText } from './text';
import { pageOf, pageQuerySchema } from './page';
import { holders, owner, route, staff } from './route';

const personName = typedText.trim().min(1, 'Enter a name.').max(80, 'A name can have at most 80 characters.');
const studioName = typedText.trim().min(1, 'Enter a name for the studio.').max(80, 'The name of a studio can have at most 80 characters.');
const newEmail = typedText.trim().toLowerCase().max(200).pipe(z.email('That is not an e-mail address.'));

/** A new studio and its owner. */
export const studioCreateSchema = z.strictObject({ studio: studioName, name: personName, email: newEmail, password: newPasswordSchema });
export type StudioCreate = z.infer<typeof studioCreateSchema>;

export const studioChangeSchema = z.strictObject({ name: studioName });
export const studioSchema = z.object({ id: z.string(), name: z.string() });

/** What somebody may do who teaches in a studio; a substitute reads and holds lessons. */
export const memberRole = z.enum(['owner', 'teacher', 'substitute']);
export type MemberRole = z.infer<typeof memberRole>;

export const teacherSchema = z.object({ id: z.string(), name: z.string(), email: z.string(), role: memberRole });
export type Teacher = z.infer<typeof teacherSchema>;

/** A studio that somebody teaches in. */
export const ownStudioSchema = z.object({ id: z.string(), name: z.string(), role: memberRole });
export type OwnStudio = z.infer<typeof ownStudioSchema>;
export const studioOpenSchema = z.strictObject({ id: idSchema });

export const teacherRoleSchema = z.strictObject({ role: memberRole });

export const invitationInputSchema = z.strictObject({ name: personName, email: newEmail });
export type InvitationInput = z.infer<typeof invitationInputSchema>;
export const invitationSchema = z.object({ id: z.string(), name: z.string(), email: z.string(), until: z.string() });
export type Invitation = z.infer<typeof invitationSchema>;
/** One that was just made: its link, which is shown once, for handing over without mail. */
export const newInvitationSchema = invitationSchema.extend({ address: z.string() });
export type NewInvitation = z.infer<typeof newInvitationSchema>;

export const resetInputSchema = z.strictObject({ email: newEmail });

/** How long the links hold, in days; a reset in hours. */
export const invitationDays = 7;
export const resetHours = 2;

const incomplete = 'This link is incomplete. Copy the whole of it, or ask for a new one.';
const linkToken = z.string().min(20, incomplete).max(100, incomplete);
export const linkLookSchema = z.strictObject({ token: linkToken });

/** What a one-time link is for. */
export const linkSchema = z.object({
  purpose: z.enum(['invitation', 'reset', 'student', 'parent', 'door']),
  studio: z.string(),
  /** Of whom it is for: the invited name, the teacher's, the student's alias. */
  name: z.string(),
  /** Empty for a student. */
  email: z.string(),
});
export type Link = z.infer<typeof linkSchema>;

/** So many digits has the code of a student's private link. */
export const doorDigits = 6;

/** Using a link: a name and a password for an invitation, a password for a reset, the code for a private link, nothing for a student or a parent. */
export const linkUseSchema = z.strictObject({
  token: linkToken,
  name: personName.optional(),
  password: newPasswordSchema.optional(),
  code: z
    .string()
    .trim()
    .regex(new RegExp(`^\\d{${doorDigits}}$`), `The code has ${doorDigits} digits.`)
    .optional(),
});
export type LinkUse = z.infer<typeof linkUseSchema>;

/** A link for a student's own tablet, shown once. */
export const studentLinkSchema = z.object({ address: z.string(), until: z.string() });
export type StudentLink = z.infer<typeof studentLinkSchema>;

/** A student's private link and the code that goes with it, shown once. It opens again and again until it is ended. */
export const doorSchema = studentLinkSchema.extend({ code: z.string() });
export type Door = z.infer<typeof doorSchema>;

/** A mail that was not sent: it waits in the outbox. */
export const mailSchema = z.object({ id: z.string(), to: z.string(), subject: z.string(), body: z.string(), at: z.string() });
export type Mail = z.infer<typeof mailSchema>;

/** `bytes` is null until they were counted for the first time. */
export const studioRoomSchema = z.object({ bytes: z.number().nullable(), most: z.number() });
export type StudioRoomShown = z.infer<typeof studioRoomSchema>;

/** Accounts, one-time links, and who teaches in a studio. */
export const accountRoutes = {
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
    summary: 'The outbox, newest first; on the server’s own computer only',
    who: 'anyone',
    query: pageQuerySchema,
    answers: { 200: pageOf(mailSchema) },
  }),
  changePassword: route({
    method: 'put',
    path: '/account/password',
    summary: 'Set a new password; sessions on other computers end',
    who: holders,
    body: passwordChangeSchema,
    answers: { 204: null },
  }),
  endSessions: route({ method: 'delete', path: '/account/sessions', summary: 'Sign out on all computers', who: holders, answers: { 204: null } }),
  ownStudios: route({ method: 'get', path: '/studios', summary: 'The studios that you teach in', who: holders, answers: { 200: z.array(ownStudioSchema) } }),
  openStudio: route({
    method: 'put',
    path: '/session/studio',
    summary: 'Open another studio that you teach in',
    who: holders,
    body: studioOpenSchema,
    answers: { 204: null },
  }),
  keepInHand: route({
    method: 'put',
    path: '/in-hand',
    summary: 'Keep which student and which tune is in hand, for the next visit and other devices; what is not named stays',
    who: holders,
    body: z.strictObject({ student: idSchema.nullable().optional(), tune: idSchema.nullable().optional() }),
    answers: { 204: null },
  }),
  renameStudio: route({ method: 'put', path: '/studio', summary: 'Rename the studio', who: owner, body: studioChangeSchema, answers: { 200: studioSchema } }),
  studioRoom: route({
    method: 'get',
    path: '/studio/room',
    summary: 'How many bytes the studio keeps, as they were counted last, and how many it may',
    who: staff,
    answers: { 200: studioRoomSchema },
  }),
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
    answers: { 201: newInvitationSchema },
  }),
  withdrawInvitation: route({ method: 'delete', path: '/invitations/{id}', summary: 'Withdraw an invitation', who: owner, answers: { 204: null } }),
} as const;
