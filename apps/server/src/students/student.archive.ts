import { archiveStudentSchema } from '@zelpit/contract';
import { archivePart, dateOrNull, isoOrNull, nothingToCheck, pagesOf, rowWriter } from '../archive/archive-part';
import { StudentEntity } from './student.entity';

export const studentsFile = 'students.json';

export const studentArchive = archivePart({
  file: studentsFile,
  since: 1,
  changed: 7,
  schema: archiveStudentSchema,
  signs: { letter: 's', table: 'student' },
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, StudentEntity, studioId))
      yield rows.map(({ id, alias, consent, movements, level, dayMinutes, mailTo, groups, createdAt, deletedAt }) => ({
        ...{
          sign: signs.of(id),
          alias,
          consent,
          movements,
          level,
          dayMinutes,
          mailTo,
          groups,
          created: createdAt.toISOString(),
          putAway: isoOrNull(deletedAt),
        },
      }));
  },
  check: nothingToCheck,
  write: (target) =>
    rowWriter(target, StudentEntity, ({ sign, created, putAway, ...student }) => ({
      ...{ ...student, id: target.idOf(sign), studioId: target.studioId, version: 1, createdAt: new Date(created), deletedAt: dateOrNull(putAway) },
    })),
});
