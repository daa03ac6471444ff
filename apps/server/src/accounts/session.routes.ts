import { signInSchema, type Session } from '@zelpit/contract';
import { Router, type Request } from 'express';
import { HttpProblem } from '../http/problem';
import { demoSignIn } from '../demo/demo-studio.data';
import type { AccountRepository, TeacherAccount } from './account.repository';
import { passwordMatches } from './password';
import { wrongPasswordLimit } from './password-limit';
import { csrfToken, saveSession, startFresh } from './session';

export function sessionRoutes(accounts: AccountRepository, isDemo: boolean): Router {
  const router = Router();

  const answer = async (request: Request, teacher: TeacherAccount | undefined): Promise<Session> => ({
    token: csrfToken(request),
    demo: isDemo && (await accounts.hasDemoStudio()) ? demoSignIn : null,
    signedIn: teacher === undefined ? null : { teacher: { id: teacher.id, name: teacher.name }, studio: { id: teacher.studio.id, name: teacher.studio.name } },
  });

  router.get('/session', async (request, response) => {
    const { teacherId } = request.session;
    const teacher = teacherId === undefined ? undefined : await accounts.byId(teacherId);
    response.json(await answer(request, teacher));
  });

  const limit = wrongPasswordLimit();

  router.post('/session', limit, async (request, response) => {
    const { email, password } = signInSchema.parse(request.body);
    const teacher = await accounts.byEmail(email);
    if (!(await passwordMatches(teacher?.passwordHash, password)) || teacher === undefined) {
      throw new HttpProblem(401, 'Not signed in', 'E-mail address and password do not belong together.');
    }
    await startFresh(request);
    request.session.teacherId = teacher.id;
    request.session.studioId = teacher.studio.id;
    const body = await answer(request, teacher);
    await saveSession(request);
    response.json(body);
  });

  router.delete('/session', async (request, response) => {
    await startFresh(request);
    const body = await answer(request, undefined);
    await saveSession(request);
    response.json(body);
  });

  return router;
}
