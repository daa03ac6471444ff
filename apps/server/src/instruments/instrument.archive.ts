import { archiveInstrumentSchema } from '@zelpit/contract';
import { asPlayed, noteOf } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { archivePart, dateOrNull, isoOrNull, pagesOf, refused, rowWriter } from '../archive/archive-part';
import { checkOf } from '../models/model.archive';
import { studentsFile } from '../students/student.archive';
import { InstrumentEntity } from './instrument.entity';

export const instrumentArchive = archivePart({
  file: 'instruments.json',
  since: 2,
  schema: archiveInstrumentSchema,
  signs: { letter: 'i', table: 'instrument' },
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, InstrumentEntity, studioId))
      yield rows.map(({ id, studentId, name, model, hands, written, tuning, schools, referenceHertz, knownNotes, note, createdAt, updatedAt, deletedAt }) => ({
        ...{ sign: signs.of(id), student: studentId === null ? null : signs.of(studentId) },
        ...{ name, model: signs.ofModel(model), hands, written, tuning, schools, referenceHertz, knownNotes, note },
        ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
      }));
  },
  check: ({ signsIn, instruments }) => ({
    each: (held) => {
      if (held.student !== null && !signsIn(studentsFile).has(held.student))
        throw refused(`The instrument “${held.name}” belongs to a student who is not in this backup.`);
      checkOf(instruments, held.name, held.model, (instrument) => [asPlayed(instrument, held), held.knownNotes.map((note) => noteOf(instrument, note))]);
    },
  }),
  write: (target) =>
    rowWriter(target, InstrumentEntity, ({ sign: _, student, model, created, changed, putAway, ...rest }) => ({
      ...{ ...rest, id: randomUUID(), studioId: target.studioId, studentId: student === null ? null : target.idOf(student), teacherId: null },
      ...{ model: target.modelOf(model), version: 1, createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    })),
});
