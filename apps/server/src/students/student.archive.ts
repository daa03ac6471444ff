import { archiveStudentSchema } from '@zelpit/contract';
import * as z from 'zod';
import { archivePart, dateOrNull, everything, idsOf, insertAll, isoOrNull } from '../archive/archive-part';
import { StudentEntity } from './student.entity';

export const studentsFile = 'students.json';

export const studentArchive = archivePart({
  file: studentsFile,
  since: 1,
  changed: 7,
  schema: z.array(archiveStudentSchema),
  absent: [],
  signs: { letter: 's', idsOf },
  load: (database, studioId) => everything(database, StudentEntity, studioId),
  pack: (rows, signs) =>
    rows.map(({ id, alias, consent, movements, level, dayMinutes, mailTo, groups, createdAt, deletedAt }) => ({
      ...{ sign: signs.of(id), alias, consent, movements, level, dayMinutes, mailTo, groups, created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
    })),
  prepare: () => undefined,
  write: async (students, _, { database, studioId, idOf }) => {
    const rows = students.map(({ sign, created, putAway, ...student }) => ({
      ...{ ...student, id: idOf(sign), studioId, version: 1, createdAt: new Date(created), deletedAt: dateOrNull(putAway) },
    }));
    await insertAll(database, StudentEntity, rows);
    return { count: rows.length };
  },
});
