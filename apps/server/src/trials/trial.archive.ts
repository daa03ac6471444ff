import { archiveTrialSchema } from '@zelpit/contract';
import { noteOf } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { archivePart, everything, insertAll, refused, signsIn } from '../archive/archive-part';
import { checkOf, instrumentsIn } from '../models/model.archive';
import { studentsFile } from '../students/student.archive';
import { TrialEntity } from './trial.entity';

export const trialArchive = archivePart({
  file: 'trials.json',
  since: 3,
  schema: z.array(archiveTrialSchema),
  absent: [],
  load: (database, studioId) => everything(database, TrialEntity, studioId),
  pack: (rows: readonly TrialEntity[], signs) =>
    rows.map(({ studentId, model, result, createdAt }) => ({
      ...{ student: studentId === null ? null : signs.of(studentId), model: signs.ofModel(model), result, at: createdAt.toISOString() },
    })),
  prepare: (trials, files) => {
    const [students, known] = [signsIn(files, studentsFile), instrumentsIn(files)];
    for (const { student, model, result } of trials) {
      if (student !== null && !students.has(student)) throw refused('A result in this backup belongs to a student who is not in it.');
      // A result outlives its instrument: one of a model that is gone is kept as it is.
      if (result.kind !== 'fault-hunt' && known.has(model))
        checkOf(known, `a result of ${result.kind}`, model, (instrument) => [noteOf(instrument, result.from), noteOf(instrument, result.to)]);
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
