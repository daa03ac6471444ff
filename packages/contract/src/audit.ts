import * as z from 'zod';

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
  'gave a link to',
]);
export type Deed = z.infer<typeof deedSchema>;

/** Who changed what. Changes of one thing within ten minutes are one entry. */
export const auditEntrySchema = z.object({
  id: z.string(),
  who: z.string(),
  did: deedSchema,
  kind: z.enum(['tune', 'student', 'sheet', 'teacher', 'studio', 'tunes', 'archive', 'instrument', 'model', 'fingering', 'movement']),
  thing: z.string(),
  from: z.string(),
  until: z.string(),
  times: z.number().int(),
});
export type AuditEntry = z.infer<typeof auditEntrySchema>;
