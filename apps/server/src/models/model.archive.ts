import { archiveModelSchema } from '@zelpit/contract';
import { instrumentProblems, instruments, ZelpitFault, type Instrument } from '@zelpit/core';
import * as z from 'zod';
import { archivePart, dateOrNull, everything, idsOf, insertAll, isoOrNull, refused, type ArchiveFiles } from '../archive/archive-part';
import { ModelEntity } from './model.entity';

const modelsFile = 'models.json';

export const modelArchive = archivePart({
  file: modelsFile,
  since: 2,
  schema: z.array(archiveModelSchema),
  absent: [],
  signs: { letter: 'm', idsOf },
  load: (database, studioId) => everything(database, ModelEntity, studioId),
  pack: (rows, signs) =>
    rows.map(({ id, instrument, madeBy, createdAt, updatedAt, deletedAt }) => ({
      ...{ sign: signs.of(id), instrument, by: madeBy },
      ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
    })),
  prepare: (models) => {
    for (const { instrument } of models) {
      const [problem] = instrumentProblems(instrument);
      if (problem !== undefined) throw refused(`The instrument “${instrument.name}” in this backup has mistakes: ${problem}.`);
    }
  },
  write: async (models, _, { database, studioId, idOf }) => {
    const rows = models.map(({ sign, instrument, by, created, changed, putAway }) => ({
      ...{ id: idOf(sign), studioId, name: instrument.name, instrument: { ...instrument, id: idOf(sign) }, madeBy: by, version: 1 },
      ...{ createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    }));
    await insertAll(database, ModelEntity, rows);
    return { count: rows.length };
  },
});

/** The built-in instruments by id and those of the archive by sign. */
export function instrumentsIn(files: ArchiveFiles): ReadonlyMap<string, Instrument> {
  const models = (files.get(modelsFile) ?? []) as readonly z.infer<typeof archiveModelSchema>[];
  return new Map([...instruments.map((each) => [each.id, each] as const), ...models.map(({ sign, instrument }) => [sign, instrument] as const)]);
}

/** Uses the model that something is of, one of `instrumentsIn`, to see whether that can be. @throws HttpProblem 422 where there is no such model, or it cannot */
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
