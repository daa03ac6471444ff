import * as z from 'zod';
import { newPasswordSchema } from './session';
import { typedText } from './text';

const personName = typedText.trim().min(1, 'A name is missing.').max(80, 'A name has at most 80 characters.');
const studioName = typedText.trim().min(1, 'A name for the studio is missing.').max(80, 'The name of a studio has at most 80 characters.');
const newEmail = typedText.trim().toLowerCase().max(200).pipe(z.email('That is no e-mail address.'));

/** A new studio and its owner. */
export const studioCreateSchema = z.strictObject({ studio: studioName, name: personName, email: newEmail, password: newPasswordSchema });
export type StudioCreate = z.infer<typeof studioCreateSchema>;

export const studioChangeSchema = z.strictObject({ name: studioName });
export const studioSchema = z.object({ id: z.string(), name: z.string() });

export const teacherSchema = z.object({ id: z.string(), name: z.string(), email: z.string(), role: z.enum(['owner', 'teacher']) });
export type Teacher = z.infer<typeof teacherSchema>;

export const teacherRoleSchema = z.strictObject({ role: z.enum(['owner', 'teacher']) });

export const invitationInputSchema = z.strictObject({ name: personName, email: newEmail });
export type InvitationInput = z.infer<typeof invitationInputSchema>;
export const invitationSchema = z.object({ id: z.string(), name: z.string(), email: z.string(), until: z.string() });
export type Invitation = z.infer<typeof invitationSchema>;

export const resetInputSchema = z.strictObject({ email: newEmail });

/** How long the links hold, in days; a reset in hours. */
export const invitationDays = 7;
export const resetHours = 2;

const linkToken = z.string().min(20).max(100);
export const linkLookSchema = z.strictObject({ token: linkToken });

/** What a one-time link is for. */
export const linkSchema = z.object({
  purpose: z.enum(['invitation', 'reset', 'student']),
  studio: z.string(),
  /** Of whom it is for: the invited name, the teacher's, the student's alias. */
  name: z.string(),
  /** Empty for a student. */
  email: z.string(),
});
export type Link = z.infer<typeof linkSchema>;

/** Using a link: a name and a password for an invitation, a password for a reset, neither for a student. */
export const linkUseSchema = z.strictObject({ token: linkToken, name: personName.optional(), password: newPasswordSchema.optional() });
export type LinkUse = z.infer<typeof linkUseSchema>;

/** A link for a student's own tablet, shown once. */
export const studentLinkSchema = z.object({ address: z.string(), until: z.string() });
export type StudentLink = z.infer<typeof studentLinkSchema>;

/** What would be mailed. */
export const mailSchema = z.object({ id: z.string(), to: z.string(), subject: z.string(), body: z.string(), at: z.string() });
export type Mail = z.infer<typeof mailSchema>;
