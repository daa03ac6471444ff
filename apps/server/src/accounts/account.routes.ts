import { passwordChangeSchema } from '@zelpit/contract';
import { Router } from 'express';
import { HttpProblem, notFound } from '../http/problem';
import type { AccountRepository } from './account.repository';
import { hashPassword, passwordMatches } from './password';
import { wrongPasswordLimit } from './password-limit';
import { teacherOf } from './session';

/** What a teacher does with the own account; only behind the sign-in. */
export function accountRoutes(accounts: AccountRepository): Router {
  const router = Router();

  router.put('/account/password', wrongPasswordLimit(), async (request, response) => {
    const { current, next } = passwordChangeSchema.parse(request.body);
    const teacher = await accounts.byId(teacherOf(request));
    if (teacher === undefined) throw notFound('teacher');
    if (teacher.studio.isDemo) throw new HttpProblem(422, 'Cannot be done', 'The demo studio keeps its password: it stands on the sign-in page.');
    if (!(await passwordMatches(teacher.passwordHash, current)))
      throw new HttpProblem(403, 'Wrong password', 'That is not the password that holds now. Nothing was changed.');
    await accounts.setPassword(teacher.id, await hashPassword(next));
    await accounts.endSessions(teacher.id, request.sessionID);
    response.status(204).end();
  });

  router.delete('/account/sessions', async (request, response) => {
    await accounts.endSessions(teacherOf(request));
    response.status(204).end();
  });

  return router;
}
