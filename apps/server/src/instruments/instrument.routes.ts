import { instrumentRoutes, type HeldInstrument, type HeldInstrumentInput } from '@zelpit/contract';
import { asPlayed, noteOf } from '@zelpit/core';
import { FingeringRepository } from '../fingerings/fingering.repository';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { ModelRepository } from '../models/model.repository';
import { serveAwayAndBack } from '../put-away/away-and-back';
import { StudentRepository } from '../students/student.repository';
import type { ThingParts } from '../things/thing';
import { InstrumentRepository } from './instrument.repository';

export function serveInstruments(endpoints: Endpoints, { database }: ThingParts): void {
  const [instruments, models] = [new InstrumentRepository(database), new ModelRepository(database)];
  const [fingerings, students] = [new FingeringRepository(database), new StudentRepository(database)];

  const heldOr404 = async (studioId: string, id: string): Promise<HeldInstrument> => {
    const held = await instruments.get(studioId, id);
    if (held === undefined) throw notFound('instrument');
    return held;
  };

  /** Everything that is said of it must be true of its model. */
  const assertPossible = async (studioId: string, input: Omit<HeldInstrumentInput, 'studentId'>): Promise<void> => {
    const model = await models.instrument(studioId, input.model);
    if (model === undefined) throw new HttpProblem('not-possible', 'This studio has no such instrument.');
    asPlayed(model, input, await fingerings.of(studioId, input.model));
    for (const note of input.knownNotes) noteOf(model, note);
  };

  endpoints.serve(instrumentRoutes.instruments, async ({ visitor, query }) => {
    if (visitor.studentId === undefined) return respond(200, await instruments.list(visitor.studioId, query));
    if (query.student !== undefined && query.student !== visitor.studentId) return respond(200, { items: [], next: null });
    return respond(200, await instruments.list(visitor.studioId, { ...query, student: visitor.studentId }));
  });

  endpoints.serve(instrumentRoutes.addInstrument, async ({ visitor: { studioId, teacherId }, body }) => {
    if (body.studentId !== null && !(await students.has(studioId, body.studentId))) throw notFound('student');
    await assertPossible(studioId, body);
    const held = await heldOr404(studioId, await instruments.add(studioId, teacherId, body));
    return respond(201, held, { audit: { did: 'added', kind: 'instrument', id: held.id, name: held.name } });
  });

  endpoints.serve(instrumentRoutes.saveInstrument, async ({ request, visitor: { studioId }, body }) => {
    const id = idOf(request, 'instrument');
    await heldOr404(studioId, id);
    await assertPossible(studioId, body);
    assertSaved(await instruments.save(studioId, id, body), 'instrument');
    return respond(200, await heldOr404(studioId, id), { audit: { did: 'changed', kind: 'instrument', id, name: body.name } });
  });

  serveAwayAndBack(endpoints, instruments, {
    away: instrumentRoutes.putInstrumentAway,
    back: instrumentRoutes.bringInstrumentBack,
    kind: 'instrument',
    thing: 'instrument',
  });
}
