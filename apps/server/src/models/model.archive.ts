import { archiveModelSchema } from '@zelpit/contract';
import { instrumentProblems, ZelpitFault, type Instrument } from '@zelpit/core';
import { archivePart, dateOrNull, isoOrNull, pagesOf, refused, rowWriter } from '../archive/archive-part';
import { ModelEntity } from './model.entity';

export const modelsFile = 'models.json';

export const modelArchive = archivePart({
  file: modelsFile,
  since: 2,
  schema: archiveModelSchema,
  signs: { letter: 'm', table: 'model' },
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, ModelEntity, studioId))
      yield rows.map(({ id, instrument, madeBy, createdAt, updatedAt, deletedAt }) => ({
        ...{ sign: signs.of(id), instrument, by: madeBy },
        ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
      }));
  },
  check: () => ({
    each: ({ instrument }) => {
      const [problem] = instrumentProblems(instrument);
      if (problem !== undefined) throw refused(`The instrument “${instrument.name}” in this backup has mistakes: ${problem}.`);
    },
  }),
  write: (target) =>
    rowWriter(target, ModelEntity, ({ sign, instrument, by, created, changed, putAway }) => ({
      ...{
        id: target.idOf(sign),
        studioId: target.studioId,
        name: instrument.name,
        instrument: { ...instrument, id: target.idOf(sign) },
        madeBy: by,
        version: 1,
      },
      ...{ createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    })),
});

/** Uses the model that something is of to see whether that can be. @throws HttpProblem 422 where there is no such model, or it cannot */
export function checkOf(known: ReadonlyMap<string, Instrument>, name: string, model: string, use: (instrument: Instrument) => unknown): void {
  const instrument = known.get(model);
  if (instrument === undefined) throw refused(`“${name}” uses a model that is not in this backup and not known here.`);
  try {
    use(instrument);
  } catch (error) {
    if (error instanceof ZelpitFault) throw refused(`“${name}” in this backup is not valid: ${error.message}`);
    throw error;
  }
}
