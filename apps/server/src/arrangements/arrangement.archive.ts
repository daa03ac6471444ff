import { archiveArrangementSchema } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { archivePart, everything, insertAll, refused, signsIn } from '../archive/archive-part';
import { studentsFile } from '../students/student.archive';
import { tunesFile } from '../tunes/tune.archive';
import { ArrangementEntity } from './arrangement.entity';

export const arrangementArchive = archivePart({
  file: 'arrangements.json',
  since: 5,
  schema: z.array(archiveArrangementSchema),
  absent: [],
  load: (database, studioId) => everything(database, ArrangementEntity, studioId),
  pack: (rows: readonly ArrangementEntity[], signs) =>
    rows.map(({ studentId, tuneId, arrangement }) => ({ student: signs.of(studentId), tune: signs.of(tuneId), arrangement })),
  prepare: (arrangements, files) => {
    const [students, tunes] = [signsIn(files, studentsFile), signsIn(files, tunesFile)];
    const seen = new Set<string>();
    for (const { student, tune } of arrangements) {
      if (!students.has(student) || !tunes.has(tune)) throw refused('This backup arranges a tune for a student, and one of the two is not in it.');
      if (seen.has(`${student} ${tune}`)) throw refused('This backup arranges a tune twice for one student.');
      seen.add(`${student} ${tune}`);
    }
  },
  write: async (arrangements, _, { database, studioId, idOf }) => {
    const rows = arrangements.map(({ student, tune, arrangement }) => ({
      ...{ studioId, id: randomUUID() as string, studentId: idOf(student), tuneId: idOf(tune), arrangement, version: 1 },
    }));
    await insertAll(database, ArrangementEntity, rows);
    return { count: rows.length };
  },
});
