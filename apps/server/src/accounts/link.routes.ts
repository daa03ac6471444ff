import { accountRoutes, type LinkUse } from '@zelpit/contract';
import type { AuditRepository } from '../audit/audit.repository';
import { respond, type Endpoints } from '../http/endpoints';
import { HttpProblem } from '../http/problem';
import type { AccountParts } from './account.routes';
import { isCodeOf, type LinkPurpose, type OpenLink } from './link.repository';
import { hashPassword, passwordMatches } from './password';
import { assertHardToGuess } from './judge-password';
import { signInAs, visitorOf, type SignedIn } from './session';
import type { AnswerSession } from './session-answer';
import { addressOf } from './tries';
import { isFromThisComputer } from './this-computer';

const deadLink = (): HttpProblem => new HttpProblem('link-used-up', 'This link has already been used, has expired, or is incomplete. Ask for a new one.');
/** Links that open a student's own pages. */
const isOfFamily = (purpose: LinkPurpose): boolean => purpose === 'student' || purpose === 'parent' || purpose === 'door';
const missing = (path: string, message: string): HttpProblem => new HttpProblem('not-understood', message, { fields: [{ path, message }] });

/** Links: one-time ones, and a student's private one. */
export function serveLinks(endpoints: Endpoints, parts: AccountParts, audit: AuditRepository, answer: AnswerSession): void {
  const { database, accounts, links, tries } = parts;

  endpoints.serveAnyone(accountRoutes.lookAtLink, async ({ request, body: { token } }) => {
    await tries.take('asking from address', addressOf(request));
    const link = await links.open(token);
    if (link === undefined) throw deadLink();
    const { purpose, name, email, studioId } = link;
    return respond(200, { purpose, name, email, studio: await database.inStudio(studioId, () => accounts.studioName(studioId)) });
  });

  /** The address of an invitation whose account is there already, so that its password is asked for. */
  const invitedAccount = async (token: string): Promise<string | undefined> => {
    const link = await links.open(token);
    if (link?.purpose !== 'invitation') return undefined;
    return (await accounts.byEmail(link.email))?.email;
  };

  /** Does what the link is for and says who is signed in by it. */
  const follow = async (link: OpenLink, { name, password }: LinkUse): Promise<SignedIn> => {
    const { studioId } = link;
    if (isOfFamily(link.purpose)) {
      if (link.studentId === null || (await accounts.studentVisitor(studioId, link.studentId)) === undefined) throw deadLink();
      return { studioId, studentId: link.studentId, ...(link.purpose === 'parent' && { isParent: true }) };
    }
    if (password === undefined) throw missing('password', 'Enter a password.');
    if (link.purpose === 'reset' && link.teacherId !== null) {
      assertHardToGuess(password, [link.name, link.email]);
      await accounts.setPassword(link.teacherId, await hashPassword(password));
      await accounts.endSessions(link.teacherId);
      await audit.add(
        { studioId, teacherId: link.teacherId, name: link.name },
        { did: 'set a password for', kind: 'teacher', id: link.teacherId, name: link.name },
      );
      await links.endResets(link.teacherId);
      return { studioId, teacherId: link.teacherId };
    }
    const account = await accounts.byEmail(link.email);
    if (account !== undefined && !(await passwordMatches(account.passwordHash, password)))
      throw new HttpProblem('address-taken', 'You already have an account with this e-mail address. Enter its password to join this studio with it.');
    // Its password stands on the sign-in page: whoever reads it would be in this studio too.
    if (account !== undefined && (await accounts.isOfDemo(account.id)))
      throw new HttpProblem(
        'not-possible',
        'Everyone can use the account of the demo, so it cannot join a studio. Ask for an invitation to an address of your own.',
      );
    if (account === undefined) assertHardToGuess(password, [name ?? link.name, link.email]);
    const joined = account?.name ?? name ?? link.name;
    const teacherId = account?.id ?? (await accounts.addAccount({ name: joined, email: link.email, passwordHash: await hashPassword(password) }));
    await accounts.join(studioId, teacherId, 'teacher');
    const studio = await accounts.studioName(studioId);
    await audit.add({ studioId, teacherId, name: joined }, { did: 'joined', kind: 'studio', id: studioId, name: studio });
    return { studioId, teacherId };
  };

  endpoints.serveAnyone(accountRoutes.takeLink, async ({ request, body }) => {
    await tries.take('asking from address', addressOf(request));
    // Who holds an invitation for somebody's address guesses their password no faster than anybody else.
    const guarded = await invitedAccount(body.token);
    if (guarded !== undefined) await tries.takePassword(guarded, request);
    const door = await openedDoor(parts, body);
    const who = await database.transaction(async () => {
      // A private link opens again and again, every other one once.
      const link = door ?? (await links.use(body.token));
      if (link === undefined) throw deadLink();
      return database.inStudio(link.studioId, () => follow(link, body));
    });
    if (guarded !== undefined) await tries.passwordWasRight(guarded, request);
    await signInAs(request, who);
    return respond(200, await answer(request, await visitorOf(accounts)(request)));
  });
}

/** A private link whose code is right; undefined for a link of another kind. */
async function openedDoor({ links, tries }: AccountParts, { token, code }: LinkUse): Promise<OpenLink | undefined> {
  const link = await links.open(token);
  if (link?.purpose !== 'door') return undefined;
  if (code === undefined) throw missing('code', 'Enter the code that came with the link.');
  await tries.take('code of link', link.id);
  if (!isCodeOf(link, code)) throw new HttpProblem('wrong-code', 'That is not the code of this link.');
  await tries.codeWasRight(link.id);
  return link;
}

/** What would be mailed, for whoever sits at the server. */
export function serveOutbox(endpoints: Endpoints, { mail }: AccountParts, hasOutbox: boolean): void {
  endpoints.serveAnyone(accountRoutes.outbox, async ({ request, query }) => {
    if (!hasOutbox || !isFromThisComputer(request))
      throw new HttpProblem('only-on-the-server', 'The outbox can only be read on the computer that runs Zelpit.');
    return respond(200, await mail.list(query));
  });
}
