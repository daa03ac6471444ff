import { doorDigits, invitationDays, studentRoutes, type Student } from '@zelpit/contract';
import { randomInt } from 'node:crypto';
import { LinkRepository } from '../accounts/link.repository';
import { linkAddress } from '../accounts/this-computer';
import { respond, idOf, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { serveAwayAndBack } from '../put-away/away-and-back';
import type { ThingParts } from '../things/thing';
import { StudentRepository } from './student.repository';

/** A private link holds a year. */
const doorHours = 365 * 24;

export function serveStudents(endpoints: Endpoints, { database, address }: ThingParts): void {
  const [students, links] = [new StudentRepository(database), new LinkRepository(database)];

  const studentOr404 = async (studioId: string, id: string): Promise<Student> => {
    const student = await students.get(studioId, id);
    if (student === undefined) throw notFound('student');
    return student;
  };

  endpoints.serve(studentRoutes.students, async ({ visitor, query }) => respond(200, await students.list(visitor.studioId, query)));

  endpoints.serve(studentRoutes.addStudent, async ({ visitor, body }) => {
    const student = await students.add(visitor.studioId, body);
    return respond(201, student, { audit: { did: 'added', kind: 'student', id: student.id, name: student.alias } });
  });

  endpoints.serve(studentRoutes.saveStudent, async ({ request, visitor: { studioId }, body }) => {
    const id = idOf(request, 'student');
    assertSaved(await students.save(studioId, id, body), 'student');
    return respond(200, await studentOr404(studioId, id), { audit: { did: 'changed', kind: 'student', id, name: body.alias } });
  });

  serveAwayAndBack(endpoints, students, {
    away: studentRoutes.putStudentAway,
    back: studentRoutes.bringStudentBack,
    kind: 'student',
    thing: 'student',
    after: (id) => students.endSessions(id),
  });

  endpoints.serve(studentRoutes.tablets, async ({ request, visitor: { studioId } }) => {
    const { id } = await studentOr404(studioId, idOf(request, 'student'));
    return respond(200, await students.tablets(id));
  });

  endpoints.serve(studentRoutes.endTablet, async ({ request, visitor: { studioId } }) => {
    const student = await students.endTablet(idOf(request, 'tablet'));
    if (student === undefined) throw notFound('tablet');
    const { id, alias } = await studentOr404(studioId, student);
    return respond(204, undefined, { audit: { did: 'signed out a tablet of', kind: 'student', id, name: alias } });
  });

  endpoints.serve(studentRoutes.linkForParent, async ({ request, visitor: { studioId } }) => {
    const { id, alias } = await studentOr404(studioId, idOf(request, 'student'));
    const { token, until } = await links.add({ studioId, purpose: 'parent', name: alias, email: '', studentId: id, hours: invitationDays * 24 });
    return respond(
      201,
      { address: linkAddress(request, address, token), until: until.toISOString() },
      { audit: { did: 'gave a link to', kind: 'student', id, name: `${alias}, a parent` } },
    );
  });

  endpoints.serve(studentRoutes.doorForStudent, async ({ request, visitor: { studioId } }) => {
    const { id, alias } = await studentOr404(studioId, idOf(request, 'student'));
    await links.endDoor(studioId, id);
    const code = Array.from({ length: doorDigits }, () => randomInt(10)).join('');
    const { token, until } = await links.add({ studioId, purpose: 'door', name: alias, email: '', studentId: id, hours: doorHours, code });
    return respond(
      201,
      { address: linkAddress(request, address, token), until: until.toISOString(), code },
      { audit: { did: 'gave a link to', kind: 'student', id, name: alias } },
    );
  });

  endpoints.serve(studentRoutes.endDoor, async ({ request, visitor: { studioId } }) => {
    const { id, alias } = await studentOr404(studioId, idOf(request, 'student'));
    if (!(await links.endDoor(studioId, id))) throw new HttpProblem('not-found', `${alias} has no private link.`);
    return respond(204, undefined, { audit: { did: 'ended the link of', kind: 'student', id, name: alias } });
  });

  endpoints.serve(studentRoutes.linkForStudent, async ({ request, visitor: { studioId } }) => {
    const { id, alias } = await studentOr404(studioId, idOf(request, 'student'));
    const { token, until } = await links.add({ studioId, purpose: 'student', name: alias, email: '', studentId: id, hours: invitationDays * 24 });
    return respond(
      201,
      { address: linkAddress(request, address, token), until: until.toISOString() },
      { audit: { did: 'gave a link to', kind: 'student', id, name: alias } },
    );
  });
}
