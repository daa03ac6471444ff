import { putAwayRoutes } from '@zelpit/contract';
import { respond, idOf, type Endpoints } from '../http/endpoints';
import { notFound } from '../http/problem';
import type { PutAwayRepository } from './put-away.repository';

export function servePutAway(endpoints: Endpoints, putAway: PutAwayRepository): void {
  endpoints.serve(putAwayRoutes.putAway, async ({ visitor, query }) => respond(200, await putAway.list(visitor.studioId, query)));

  endpoints.serve(putAwayRoutes.forgetStudent, async ({ request, visitor }) => {
    if (!(await putAway.forget(visitor.studioId, idOf(request, 'student')))) throw notFound('student');
    // No name: nothing of the student stays.
    return respond(204, undefined, { audit: { did: 'deleted', kind: 'student', name: 'a student' } });
  });
}
