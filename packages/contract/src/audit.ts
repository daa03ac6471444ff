import * as z from 'zod';
import { findSchema, pageOf, pageQuerySchema } from './page';
import { owner, route, thingKindSchema } from './route';

export const deedSchema = z.enum([
  'added',
  'changed',
  'put away',
  'brought back',
  'deleted',
  'brought in',
  'took out',
  'invited',
  'joined',
  'withdrew',
  'removed',
  'set a password for',
  'signed out a tablet of',
  'gave a link to',
  'ended the link of',
  'sent',
  'took back',
]);
export type Deed = z.infer<typeof deedSchema>;

/** Who changed what. Changes of one thing within ten minutes are one entry. */
export const auditEntrySchema = z.object({
  id: z.string(),
  who: z.string(),
  did: deedSchema,
  /** What kind of thing: "sheet". */
  kind: thingKindSchema,
  thing: z.string(),
  from: z.string(),
  until: z.string(),
  times: z.number().int(),
});
export type AuditEntry = z.infer<typeof auditEntrySchema>;

/** Who changed what. */
export const auditRoutes = {
  audit: route({
    method: 'get',
    path: '/audit',
    summary: 'Who changed what, newest first',
    who: owner,
    query: pageQuerySchema.extend({ find: findSchema, kind: auditEntrySchema.shape.kind.optional() }),
    answers: { 200: pageOf(auditEntrySchema) },
  }),
} as const;
