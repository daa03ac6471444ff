import { routes } from '@zelpit/contract';
import { said, idOf, type Endpoints } from '../http/endpoints';
import { notFound } from '../http/problem';
import type { PutAwayRepository } from './put-away.repository';

export function putAwayRoutes(endpoints: Endpoints, putAway: PutAwayRepository): void {
  endpoints.serve(routes.putAway, async ({ visitor, query }) => said(200, await putAway.list(visitor.studioId, query)));

  endpoints.serve(routes.forgetStudent, async ({ request, visitor }) => {
    if (!(await putAway.forget(visitor.studioId, idOf(request, 'student')))) throw notFound('student');
    // No name: nothing of the student stays.
    return said(204, undefined, { deed: { did: 'deleted', kind: 'student', name: 'a student' } });
  });
}
