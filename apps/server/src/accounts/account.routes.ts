import { accountRoutes, resetHours } from '@zelpit/contract';
import type { Request } from 'express';
import { setTimeout as pause } from 'node:timers/promises';
import type { Database } from '../database/database';
import { respond, type Endpoints, type Visitor } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import type { AccountRepository } from './account.repository';
import type { LinkRepository } from './link.repository';
import type { MailRepository } from './mail.repository';
import { resetMail } from './mails';
import { hashPassword, passwordMatches } from './password';
import { addressOf, type Tries } from './tries';
import { assertHardToGuess } from './judge-password';
import { renew } from './session';
import { linkAddress } from './this-computer';

/** How long it takes to ask for a new password, whether such an account is here or not. */
const resetMs = 200;

export interface AccountParts {
  readonly database: Database;
  readonly accounts: AccountRepository;
  readonly links: LinkRepository;
  readonly tries: Tries;
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
export function serveAccount(endpoints: Endpoints, { database, accounts, links, tries, mail, address }: AccountParts): void {
  endpoints.servePrepared(
    accountRoutes.changePassword,
    // Counted outside of the transaction, which a wrong password takes back.
    async ({ request, visitor, body: { current, next } }) => {
      const teacher = await accounts.byId(teacherIdOf(visitor));
      if (teacher === undefined) throw notFound('teacher');
      if (await accounts.isOfDemo(teacher.id))
        throw new HttpProblem('not-possible', 'The demo studio’s password cannot be changed: it is shown on the sign-in page.');
      await tries.takePassword(teacher.email, request);
      if (!(await passwordMatches(teacher.passwordHash, current)))
        throw new HttpProblem('wrong-password', 'That is not your current password. Nothing was changed.');
      await tries.passwordWasRight(teacher.email, request);
      assertHardToGuess(next, [teacher.name, teacher.email, visitor.studioName]);
      return { ...teacher, passwordHash: await hashPassword(next) };
    },
    async ({ request, visitor }, { id, name, passwordHash }) => {
      await accounts.setPassword(id, passwordHash);
      await links.endResets(id);
      await accounts.endSessions(id, { except: request.sessionID });
      await renew(request, visitor.role);
      return respond(204, undefined, { audit: { did: 'set a password for', kind: 'teacher', id, name } });
    },
  );

  endpoints.serve(accountRoutes.endSessions, async ({ visitor }) => {
    await accounts.endSessions(teacherIdOf(visitor));
    return respond(204, undefined);
  });

  const reset = async (request: Request, email: string): Promise<void> => {
    const account = await accounts.byEmail(email);
    const studios = account === undefined ? [] : await accounts.studiosOf(account.id);
    const [studio] = studios;
    if (account !== undefined && studio !== undefined && !studios.some(({ isDemo }) => isDemo)) {
      await database.inStudio(studio.id, async () => {
        const input = { studioId: studio.id, purpose: 'reset', name: account.name, email, teacherId: account.id, hours: resetHours } as const;
        const { token } = await links.add(input);
        const { subject, body } = resetMail(account.name, linkAddress(request, address, token));
        await mail.add(studio.id, email, subject, body);
      });
    }
  };

  endpoints.serveAnyone(accountRoutes.askReset, async ({ request, body: { email } }) => {
    await tries.take('asking from address', addressOf(request));
    await tries.take('reset of account', email);
    // It takes as long for an address that nobody has.
    await Promise.all([reset(request, email), pause(resetMs)]);
    return respond(204, undefined);
  });
}
