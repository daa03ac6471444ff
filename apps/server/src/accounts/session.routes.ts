import { signInSchema, type Session } from '@zelpit/contract';
import { Router, type Request } from 'express';
import { rateLimit } from 'express-rate-limit';
import { HttpProblem } from '../http/problem';
import { demoSignIn } from '../demo/demo-studio.data';
import type { AccountRepository, TeacherAccount } from './account.repository';
import { passwordMatches } from './password';
import { csrfToken, saveSession, startFresh } from './session';

const quarterHour = 15 * 60 * 1000;
const wrongTries = 10;

export function sessionRoutes(accounts: AccountRepository, isDemo: boolean): Router {
  const router = Router();

  const answer = async (request: Request, teacher: TeacherAccount | undefined): Promise<Session> => ({
    token: csrfToken(request),
    demo: isDemo && (await accounts.hasDemoStudio()) ? demoSignIn : null,
    signedIn: teacher === undefined ? null : { teacher: { id: teacher.id, name: teacher.name }, studio: teacher.studio },
  });

  router.get('/session', async (request, response) => {
    const { teacherId } = request.session;
    const teacher = teacherId === undefined ? undefined : await accounts.byId(teacherId);
    response.json(await answer(request, teacher));
  });

  const limit = rateLimit({
    windowMs: quarterHour,
    limit: wrongTries,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    handler: () => {
      throw new HttpProblem(429, 'Too many tries', 'Too many wrong passwords from this computer. Wait a quarter of an hour and try again.');
    },
  });

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
