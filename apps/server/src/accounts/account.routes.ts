import { passwordChangeSchema } from '@zelpit/contract';
import { Router, type Request } from 'express';
import { HttpProblem } from '../http/problem';
import type { AccountRepository, TeacherAccount } from './account.repository';
import { hashPassword, passwordMatches } from './password';
import { wrongPasswordLimit } from './password-limit';

/** What a teacher does with the own account; only behind the sign-in. */
export function accountRoutes(accounts: AccountRepository): Router {
  const router = Router();

  const own = async (request: Request): Promise<TeacherAccount> => {
    const teacher = await accounts.byId(request.session.teacherId ?? '');
    if (teacher === undefined) throw new HttpProblem(401, 'Not signed in', 'Sign in first.');
    return teacher;
  };

  router.put('/account/password', wrongPasswordLimit(), async (request, response) => {
    const { current, next } = passwordChangeSchema.parse(request.body);
    const teacher = await own(request);
    if (teacher.studio.isDemo) throw new HttpProblem(422, 'Cannot be done', 'The demo studio keeps its password: it stands on the sign-in page.');
    if (!(await passwordMatches(teacher.passwordHash, current)))
      throw new HttpProblem(403, 'Wrong password', 'That is not the password that holds now. Nothing was changed.');
    await accounts.setPassword(teacher.id, await hashPassword(next));
    await accounts.endSessions(teacher.id, request.sessionID);
    response.status(204).end();
  });

  router.delete('/account/sessions', async (request, response) => {
    await accounts.endSessions((await own(request)).id);
    response.status(204).end();
  });

  return router;
}
