import { archiveAttemptSchema } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { archivePart, everything, insertAll, refused, signsIn } from '../archive/archive-part';
import { studentsFile } from '../students/student.archive';
import { AttemptCorrectionEntity, AttemptEntity } from './attempt.entity';

interface Rows {
  readonly attempts: readonly AttemptEntity[];
  readonly corrections: readonly AttemptCorrectionEntity[];
}

/** Sheets are written anew elsewhere, so that which item it was is told by its title only. */
export const attemptArchive = archivePart({
  file: 'attempts.json',
  since: 6,
  schema: z.array(archiveAttemptSchema),
  absent: [],
  load: async (database, studioId): Promise<Rows> => ({
    attempts: await everything(database, AttemptEntity, studioId),
    corrections: await everything(database, AttemptCorrectionEntity, studioId),
  }),
  pack: ({ attempts, corrections }: Rows, signs) => {
    const byAttempt = new Map<string, AttemptCorrectionEntity[]>();
    for (const each of corrections) byAttempt.set(each.attemptId, [...(byAttempt.get(each.attemptId) ?? []), each]);
    // Two of one moment stand by their titles, so that a backup of the same log is the same.
    const inOrder = [...attempts].sort((one, other) => one.at.getTime() - other.at.getTime() || (one.title < other.title ? -1 : 1));
    return inOrder.map(({ id, studentId, studioId: _, itemId: __, lessonId: ____, createdAt: ___, at, by, ...attempt }) => ({
      student: signs.of(studentId),
      attempt: { ...attempt, at: at.toISOString() },
      by,
      corrections: (byAttempt.get(id) ?? [])
        .sort((one, other) => one.createdAt.getTime() - other.createdAt.getTime())
        .map(({ rating, note, who, createdAt }) => ({ rating, note, who, at: createdAt.toISOString() })),
    }));
  },
  prepare: (attempts, files) => {
    const students = signsIn(files, studentsFile);
    if (attempts.some(({ student }) => !students.has(student))) throw refused('A try in this backup belongs to a student who is not in it.');
  },
  write: async (attempts, _, { database, studioId, idOf, modelOf }) => {
    const rows = attempts.map(({ student, attempt, by, corrections }) => ({
      corrections,
      row: {
        ...attempt,
        ...{
          studioId,
          id: randomUUID() as string,
          studentId: idOf(student),
          itemId: null,
          lessonId: null,
          by,
          model: modelOf(attempt.model),
          at: new Date(attempt.at),
        },
      },
    }));
    await insertAll(
      database,
      AttemptEntity,
      rows.map(({ row }) => row),
    );
    const corrected = rows.flatMap(({ row, corrections }) =>
      corrections.map(({ at, ...each }) => ({
        ...{ ...each, studioId, id: randomUUID() as string, attemptId: row.id, studentId: row.studentId, createdAt: new Date(at) },
      })),
    );
    await insertAll(database, AttemptCorrectionEntity, corrected);
    return { count: rows.length };
  },
});
