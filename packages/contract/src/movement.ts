import { movementDefinitionSchema, movementIdSchema, movementSettingsSchema, ornamentChoicesSchema, syllableSetSchema } from '@zelpit/core';
import * as z from 'zod';

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

export const movementChoicesSaveSchema = movementChoicesSchema.extend({ version: z.number().int().min(1) });
export const movementChoicesShownSchema = movementChoicesSchema.extend({ version: z.number().int() });
export type MovementChoicesShown = z.infer<typeof movementChoicesShownSchema>;
