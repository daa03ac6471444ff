import { archiveTrialSchema } from '@zelpit/contract';
import { noteOf } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { archivePart, pagesOf, refused, rowWriter } from '../archive/archive-part';
import { checkOf } from '../models/model.archive';
import { studentsFile } from '../students/student.archive';
import { TrialEntity } from './trial.entity';

export const trialArchive = archivePart({
  file: 'trials.json',
  since: 3,
  schema: archiveTrialSchema,
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, TrialEntity, studioId))
      yield rows.map(({ studentId, model, result, createdAt }) => ({
        ...{ student: studentId === null ? null : signs.of(studentId), model: signs.ofModel(model), result, at: createdAt.toISOString() },
      }));
  },
  check: ({ signsIn, instruments }) => ({
    each: ({ student, model, result }) => {
      if (student !== null && !signsIn(studentsFile).has(student)) throw refused('A result in this backup belongs to a student who is not in it.');
      // A result outlives its instrument: one of a model that is gone is kept as it is.
      if (result.kind !== 'fault-hunt' && result.kind !== 'foretold' && instruments.has(model))
        checkOf(instruments, `a result of ${result.kind}`, model, (instrument) => [noteOf(instrument, result.from), noteOf(instrument, result.to)]);
    },
  }),
  write: (target) =>
    rowWriter(target, TrialEntity, ({ student, model, result, at }) => ({
      ...{ id: randomUUID(), studioId: target.studioId, studentId: student === null ? null : target.idOf(student), model: target.modelOf(model) },
      ...{ kind: result.kind, result, createdAt: new Date(at) },
    })),
});
