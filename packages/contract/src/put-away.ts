import * as z from 'zod';

/** How long what was put away can be brought back, in days. */
export const putAwayDays = 30;

/** Something that was put away and can still be brought back. */
export const putAwaySchema = z.object({
  kind: z.enum(['tune', 'student', 'sheet', 'instrument', 'model']),
  id: z.string(),
  name: z.string(),
  /** When it was put away, and when it goes for good. */
  since: z.string(),
  until: z.string(),
});
export type PutAway = z.infer<typeof putAwaySchema>;
