import { archiveTrialSchema } from '@zelpit/contract';
import { noteOf } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { archivePart, insertAll, refused, signsIn } from '../archive/archive-part';
import { checkOf, instrumentIn } from '../models/model.archive';
import { studentsFile } from '../students/student.archive';
import { TrialEntity } from './trial.entity';

export const trialArchive = archivePart({
  file: 'trials.json',
  since: 3,
  schema: z.array(archiveTrialSchema).max(200_000),
  absent: [],
  load: (database, studioId) => database.of(TrialEntity).find({ where: { studioId }, order: { createdAt: 'ASC', id: 'ASC' } }),
  pack: (rows: readonly TrialEntity[], signs) =>
    rows.map(({ studentId, model, result, createdAt }) => ({
      ...{ student: studentId === null ? null : signs.of(studentId), model: signs.ofModel(model), result, at: createdAt.toISOString() },
    })),
  prepare: (trials, files) => {
    const students = signsIn(files, studentsFile);
    for (const { student, model, result } of trials) {
      if (student !== null && !students.has(student)) throw refused('A result in this archive belongs to a student who is not in it.');
      // A result outlives its instrument: one of a model that is gone is kept as it is.
      if (result.kind !== 'fault-hunt' && instrumentIn(files, model) !== undefined)
        checkOf(files, `a result of ${result.kind}`, model, (instrument) => [noteOf(instrument, result.from), noteOf(instrument, result.to)]);
    }
  },
  write: async (trials, _, { database, studioId, idOf, modelOf }) => {
    const rows = trials.map(({ student, model, result, at }) => ({
      ...{ id: randomUUID(), studioId, studentId: student === null ? null : idOf(student), model: modelOf(model) },
      ...{ kind: result.kind, result, createdAt: new Date(at) },
    }));
    await insertAll(database, TrialEntity, rows);
    return { count: rows.length };
  },
});
