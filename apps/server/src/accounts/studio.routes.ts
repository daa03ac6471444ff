import { accountRoutes, invitationDays, type Teacher } from '@zelpit/contract';
import { respond, idOf, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import type { AccountParts } from './account.routes';
import { invitationMail } from './mails';
import { hashPassword } from './password';
import { assertHardToGuess } from './judge-password';
import { signInAs, visitorOf } from './session';
import { addressOf } from './tries';
import type { AnswerSession } from './session-answer';
import { linkAddress, isFromThisComputer } from './this-computer';

const emailTaken = (): HttpProblem =>
  new HttpProblem('address-taken', 'There is already an account with this e-mail address. Sign in with it, or use another address.');

const teachesHere = (): HttpProblem => new HttpProblem('address-taken', 'Somebody with this e-mail address already teaches in this studio.');

/** Creating a studio, and who teaches in it. */
export function serveStudio(endpoints: Endpoints, parts: AccountParts, answer: AnswerSession): void {
  const { database, accounts, links, mail, tries, address } = parts;

  endpoints.serveAnyone(accountRoutes.createStudio, async ({ request, body: { studio, name, email, password } }) => {
    await tries.take('asking from address', addressOf(request));
    if ((await accounts.hasAnyStudio()) && !isFromThisComputer(request))
      throw new HttpProblem(
        'only-on-the-server',
        'A new studio can only be created on the computer that runs Zelpit. Ask the person who runs it, or ask the owner of a studio to invite you.',
      );
    assertHardToGuess(password, [studio, name, email]);
    const passwordHash = await hashPassword(password);
    const who = await database.transaction(async () => {
      if ((await accounts.byEmail(email)) !== undefined) throw emailTaken();
      const teacherId = await accounts.addAccount({ name, email, passwordHash });
      const studioId = await accounts.addStudio(studio);
      await database.inStudio(studioId, () => accounts.join(studioId, teacherId, 'owner'));
      return { studioId, teacherId };
    });
    await signInAs(request, who);
    return respond(201, await answer(request, await visitorOf(accounts)(request)));
  });

  endpoints.serve(accountRoutes.renameStudio, async ({ visitor: { studioId }, body: { name } }) => {
    await accounts.renameStudio(studioId, name);
    return respond(200, { id: studioId, name }, { audit: { did: 'changed', kind: 'studio', id: studioId, name } });
  });

  endpoints.serve(accountRoutes.teachers, async () => respond(200, await accounts.teachers()));

  /** The teacher named in the address; a studio never loses its last owner. */
  const teacherToChange = async (studioId: string, id: string, staysOwner: boolean): Promise<Teacher> => {
    const all = await accounts.lockTeachers(studioId);
    const teacher = all.find((each) => each.id === id);
    if (teacher === undefined) throw notFound('teacher');
    if (!staysOwner && teacher.role === 'owner' && all.filter((each) => each.role === 'owner').length === 1)
      throw new HttpProblem('last-owner', `${teacher.name} is the only owner. Make someone else an owner first.`);
    return teacher;
  };

  endpoints.serve(accountRoutes.setTeacherRole, async ({ request, visitor: { studioId }, body: { role } }) => {
    const teacher = await teacherToChange(studioId, idOf(request, 'teacher'), role === 'owner');
    await accounts.setRole(studioId, teacher.id, role);
    return respond(200, { ...teacher, role }, { audit: { did: 'changed', kind: 'teacher', id: teacher.id, name: `${teacher.name}, now ${role}` } });
  });

  endpoints.serve(accountRoutes.removeTeacher, async ({ request, visitor: { studioId } }) => {
    const teacher = await teacherToChange(studioId, idOf(request, 'teacher'), false);
    await accounts.removeTeacher(studioId, teacher.id);
    return respond(204, undefined, { audit: { did: 'removed', kind: 'teacher', id: teacher.id, name: teacher.name } });
  });

  endpoints.serve(accountRoutes.invitations, async ({ visitor }) => respond(200, await links.invitations(visitor.studioId)));

  endpoints.serve(accountRoutes.invite, async ({ request, visitor, body: { name, email } }) => {
    // Whether the address has an account in another studio is not this one's business.
    if ((await accounts.teachers()).some((teacher) => teacher.email === email)) throw teachesHere();
    const { studioId, studioName } = visitor;
    await links.endInvitations(studioId, email);
    const { id, token, until } = await links.add({ studioId, purpose: 'invitation', name, email, hours: invitationDays * 24 });
    const link = linkAddress(request, address, token);
    const { subject, body } = invitationMail(name, studioName, visitor.name, link);
    await mail.add(studioId, email, subject, body);
    return respond(201, { id, name, email, until: until.toISOString(), address: link }, { audit: { did: 'invited', kind: 'teacher', name } });
  });

  endpoints.serve(accountRoutes.withdrawInvitation, async ({ request, visitor }) => {
    const name = await links.withdraw(visitor.studioId, idOf(request, 'invitation'));
    if (name === undefined) throw notFound('invitation');
    return respond(204, undefined, { audit: { did: 'withdrew', kind: 'teacher', name } });
  });
}
