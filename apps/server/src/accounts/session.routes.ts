import { sessionRoutes } from '@zelpit/contract';
import { respond, type Endpoints } from '../http/endpoints';
import { HttpProblem } from '../http/problem';
import type { AccountRepository } from './account.repository';
import { passwordMatches } from './password';
import type { Tries } from './tries';
import { keepRights, signInAs, visitorOf, type Sessions } from './session';
import type { AnswerSession } from './session-answer';

export function serveSession(endpoints: Endpoints, accounts: AccountRepository, tries: Tries, sessions: Sessions, answer: AnswerSession): void {
  const visitor = visitorOf(accounts);

  endpoints.serveAnyone(sessionRoutes.session, async ({ request }) => {
    const who = await visitor(request);
    // Other rights than before come with another id.
    if (who !== undefined) await keepRights(request, who.role);
    return respond(200, await answer(request, who));
  });

  endpoints.serveAnyone(sessionRoutes.signIn, async ({ request, body: { email, password } }) => {
    await tries.takePassword(email, request);
    const account = await accounts.byEmail(email);
    const matches = await passwordMatches(account?.passwordHash, password);
    const [studio] = account === undefined || !matches ? [] : await accounts.studiosOf(account.id);
    if (account === undefined || studio === undefined) throw new HttpProblem('wrong-sign-in', 'The e-mail address or the password is wrong.');
    await tries.passwordWasRight(email, request);
    await signInAs(request, { studioId: studio.id, teacherId: account.id });
    return respond(200, await answer(request, await visitor(request)));
  });

  endpoints.serveAnyone(sessionRoutes.signOut, async ({ request }) => {
    await sessions.end(request);
    const body = await answer(request, undefined);
    // What the browser has kept of the studio's answers goes with the session.
    return respond(200, body, { headers: { 'clear-site-data': '"cache"' } });
  });
}
