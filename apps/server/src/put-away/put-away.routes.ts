import { Router } from 'express';
import { studioOf } from '../accounts/session';
import { idOf } from '../http/id-of';
import { notFound } from '../http/problem';
import type { PutAwayRepository } from './put-away.repository';

export function putAwayRoutes(putAway: PutAwayRepository): Router {
  const router = Router();

  router.get('/put-away', async (request, response) => {
    response.json(await putAway.list(studioOf(request)));
  });

  router.delete('/put-away/students/:id', async (request, response) => {
    if (!(await putAway.forget(studioOf(request), idOf(request, 'student')))) throw notFound('student');
    response.status(204).end();
  });

  return router;
}
