import { archiveAttemptSchema } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { In } from 'typeorm';
import type * as z from 'zod';
import { archivePart, insertAll, pagesOf, refused } from '../archive/archive-part';
import { studentsFile } from '../students/student.archive';
import { AttemptCorrectionEntity, AttemptEntity } from './attempt.entity';

/** Sheets are written anew elsewhere, so that which item it was is told by its title only. */
export const attemptArchive = archivePart({
  file: 'attempts.json',
  since: 6,
  schema: archiveAttemptSchema,
  read: async function* (database, studioId, signs) {
    // Two of one moment stand by their titles, so that a backup of the same log is the same.
    for await (const attempts of pagesOf(database, AttemptEntity, studioId, 'at, title, id')) {
      const corrections = await database.of(AttemptCorrectionEntity).find({
        where: { studioId, attemptId: In(attempts.map(({ id }) => id)) },
        order: { createdAt: 'ASC', id: 'ASC' },
      });
      const byAttempt = new Map<string, AttemptCorrectionEntity[]>();
      for (const each of corrections) byAttempt.set(each.attemptId, [...(byAttempt.get(each.attemptId) ?? []), each]);
      yield attempts.map(({ id, studentId, studioId: _, itemId: __, lessonId: ____, createdAt: ___, at, by, ...attempt }) => ({
        student: signs.of(studentId),
        attempt: { ...attempt, at: at.toISOString() },
        by,
        corrections: (byAttempt.get(id) ?? []).map(({ rating, note, who, createdAt }) => ({ rating, note, who, at: createdAt.toISOString() })),
      }));
    }
  },
  check: ({ signsIn }) => ({
    each: ({ student }) => {
      if (!signsIn(studentsFile).has(student)) throw refused('A try in this backup belongs to a student who is not in it.');
    },
  }),
  write: ({ database, studioId, idOf, modelOf }) => {
    let count = 0;
    const some = async (attempts: readonly z.infer<typeof archiveAttemptSchema>[]): Promise<void> => {
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
      count += rows.length;
    };
    return { some: (checked) => some(checked.map(({ item }) => item)), brought: () => ({ count }) };
  },
});
