import { archiveArrangementSchema } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { archivePart, pagesOf, refused, rowWriter } from '../archive/archive-part';
import { studentsFile } from '../students/student.archive';
import { tunesFile } from '../tunes/tune.archive';
import { ArrangementEntity } from './arrangement.entity';

export const arrangementArchive = archivePart({
  file: 'arrangements.json',
  since: 5,
  schema: archiveArrangementSchema,
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, ArrangementEntity, studioId))
      yield rows.map(({ studentId, tuneId, arrangement }) => ({ student: signs.of(studentId), tune: signs.of(tuneId), arrangement }));
  },
  check: ({ signsIn }) => {
    const [students, tunes] = [signsIn(studentsFile), signsIn(tunesFile)];
    const seen = new Set<string>();
    return {
      each: ({ student, tune }) => {
        if (!students.has(student) || !tunes.has(tune)) throw refused('This backup arranges a tune for a student, and one of the two is not in it.');
        if (seen.has(`${student} ${tune}`)) throw refused('This backup arranges a tune twice for one student.');
        seen.add(`${student} ${tune}`);
      },
    };
  },
  write: (target) =>
    rowWriter(target, ArrangementEntity, ({ student, tune, arrangement }) => ({
      ...{ studioId: target.studioId, id: randomUUID(), studentId: target.idOf(student), tuneId: target.idOf(tune), arrangement, version: 1 },
    })),
});
