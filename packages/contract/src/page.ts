import * as z from 'zod';
import { typedText } from './text';

export const longestPage = 200;

/** How a list is asked for: so many at once, after the sign that the page before ended with. */
export const pageQuerySchema = z.object({
  limit: z.coerce.number().int().min(1, 'At least one.').max(longestPage, `At most ${longestPage} at once.`).default(longestPage),
  after: z.string().max(2000).optional(),
});
export type PageQuery = z.infer<typeof pageQuerySchema>;

/** Words to look for, anywhere in a name. */
export const findSchema = typedText.trim().max(200).optional();

/** One page of a list; `next` is the sign to ask on with, null at the end. */
export const pageOf = <T extends z.ZodType>(item: T) => z.object({ items: z.array(item), next: z.string().nullable() });
export interface Page<T> {
  readonly items: T[];
  readonly next: string | null;
}
