import { sessionRoutes } from '@zelpit/contract';
import { respond, type Endpoints } from '../http/endpoints';
import { HttpProblem } from '../http/problem';
import type { AccountRepository } from './account.repository';
import { passwordMatches } from './password';
import { wrongPasswordLimit } from './password-limit';
import { saveSession, signInAs, startFresh, visitorOf } from './session';
import type { AnswerSession } from './session-answer';

export function serveSession(endpoints: Endpoints, accounts: AccountRepository, answer: AnswerSession): void {
  const visitor = visitorOf(accounts);

  endpoints.serveAnyone(sessionRoutes.session, async ({ request }) => respond(200, await answer(request, await visitor(request))));

  endpoints.serveAnyone(
    sessionRoutes.signIn,
    async ({ request, body: { email, password } }) => {
      const teacher = await accounts.byEmail(email);
      if (!(await passwordMatches(teacher?.passwordHash, password)) || teacher === undefined) {
        throw new HttpProblem('wrong-sign-in', 'The e-mail address or the password is wrong.');
      }
      await signInAs(request, { teacherId: teacher.id });
      return respond(200, await answer(request, await visitor(request)));
    },
    wrongPasswordLimit(),
  );

  endpoints.serveAnyone(sessionRoutes.signOut, async ({ request }) => {
    await startFresh(request);
    const body = await answer(request, undefined);
    await saveSession(request);
    // What the browser has kept of the studio's answers goes with the session.
    return respond(200, body, { headers: { 'clear-site-data': '"cache"' } });
  });
}
