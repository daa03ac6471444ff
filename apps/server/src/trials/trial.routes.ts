import { routes, type TrialResult } from '@zelpit/contract';
import { fingerOf, noteOf, type Instrument } from '@zelpit/core';
import { idOf, said, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import type { ModelRepository } from '../instruments/model.repository';
import type { StudentRepository } from '../students/student.repository';
import type { TrialRepository } from './trial.repository';

/** @throws ZelpitFault `unknown-note`, `unknown-finger` where the result speaks of what its instrument does not have */
function assertOf(instrument: Instrument, result: TrialResult): void {
  if (result.kind === 'fault-hunt') return;
  noteOf(instrument, result.from);
  noteOf(instrument, result.to);
  if (result.kind === 'fingers') for (const { finger } of result.fingers) fingerOf(instrument, finger);
}

export function trialRoutes(endpoints: Endpoints, trials: TrialRepository, students: StudentRepository, models: ModelRepository): void {
  endpoints.serve(routes.trials, async ({ visitor: { studioId, studentId }, query }) => {
    if (studentId === undefined) return said(200, await trials.list(studioId, query));
    if (query.student !== undefined && query.student !== studentId) return said(200, { items: [], next: null });
    return said(200, await trials.list(studioId, { ...query, student: studentId }));
  });

  endpoints.serve(routes.addTrial, async ({ visitor: { studioId, studentId: own }, body }) => {
    const studentId = own ?? body.studentId;
    if (own !== undefined && body.studentId !== null && body.studentId !== own)
      throw new HttpProblem(403, 'Not yours', 'A student’s results are kept for that student only.');
    if (studentId !== null && !(await students.has(studioId, studentId))) throw notFound('student');
    assertOf(await models.known(studioId, body.model), body.result);
    return said(201, await trials.add(studioId, { ...body, studentId }));
  });

  endpoints.serve(routes.dropTrial, async ({ request, visitor: { studioId } }) => {
    if (!(await trials.drop(studioId, idOf(request, 'result')))) throw notFound('result');
    return said(204, undefined);
  });
}
