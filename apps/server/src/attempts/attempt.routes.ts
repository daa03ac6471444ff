import { attemptRoutes } from '@zelpit/contract';
import { logbookOf } from '@zelpit/core';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { ModelRepository } from '../models/model.repository';
import { StudentRepository } from '../students/student.repository';
import type { ThingParts } from '../things/thing';
import { AttemptRepository } from './attempt.repository';

/** A clock that is a day fast is still believed; one that is wrong by more is not. */
const mostAheadMs = 86_400_000;
const earliest = Date.parse('2020-01-01T00:00:00Z');

function assertMoment(at: string): void {
  const moment = Date.parse(at);
  if (moment > Date.now() + mostAheadMs) throw new HttpProblem('not-understood', 'This try lies in the future. Set the clock of the device, then try again.');
  if (moment < earliest) throw new HttpProblem('not-understood', 'This try lies before 2020. Set the clock of the device, then try again.');
}

export function serveAttempts(endpoints: Endpoints, { database }: ThingParts): void {
  const [attempts, students, models] = [new AttemptRepository(database), new StudentRepository(database), new ModelRepository(database)];

  endpoints.serve(attemptRoutes.attempts, async ({ visitor: { studioId, studentId }, query }) => {
    if (studentId === undefined) return respond(200, await attempts.list(studioId, query));
    if (query.student !== undefined && query.student !== studentId) return respond(200, { items: [], next: null });
    return respond(200, await attempts.list(studioId, { ...query, student: studentId }));
  });

  endpoints.serve(attemptRoutes.logbook, async ({ visitor: { studioId, studentId }, query: { student, since, days, offset } }) => {
    const whose = studentId ?? student;
    // Somebody else's is not there for a student, nor is nobody's for a teacher.
    if (whose === undefined || (student !== undefined && student !== whose)) throw notFound('student');
    const logged = await attempts.logged(studioId, whose, since);
    // Whoever has a log is there.
    if (logged.length === 0 && !(await students.has(studioId, whose))) throw notFound('student');
    const { items, ...rest } = logbookOf(logged, Date.now(), days, offset);
    return respond(200, { items: items.map(({ weeks, ...item }) => ({ ...item, weeks: [...weeks] })), days: [...rest.days], ladders: [...rest.ladders] });
  });

  endpoints.serve(attemptRoutes.addAttempt, async ({ visitor: { studioId, studentId: own }, body }) => {
    if (own !== undefined && body.studentId !== own) throw new HttpProblem('not-allowed', 'A student’s practice can only be logged for that student.');
    if (!(await students.has(studioId, body.studentId))) throw notFound('student');
    assertMoment(body.at);
    await models.known(studioId, body.model);
    return respond(201, await attempts.add(studioId, body, own === undefined ? 'teacher' : 'student'));
  });

  endpoints.serve(attemptRoutes.correctAttempt, async ({ request, visitor: { studioId, name }, body }) => {
    const id = idOf(request, 'try');
    const attempt = await attempts.get(studioId, id);
    if (attempt === undefined) throw notFound('try');
    await attempts.correct(studioId, attempt, body, name);
    const corrected = await attempts.get(studioId, id);
    if (corrected === undefined) throw notFound('try');
    return respond(200, corrected);
  });
}
