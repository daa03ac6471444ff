import * as z from 'zod';
import { pageOf, pageQuerySchema } from './page';
import { route, staff, thingKindSchema } from './route';

/** How long what was put away can be brought back, in days. */
export const putAwayDays = 30;

/** Something that was put away and can still be brought back. */
export const putAwaySchema = z.object({
  kind: thingKindSchema,
  id: z.string(),
  name: z.string(),
  /** When it was put away, and when it goes for good. */
  since: z.string(),
  until: z.string(),
});
export type PutAway = z.infer<typeof putAwaySchema>;

/** What was put away. */
export const putAwayRoutes = {
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
