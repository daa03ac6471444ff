import { trialRoutes, type TrialResult } from '@zelpit/contract';
import { fingerOf, noteOf, type Instrument } from '@zelpit/core';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { ModelRepository } from '../models/model.repository';
import { StudentRepository } from '../students/student.repository';
import type { ThingParts } from '../things/thing';
import { TrialRepository } from './trial.repository';

/** @throws ZelpitFault `unknown-note`, `unknown-finger` where the result speaks of what its instrument does not have */
function assertOf(instrument: Instrument, result: TrialResult): void {
  if (result.kind === 'fault-hunt' || result.kind === 'foretold') return;
  noteOf(instrument, result.from);
  noteOf(instrument, result.to);
  if (result.kind === 'fingers') for (const { finger } of result.fingers) fingerOf(instrument, finger);
}

export function serveTrials(endpoints: Endpoints, { database }: ThingParts): void {
  const [trials, students, models] = [new TrialRepository(database), new StudentRepository(database), new ModelRepository(database)];

  endpoints.serve(trialRoutes.trials, async ({ visitor: { studioId, studentId }, query }) => {
    if (studentId === undefined) return respond(200, await trials.list(studioId, query));
    if (query.student !== undefined && query.student !== studentId) return respond(200, { items: [], next: null });
    return respond(200, await trials.list(studioId, { ...query, student: studentId }));
  });

  endpoints.serve(trialRoutes.addTrial, async ({ visitor: { studioId, studentId: own }, body }) => {
    const studentId = own ?? body.studentId;
    if (own !== undefined && body.studentId !== null && body.studentId !== own)
      throw new HttpProblem('not-allowed', 'A student’s results can only be saved for that student.');
    if (studentId !== null && !(await students.has(studioId, studentId))) throw notFound('student');
    assertOf(await models.known(studioId, body.model), body.result);
    return respond(201, await trials.add(studioId, { ...body, studentId }));
  });

  endpoints.serve(trialRoutes.dropTrial, async ({ request, visitor: { studioId } }) => {
    if (!(await trials.drop(studioId, idOf(request, 'result')))) throw notFound('result');
    return respond(204, undefined);
  });
}
