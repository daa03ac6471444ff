import * as z from 'zod';

/** One error format for every answer that is no success (RFC 9457), always with a sentence for people in `detail`. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  /** One sentence per field that was wrong. */
  fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;

export const idSchema = z.uuid();
