import * as z from 'zod';
import { typedText } from './text';

/** A student is known by an alias; nothing else is asked. */
export const studentInputSchema = z.strictObject({
  alias: typedText.trim().min(1, 'A name or alias is missing.').max(60, 'An alias has at most 60 characters.'),
});
export type StudentInput = z.infer<typeof studentInputSchema>;

export const studentSchema = z.object({ id: z.string(), alias: z.string() });
export type Student = z.infer<typeof studentSchema>;
