import { accountRoutes, resetHours } from '@zelpit/contract';
import type { Database } from '../database/database';
import { respond, type Endpoints, type Visitor } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import type { AccountRepository } from './account.repository';
import type { LinkRepository } from './link.repository';
import type { MailRepository } from './mail.repository';
import { resetMail } from './mails';
import { hashPassword, passwordMatches } from './password';
import { askingLimit, wrongPasswordLimit } from './password-limit';
import { linkAddress } from './this-computer';

export interface AccountParts {
  readonly database: Database;
  readonly accounts: AccountRepository;
  readonly links: LinkRepository;
  readonly mail: MailRepository;
  /** Where people reach this server, for links in mails; absent for loopback. */
  readonly address: string | undefined;
}

/** The teacher who is signed in. @throws HttpProblem where it is somebody else */
export function teacherIdOf({ teacherId }: Visitor): string {
  if (teacherId === undefined) throw notFound('teacher');
  return teacherId;
}

/** What teachers do with their own account. */
export function serveAccount(endpoints: Endpoints, { database, accounts, links, mail, address }: AccountParts): void {
  endpoints.serve(
    accountRoutes.changePassword,
    async ({ request, visitor, body: { current, next } }) => {
      const teacher = await accounts.byId(teacherIdOf(visitor));
      if (teacher === undefined) throw notFound('teacher');
      if (teacher.studio.isDemo) throw new HttpProblem('not-possible', 'The demo studio’s password cannot be changed: it is shown on the sign-in page.');
      if (!(await passwordMatches(teacher.passwordHash, current)))
        throw new HttpProblem('wrong-password', 'That is not your current password. Nothing was changed.');
      await accounts.setPassword(teacher.id, await hashPassword(next));
      await links.endResets(teacher.id);
      await accounts.endSessions(teacher.id, request.sessionID);
      return respond(204, undefined, { audit: { did: 'set a password for', kind: 'teacher', id: teacher.id, name: teacher.name } });
    },
    { before: [wrongPasswordLimit()] },
  );

  endpoints.serve(accountRoutes.endSessions, async ({ visitor }) => {
    await accounts.endSessions(teacherIdOf(visitor));
    return respond(204, undefined);
  });

  endpoints.serveAnyone(
    accountRoutes.askReset,
    async ({ request, body: { email } }) => {
      const teacher = await accounts.byEmail(email);
      if (teacher !== undefined && !teacher.studio.isDemo) {
        await database.transaction(async () => {
          const input = { studioId: teacher.studio.id, purpose: 'reset', name: teacher.name, email, teacherId: teacher.id, hours: resetHours } as const;
          const { token } = await links.add(input);
          const { subject, body } = resetMail(teacher.name, linkAddress(request, address, token));
          await mail.add(teacher.studio.id, email, subject, body);
        });
      }
      return respond(204, undefined);
    },
    askingLimit(),
  );
}
