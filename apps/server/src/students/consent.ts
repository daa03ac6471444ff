import type { Database } from '../database/database';
import { HttpProblem, notFound } from '../http/problem';
import { StudentRepository } from './student.repository';

/**
 * A student is recorded, and heard, only where a guardian has agreed; a teacher's own sound (null) needs nobody's word. Belongs into a transaction.
 * @throws HttpProblem where nobody has agreed, or does not any more
 */
export async function assertConsent(database: Database, studioId: string, studentId: string | null): Promise<void> {
  if (studentId === null) return;
  const student = await new StudentRepository(database).get(studioId, studentId);
  if (student === undefined) throw notFound('student');
  if (student.consent === null)
    throw new HttpProblem(
      'not-allowed',
      `No guardian has agreed that ${student.alias} is recorded. Nothing is kept, and what was kept before is not played: it can only be deleted.`,
    );
}
