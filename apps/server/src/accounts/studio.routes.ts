import { accountRoutes, invitationDays, type Teacher } from '@zelpit/contract';
import { respond, idOf, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import type { AccountParts } from './account.routes';
import { invitationMail } from './mails';
import { hashPassword } from './password';
import { askingLimit } from './password-limit';
import { signInAs, visitorOf } from './session';
import type { AnswerSession } from './session-answer';
import { linkAddress, isFromThisComputer } from './this-computer';

const emailTaken = (): HttpProblem =>
  new HttpProblem('address-taken', 'There is already an account with this e-mail address. Sign in with it, or use another address.');

/** Creating a studio, and who teaches in it. */
export function serveStudio(endpoints: Endpoints, parts: AccountParts, answer: AnswerSession): void {
  const { database, accounts, links, mail, address } = parts;

  endpoints.serveAnyone(
    accountRoutes.createStudio,
    async ({ request, body: { studio, name, email, password } }) => {
      if ((await accounts.hasAnyStudio()) && !isFromThisComputer(request))
        throw new HttpProblem(
          'only-on-the-server',
          'A new studio can only be created on the computer that runs Zelpit. Ask the person who runs it, or ask the owner of a studio to invite you.',
        );
      const passwordHash = await hashPassword(password);
      const teacherId = await database.transaction(async () => {
        if ((await accounts.byEmail(email)) !== undefined) throw emailTaken();
        return accounts.addTeacher(await accounts.addStudio(studio), { name, email, passwordHash, role: 'owner' });
      });
      await signInAs(request, { teacherId });
      return respond(201, await answer(request, await visitorOf(accounts)(request)));
    },
    askingLimit(),
  );

  endpoints.serve(accountRoutes.renameStudio, async ({ visitor: { studioId }, body: { name } }) => {
    await accounts.renameStudio(studioId, name);
    return respond(200, { id: studioId, name }, { audit: { did: 'changed', kind: 'studio', id: studioId, name } });
  });

  endpoints.serve(accountRoutes.teachers, async ({ visitor }) => respond(200, await accounts.teachers(visitor.studioId)));

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
    await accounts.setRole(teacher.id, role);
    return respond(200, { ...teacher, role }, { audit: { did: 'changed', kind: 'teacher', id: teacher.id, name: `${teacher.name}, now ${role}` } });
  });

  endpoints.serve(accountRoutes.removeTeacher, async ({ request, visitor: { studioId } }) => {
    const teacher = await teacherToChange(studioId, idOf(request, 'teacher'), false);
    await accounts.endSessions(teacher.id);
    await accounts.removeTeacher(teacher.id);
    return respond(204, undefined, { audit: { did: 'removed', kind: 'teacher', id: teacher.id, name: teacher.name } });
  });

  endpoints.serve(accountRoutes.invitations, async ({ visitor }) => respond(200, await links.invitations(visitor.studioId)));

  endpoints.serve(accountRoutes.invite, async ({ request, visitor, body: { name, email } }) => {
    if ((await accounts.byEmail(email)) !== undefined) throw emailTaken();
    const { studioId } = visitor;
    await links.endInvitations(studioId, email);
    const { id, token, until } = await links.add({ studioId, purpose: 'invitation', name, email, hours: invitationDays * 24 });
    const { subject, body } = invitationMail(name, await accounts.studioName(studioId), visitor.name, linkAddress(request, address, token));
    await mail.add(studioId, email, subject, body);
    return respond(201, { id, name, email, until: until.toISOString() }, { audit: { did: 'invited', kind: 'teacher', name } });
  });

  endpoints.serve(accountRoutes.withdrawInvitation, async ({ request, visitor }) => {
    const name = await links.withdraw(visitor.studioId, idOf(request, 'invitation'));
    if (name === undefined) throw notFound('invitation');
    return respond(204, undefined, { audit: { did: 'withdrew', kind: 'teacher', name } });
  });
}
