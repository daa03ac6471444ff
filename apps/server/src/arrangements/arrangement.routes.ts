import { arrangementRoutes } from '@zelpit/contract';
import { noteOf } from '@zelpit/core';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { ModelRepository } from '../models/model.repository';
import { StudentRepository } from '../students/student.repository';
import type { ThingParts } from '../things/thing';
import { TuneRepository } from '../tunes/tune.repository';
import { ArrangementRepository } from './arrangement.repository';

export function serveArrangements(endpoints: Endpoints, { database }: ThingParts): void {
  const arrangements = new ArrangementRepository(database);
  const [tunes, students, models] = [new TuneRepository(database), new StudentRepository(database), new ModelRepository(database)];

  endpoints.serve(arrangementRoutes.arrangement, async ({ request, visitor: { studioId }, query: { student } }) => {
    const id = idOf(request, 'tune');
    if (!(await tunes.has(studioId, id))) throw notFound('tune');
    if (!(await students.has(studioId, student))) throw notFound('student');
    return respond(200, await arrangements.get(studioId, student, id));
  });

  endpoints.serve(arrangementRoutes.tunesOfStudent, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, 'student');
    if (!(await students.has(studioId, id))) throw notFound('student');
    return respond(200, await arrangements.ofStudent(studioId, id));
  });

  endpoints.serve(arrangementRoutes.saveArrangement, async ({ request, visitor: { studioId }, body: { student, arrangement, version } }) => {
    const id = idOf(request, 'tune');
    const tune = await tunes.get(studioId, id);
    if (tune === undefined) throw notFound('tune');
    if (!(await students.has(studioId, student))) throw notFound('student');
    const instrument = await models.known(studioId, tune.instrument);
    for (const note of [...Object.values(arrangement.graces).flat(), ...Object.values(arrangement.instead)]) noteOf(instrument, note);
    assertSaved(await arrangements.save(studioId, student, id, version, arrangement), 'arrangement');
    return respond(200, await arrangements.get(studioId, student, id), { audit: { did: 'changed', kind: 'tune', id, name: tune.title } });
  });
}
