import { keptFingeringSchema } from '@zelpit/core/fingering';
import * as z from 'zod';
import { modelIdSchema } from './model-id';
import { pageOf, pageQuerySchema } from './page';
import { readers, route, staff } from './route';
import { typedText } from './text';

/** A fingering that a teacher confirmed, hid, annotated or put first, on one model. */
export const confirmedFingeringInputSchema = keptFingeringSchema.extend({ model: modelIdSchema });
export type ConfirmedFingeringInput = z.infer<typeof confirmedFingeringInputSchema>;
export const confirmedFingeringSchema = confirmedFingeringInputSchema.extend({ id: z.string(), by: z.string(), on: z.string() });
export type StudioFingering = z.infer<typeof confirmedFingeringSchema>;
export const confirmedFingeringQuerySchema = pageQuerySchema.extend({ model: modelIdSchema.optional() });

/** A fingering in an archive. */
export const archiveFingeringSchema = keptFingeringSchema.extend({ model: z.string().min(1).max(60), by: typedText.max(120), on: z.iso.date() });

/** Fingerings that teachers confirmed. */
export const fingeringRoutes = {
  fingerings: route({
    method: 'get',
    path: '/fingerings',
    summary: 'Fingerings that teachers of the studio confirmed',
    who: readers,
    query: confirmedFingeringQuerySchema,
    answers: { 200: pageOf(confirmedFingeringSchema) },
  }),
  keepFingering: route({
    method: 'post',
    path: '/fingerings',
    summary: 'Confirm a fingering, or say something else of one that was confirmed',
    who: staff,
    body: confirmedFingeringInputSchema,
    answers: { 201: confirmedFingeringSchema },
  }),
  dropFingering: route({ method: 'delete', path: '/fingerings/{id}', summary: 'Take back what was said of a fingering', who: staff, answers: { 204: null } }),
} as const;
