import { archiveMovementsSchema, movementChoicesSchema, type KeptMovement, type MovementChoices } from '@zelpit/contract';
import { archivePart, refused } from '../archive/archive-part';
import { HttpProblem } from '../http/problem';
import { assertMovement } from './assert-movement';
import { MovementRepository } from './movement.repository';

interface Rows {
  /** Null where the studio plays them the usual way. */
  readonly choices: MovementChoices | null;
  readonly kept: readonly KeptMovement[];
}

export const movementArchive = archivePart({
  file: 'movements.json',
  since: 4,
  schema: archiveMovementsSchema,
  absent: { choices: null, kept: [] },
  load: async (database, studioId): Promise<Rows> => {
    const movements = new MovementRepository(database);
    return { choices: await movements.ownChoices(studioId), kept: await movements.all(studioId) };
  },
  pack: ({ choices, kept }, signs) => ({
    choices: choices === null ? null : withModels(movementChoicesSchema.parse(choices), (model) => signs.ofModel(model)),
    kept: kept.map(({ movement, definition, by, on }) => ({ movement, definition, by, on })),
  }),
  prepare: ({ kept }) => {
    for (const { movement, definition } of kept) {
      try {
        assertMovement(movement, definition);
      } catch (error) {
        if (error instanceof HttpProblem) throw refused(`A movement in this backup is not valid: ${error.message}`);
        throw error;
      }
    }
  },
  /** What the archive says of movements comes over what is here. */
  write: async ({ choices, kept }, _, { database, studioId, modelOf }) => {
    const movements = new MovementRepository(database);
    for (const { by, on, ...each } of kept) await movements.keep(studioId, by, on, each);
    if (choices !== null) await movements.saveChoices(studioId, withModels(choices, modelOf), (await movements.choices(studioId)).version);
    return { count: kept.length };
  },
});

/** Ornaments are chosen by model: by its sign in an archive, by its id in the studio. */
const withModels = (choices: MovementChoices, modelOf: (model: string) => string): MovementChoices => ({
  ...choices,
  ornaments: Object.fromEntries(Object.entries(choices.ornaments).map(([model, chosen]) => [modelOf(model), chosen])),
});
