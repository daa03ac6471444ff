import * as z from 'zod';
import { typedText } from './text';

export const signInSchema = z.strictObject({
  email: typedText.trim().min(3, 'An e-mail address is missing.').max(200),
  password: z.string().min(1, 'The password is missing.').max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

export const shortestPassword = 10;

export const passwordChangeSchema = z.strictObject({
  current: z.string().min(1, 'The password that holds now is missing.').max(200),
  next: z.string().min(shortestPassword, `A new password has at least ${shortestPassword} signs.`).max(200, 'A password has at most 200 signs.'),
});
export type PasswordChange = z.infer<typeof passwordChangeSchema>;

/** Who sits here. `token` goes back in the header `x-zelpit-token` with every write. */
export const sessionSchema = z.object({
  token: z.string(),
  /** The demo studio's sign-in, shown in demo mode only. */
  demo: z.object({ email: z.string(), password: z.string() }).nullable(),
  signedIn: z.object({ teacher: z.object({ id: z.string(), name: z.string() }), studio: z.object({ id: z.string(), name: z.string() }) }).nullable(),
});
export type Session = z.infer<typeof sessionSchema>;

export const tokenHeader = 'x-zelpit-token';
