import { invitationDays, routes, type Student } from '@zelpit/contract';
import type { LinkRepository } from '../accounts/link.repository';
import { linkAddress } from '../accounts/this-computer';
import { said, idOf, type Endpoints } from '../http/endpoints';
import { notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { serveAwayAndBack } from '../put-away/away-and-back';
import type { StudentRepository } from './student.repository';

export function studentRoutes(endpoints: Endpoints, students: StudentRepository, links: LinkRepository, address: string | undefined): void {
  const studentOr404 = async (studioId: string, id: string): Promise<Student> => {
    const student = await students.get(studioId, id);
    if (student === undefined) throw notFound('student');
    return student;
  };

  endpoints.serve(routes.students, async ({ visitor, query }) => said(200, await students.list(visitor.studioId, query)));

  endpoints.serve(routes.addStudent, async ({ visitor, body }) => {
    const student = await students.add(visitor.studioId, body);
    return said(201, student, { deed: { did: 'added', kind: 'student', id: student.id, name: student.alias } });
  });

  endpoints.serve(routes.saveStudent, async ({ request, visitor: { studioId }, body }) => {
    const id = idOf(request, 'student');
    assertSaved(await students.save(studioId, id, body), 'student');
    return said(200, await studentOr404(studioId, id), { deed: { did: 'changed', kind: 'student', id, name: body.alias } });
  });

  serveAwayAndBack(endpoints, students, {
    away: routes.putStudentAway,
    back: routes.bringStudentBack,
    kind: 'student',
    thing: 'student',
    after: (id) => students.endSessions(id),
  });

  endpoints.serve(routes.linkForStudent, async ({ request, visitor: { studioId } }) => {
    const { id, alias } = await studentOr404(studioId, idOf(request, 'student'));
    const { token, until } = await links.add({ studioId, purpose: 'student', name: alias, email: '', studentId: id, hours: invitationDays * 24 });
    return said(
      201,
      { address: linkAddress(request, address, token), until: until.toISOString() },
      { deed: { did: 'gave a link to', kind: 'student', id, name: alias } },
    );
  });
}
