import { archiveModelSchema } from '@zelpit/contract';
import { instrumentProblems, instruments, ZelpitFault, type Instrument } from '@zelpit/core';
import * as z from 'zod';
import { archivePart, dateOrNull, everything, insertAll, isoOrNull, refused, type ArchiveFiles } from '../archive/archive-part';
import { ModelEntity } from './model.entity';

const modelsFile = 'models.json';

export const modelArchive = archivePart({
  file: modelsFile,
  since: 2,
  schema: z.array(archiveModelSchema).max(2000),
  absent: [],
  signs: { letter: 'm', idsOf: (rows: readonly ModelEntity[]) => rows.map(({ id }) => id), signsOf: (models) => models.map(({ sign }) => sign) },
  load: (database, studioId) => everything(database, ModelEntity, studioId),
  pack: (rows, signs) =>
    rows.map(({ id, instrument, madeBy, createdAt, updatedAt, deletedAt }) => ({
      ...{ sign: signs.of(id), instrument, by: madeBy },
      ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
    })),
  prepare: (models) => {
    for (const { instrument } of models) {
      const [problem] = instrumentProblems(instrument);
      if (problem !== undefined) throw refused(`The instrument “${instrument.name}” in this archive does not hold together: ${problem}.`);
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

/** A model of the archive by its sign, or a built-in instrument; undefined where it is neither. */
export function instrumentIn(files: ArchiveFiles, model: string): Instrument | undefined {
  const models = (files.get(modelsFile) ?? []) as readonly z.infer<typeof archiveModelSchema>[];
  return models.find(({ sign }) => sign === model)?.instrument ?? instruments.find(({ id }) => id === model);
}

/** Uses the model that something is of, to see whether that can be. @throws HttpProblem 422 where there is no such model, or it cannot */
export function checkOf(files: ArchiveFiles, name: string, model: string, use: (instrument: Instrument) => unknown): void {
  const instrument = instrumentIn(files, model);
  if (instrument === undefined) throw refused(`“${name}” is of an instrument that is neither in this archive nor known here.`);
  try {
    use(instrument);
  } catch (error) {
    if (error instanceof ZelpitFault) throw refused(`“${name}” in this archive cannot be: ${error.message}`);
    throw error;
  }
}
