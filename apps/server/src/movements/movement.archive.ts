import { archiveMovementsSchema, movementChoicesSchema, type MovementChoices } from '@zelpit/contract';
import { archivePart, refused } from '../archive/archive-part';
import { HttpProblem } from '../http/problem';
import { assertMovement } from './assert-movement';
import { MovementRepository } from './movement.repository';

export const movementArchive = archivePart({
  file: 'movements.json',
  since: 4,
  isOne: true,
  schema: archiveMovementsSchema,
  read: async function* (database, studioId, signs) {
    const movements = new MovementRepository(database);
    // Null where the studio plays them the usual way.
    const choices = await movements.ownChoices(studioId);
    yield [
      {
        choices: choices === null ? null : withModels(movementChoicesSchema.parse(choices), (model) => signs.ofModel(model)),
        kept: (await movements.all(studioId)).map(({ movement, definition, by, on }) => ({ movement, definition, by, on })),
      },
    ];
  },
  check: () => ({
    each: ({ kept }) => {
      for (const { movement, definition } of kept) {
        try {
          assertMovement(movement, definition);
        } catch (error) {
          if (error instanceof HttpProblem) throw refused(`A movement in this backup is not valid: ${error.message}`);
          throw error;
        }
      }
    },
  }),
  /** What the archive says of movements comes over what is here. */
  write: ({ database, studioId, modelOf }) => {
    const movements = new MovementRepository(database);
    let count = 0;
    return {
      some: async (checked) => {
        for (const { item } of checked) {
          for (const { by, on, ...each } of item.kept) await movements.keep(studioId, by, on, each);
          count += item.kept.length;
          if (item.choices !== null) await movements.saveChoices(studioId, withModels(item.choices, modelOf), (await movements.choices(studioId)).version);
        }
      },
      brought: () => ({ count }),
    };
  },
});

/** Ornaments are chosen by model: by its sign in an archive, by its id in the studio. */
const withModels = (choices: MovementChoices, modelOf: (model: string) => string): MovementChoices => ({
  ...choices,
  ornaments: Object.fromEntries(Object.entries(choices.ornaments).map(([model, chosen]) => [modelOf(model), chosen])),
});
