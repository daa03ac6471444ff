import { archiveInstrumentSchema } from '@zelpit/contract';
import { asPlayed, noteOf } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { archivePart, dateOrNull, everything, idsOf, insertAll, isoOrNull, refused, signsIn } from '../archive/archive-part';
import { checkOf, instrumentsIn } from '../models/model.archive';
import { studentsFile } from '../students/student.archive';
import { InstrumentEntity } from './instrument.entity';

export const instrumentArchive = archivePart({
  file: 'instruments.json',
  since: 2,
  schema: z.array(archiveInstrumentSchema),
  absent: [],
  signs: { letter: 'i', idsOf },
  load: (database, studioId) => everything(database, InstrumentEntity, studioId),
  pack: (rows, signs) =>
    rows.map(({ id, studentId, name, model, hands, written, tuning, schools, referenceHertz, knownNotes, note, createdAt, updatedAt, deletedAt }) => ({
      ...{ sign: signs.of(id), student: studentId === null ? null : signs.of(studentId) },
      ...{ name, model: signs.ofModel(model), hands, written, tuning, schools, referenceHertz, knownNotes, note },
      ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
    })),
  prepare: (held, files) => {
    const [students, known] = [signsIn(files, studentsFile), instrumentsIn(files)];
    for (const each of held) {
      if (each.student !== null && !students.has(each.student)) throw refused(`The instrument “${each.name}” belongs to a student who is not in this backup.`);
      checkOf(known, each.name, each.model, (instrument) => [asPlayed(instrument, each), each.knownNotes.map((note) => noteOf(instrument, note))]);
    }
  },
  write: async (held, _, { database, studioId, idOf, modelOf }) => {
    const rows = held.map(({ sign: _sign, student, model, created, changed, putAway, ...rest }) => ({
      ...rest,
      ...{ id: randomUUID(), studioId, studentId: student === null ? null : idOf(student), teacherId: null, model: modelOf(model), version: 1 },
      ...{ createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    }));
    await insertAll(database, InstrumentEntity, rows);
    return { count: rows.length };
  },
});
