import * as z from 'zod';
import { typedText } from './text';
import { route } from './route';

const email = typedText.trim().toLowerCase().min(3, 'Enter your e-mail address.').max(200);

export const signInSchema = z.strictObject({
  email,
  password: z.string().min(1, 'Enter your password.').max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

export const shortestPassword = 12;

export const newPasswordSchema = z
  .string()
  .min(shortestPassword, `A new password needs at least ${shortestPassword} characters.`)
  .max(200, 'A password can have at most 200 characters.');

export const passwordChangeSchema = z.strictObject({
  current: z.string().min(1, 'Enter your current password.').max(200),
  next: newPasswordSchema,
});
export type PasswordChange = z.infer<typeof passwordChangeSchema>;

export const roleSchema = z.enum(['owner', 'teacher', 'substitute', 'student', 'parent']);

/** What somebody who teaches had in hand last, on whatever device: a student and a tune by their ids. */
export const inHandSchema = z.object({ student: z.string().nullable(), tune: z.string().nullable() });
export type InHand = z.infer<typeof inHandSchema>;

/** Who sits here. `token` goes back in the header `x-zelpit-token` with every write. */
export const sessionSchema = z.object({
  token: z.string(),
  /** The demo studio's sign-in, shown in demo mode only. */
  demo: z.object({ email: z.string(), password: z.string() }).nullable(),
  /** True where no studio is here yet: the first thing to do is to create one. */
  isNew: z.boolean(),
  /** True where a studio can be created from this computer. */
  canCreateStudio: z.boolean(),
  /** True where what would be mailed can be read on this computer. */
  hasOutbox: z.boolean(),
  signedIn: z
    .object({
      role: roleSchema,
      person: z.object({ id: z.string(), name: z.string() }),
      studio: z.object({ id: z.string(), name: z.string() }),
      /** Null for a student and a parent. */
      inHand: inHandSchema.nullable(),
      /** That a student may be recorded, by whom and when that was agreed to; null for anybody else, and where nobody has agreed. */
      consent: z.object({ guardian: z.string(), on: z.string() }).nullable(),
    })
    .nullable(),
});
export type Session = z.infer<typeof sessionSchema>;

export const tokenHeader = 'x-zelpit-token';
/** With every write: the same key, sent again, gets the first answer again and changes nothing. */
export const onceHeader = 'idempotency-key';

/** Signing in and out. */
export const sessionRoutes = {
  session: route({ method: 'get', path: '/session', summary: 'Who sits here, and the token for writes', who: 'anyone', answers: { 200: sessionSchema } }),
  signIn: route({ method: 'post', path: '/session', summary: 'Sign in', who: 'anyone', body: signInSchema, answers: { 200: sessionSchema } }),
  signOut: route({ method: 'delete', path: '/session', summary: 'Sign out', who: 'anyone', answers: { 200: sessionSchema } }),
} as const;
