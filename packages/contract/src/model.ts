import { instrumentSchema } from '@zelpit/core/fingering';
import * as z from 'zod';
import { versionSchema } from './version';
import { pageOf, pageQuerySchema } from './page';
import { bringBackRoute, readers, route, staff } from './route';
import { archiveDates, momentSchema, signSchema } from './archive-sign';
import { typedText } from './text';

/** An instrument that the studio made: in the workshop, by calibration, or from a file. */
export const ownModelInputSchema = z.strictObject({ instrument: instrumentSchema });
export const ownModelSaveSchema = ownModelInputSchema.extend({ version: versionSchema });
export const ownModelSchema = z.object({
  id: z.string(),
  /** Its `id` is the model's. */
  instrument: instrumentSchema,
  by: z.string(),
  changed: z.string(),
  version: z.number().int(),
});
export type OwnModel = z.infer<typeof ownModelSchema>;

/** A model in an archive. */
export const archiveModelSchema = z.strictObject({
  sign: signSchema,
  instrument: instrumentSchema,
  by: typedText.max(120),
  changed: momentSchema,
  ...archiveDates,
});

/** Models that the studio made. */
export const modelRoutes = {
  models: route({
    method: 'get',
    path: '/models',
    summary: 'Models that the studio made, by name',
    who: readers,
    query: pageQuerySchema,
    answers: { 200: pageOf(ownModelSchema) },
  }),
  model: route({ method: 'get', path: '/models/{id}', summary: 'One model that the studio made', who: readers, answers: { 200: ownModelSchema } }),
  addModel: route({
    method: 'post',
    path: '/models',
    summary: 'Add a model; 422 with every contradiction where it does not hold together',
    who: staff,
    body: ownModelInputSchema,
    answers: { 201: ownModelSchema },
  }),
  saveModel: route({
    method: 'put',
    path: '/models/{id}',
    summary: 'Save a model of the studio',
    who: staff,
    body: ownModelSaveSchema,
    answers: { 200: ownModelSchema },
  }),
  putModelAway: route({
    method: 'delete',
    path: '/models/{id}',
    summary: 'Put a model away; 409 while an instrument is of it',
    who: staff,
    answers: { 204: null },
  }),
  bringModelBack: bringBackRoute('model'),
} as const;
