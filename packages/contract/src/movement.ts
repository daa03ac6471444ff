import { movementDefinitionSchema, movementIdSchema, movementSettingsSchema, ornamentChoicesSchema, syllableSetSchema } from '@zelpit/core/movement';
import * as z from 'zod';
import { versionSchema } from './version';
import { pageOf, pageQuerySchema } from './page';
import { readers, route, staff } from './route';
import { typedText } from './text';

/** What a teacher says of a movement: as built in (null), or as this studio plays it. */
export const keptMovementInputSchema = z
  .strictObject({ movement: movementIdSchema, definition: movementDefinitionSchema.nullable() })
  .refine(({ movement, definition }) => definition === null || definition.id === movement, 'The id of the movement and of its definition differ.');
export type KeptMovementInput = z.infer<typeof keptMovementInputSchema>;

/** A movement that was confirmed, changed or made, and by whom. */
export const keptMovementSchema = z.object({
  id: z.string(),
  movement: movementIdSchema,
  definition: movementDefinitionSchema.nullable(),
  by: z.string(),
  /** Day, as 2026-03-09. */
  on: z.string(),
});
export type KeptMovement = z.infer<typeof keptMovementSchema>;

/** How a studio plays, counts and speaks its movements. */
export const movementChoicesSchema = z.strictObject({
  settings: movementSettingsSchema,
  syllables: syllableSetSchema.refine((set) => Object.keys(set).length <= 80, 'At most 80 notes have syllables.'),
  /** What is chosen for the ornaments of an instrument, by the instrument. */
  ornaments: z
    .record(z.string().min(1).max(60), ornamentChoicesSchema)
    .refine((all) => Object.keys(all).length <= 200, 'At most 200 instruments.')
    .default({}),
});
export type MovementChoices = z.infer<typeof movementChoicesSchema>;

export const movementChoicesSaveSchema = movementChoicesSchema.extend({ version: versionSchema });
export const movementChoicesShownSchema = movementChoicesSchema.extend({ version: z.number().int() });
export type MovementChoicesShown = z.infer<typeof movementChoicesShownSchema>;

const archiveMovementSchema = z.strictObject({
  movement: movementIdSchema,
  definition: movementDefinitionSchema.nullable(),
  by: typedText.max(120),
  on: z.iso.date(),
});

/** What the studio says of movements; `choices` is null where it plays them the usual way. */
export const archiveMovementsSchema = z.strictObject({
  choices: movementChoicesSchema.nullable(),
  kept: z.array(archiveMovementSchema).max(300),
});

/** What a studio says of movements. */
export const movementRoutes = {
  movements: route({
    method: 'get',
    path: '/movements',
    summary: 'Movements that teachers of the studio confirmed, changed or made',
    who: readers,
    query: pageQuerySchema,
    answers: { 200: pageOf(keptMovementSchema) },
  }),
  keepMovement: route({
    method: 'post',
    path: '/movements',
    summary: 'Confirm a built-in movement, change it, or keep one of one’s own',
    who: staff,
    body: keptMovementInputSchema,
    answers: { 201: keptMovementSchema },
  }),
  dropMovement: route({ method: 'delete', path: '/movements/{id}', summary: 'Take back what was said of a movement', who: staff, answers: { 204: null } }),
  movementChoices: route({
    method: 'get',
    path: '/movement-choices',
    summary: 'How the studio plays, counts and speaks its movements',
    who: readers,
    answers: { 200: movementChoicesShownSchema },
  }),
  saveMovementChoices: route({
    method: 'put',
    path: '/movement-choices',
    summary: 'Change how the studio plays, counts and speaks its movements',
    who: staff,
    body: movementChoicesSaveSchema,
    answers: { 200: movementChoicesShownSchema },
  }),
} as const;
