import { accountRoutes, type LinkUse } from '@zelpit/contract';
import type { AuditRepository } from '../audit/audit.repository';
import { respond, type Endpoints } from '../http/endpoints';
import { HttpProblem } from '../http/problem';
import type { AccountParts } from './account.routes';
import type { OpenLink } from './link.repository';
import { hashPassword } from './password';
import { askingLimit } from './password-limit';
import { signInAs, visitorOf } from './session';
import type { AnswerSession } from './session-answer';
import { isFromThisComputer } from './this-computer';

const deadLink = (): HttpProblem => new HttpProblem('link-used-up', 'This link has already been used, has expired, or is incomplete. Ask for a new one.');
const missing = (path: string, message: string): HttpProblem => new HttpProblem('not-understood', message, { fields: [{ path, message }] });

/** One-time links, and the outbox that shows the mails in which they stand. */
export function serveLinks(endpoints: Endpoints, parts: AccountParts, audit: AuditRepository, answer: AnswerSession, hasOutbox: boolean): void {
  const { database, accounts, links, mail } = parts;

  endpoints.serveAnyone(
    accountRoutes.lookAtLink,
    async ({ body: { token } }) => {
      const link = await links.open(token);
      if (link === undefined) throw deadLink();
      const { purpose, name, email, studioId } = link;
      return respond(200, { purpose, name, email, studio: await accounts.studioName(studioId) });
    },
    askingLimit(),
  );

  /** Does what the link is for and says who is signed in by it. */
  const follow = async (link: OpenLink, { name, password }: LinkUse): Promise<{ teacherId: string } | { studentId: string }> => {
    if (link.purpose === 'student' && link.studentId !== null) {
      if ((await accounts.studentVisitor(link.studentId)) === undefined) throw deadLink();
      return { studentId: link.studentId };
    }
    if (password === undefined) throw missing('password', 'Enter a password.');
    const passwordHash = await hashPassword(password);
    if (link.purpose === 'reset' && link.teacherId !== null) {
      await accounts.setPassword(link.teacherId, passwordHash);
      await accounts.endSessions(link.teacherId);
      await audit.add(
        { studioId: link.studioId, teacherId: link.teacherId, name: link.name },
        { did: 'set a password for', kind: 'teacher', id: link.teacherId, name: link.name },
      );
      await links.endResets(link.teacherId);
      return { teacherId: link.teacherId };
    }
    if ((await accounts.byEmail(link.email)) !== undefined)
      throw new HttpProblem('address-taken', 'There is already an account with this e-mail address. Sign in with it.');
    const joined = name ?? link.name;
    const teacherId = await accounts.addTeacher(link.studioId, { name: joined, email: link.email, passwordHash, role: 'teacher' });
    await audit.add(
      { studioId: link.studioId, teacherId, name: joined },
      { did: 'joined', kind: 'studio', id: link.studioId, name: await accounts.studioName(link.studioId) },
    );
    return { teacherId };
  };

  endpoints.serveAnyone(
    accountRoutes.takeLink,
    async ({ request, body }) => {
      const who = await database.transaction(async () => {
        const link = await links.use(body.token);
        if (link === undefined) throw deadLink();
        return follow(link, body);
      });
      await signInAs(request, who);
      return respond(200, await answer(request, await visitorOf(accounts)(request)));
    },
    askingLimit(),
  );

  endpoints.serveAnyone(accountRoutes.outbox, async ({ request, query }) => {
    if (!hasOutbox || !isFromThisComputer(request))
      throw new HttpProblem('only-on-the-server', 'The outbox can only be read on the computer that runs Zelpit.');
    return respond(200, await mail.list(query));
  });
}
