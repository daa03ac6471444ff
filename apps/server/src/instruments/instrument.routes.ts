import { routes, type HeldInstrument, type HeldInstrumentInput, type OwnModel } from '@zelpit/contract';
import { asPlayed, instrumentProblems, noteOf, patternKey, withKeptFingerings, type Instrument } from '@zelpit/core';
import { said, idOf, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { serveAwayAndBack } from '../put-away/away-and-back';
import type { StudentRepository } from '../students/student.repository';
import type { FingeringRepository } from './fingering.repository';
import type { InstrumentRepository } from './instrument.repository';
import type { ModelRepository } from './model.repository';

interface Shelves {
  readonly instruments: InstrumentRepository;
  readonly models: ModelRepository;
  readonly fingerings: FingeringRepository;
  readonly students: StudentRepository;
}

const cannot = (detail: string): HttpProblem => new HttpProblem(422, 'Cannot be done', detail);

export function instrumentRoutes(endpoints: Endpoints, { instruments, models, fingerings, students }: Shelves): void {
  heldRoutes(endpoints, { instruments, models, fingerings, students });
  modelRoutes(endpoints, models, instruments);
  fingeringRoutes(endpoints, models, fingerings);
}

function heldRoutes(endpoints: Endpoints, { instruments, models, fingerings, students }: Shelves): void {
  const heldOr404 = async (studioId: string, id: string): Promise<HeldInstrument> => {
    const held = await instruments.get(studioId, id);
    if (held === undefined) throw notFound('instrument');
    return held;
  };

  /** Everything that is said of it must be true of its model. */
  const assertPossible = async (studioId: string, input: Omit<HeldInstrumentInput, 'studentId'>): Promise<void> => {
    const model = await models.instrument(studioId, input.model);
    if (model === undefined) throw cannot('This studio knows no such instrument.');
    asPlayed(model, input, await fingerings.of(studioId, input.model));
    for (const note of input.knownNotes) noteOf(model, note);
  };

  endpoints.serve(routes.instruments, async ({ visitor, query }) => {
    if (visitor.studentId === undefined) return said(200, await instruments.list(visitor.studioId, query));
    if (query.student !== undefined && query.student !== visitor.studentId) return said(200, { items: [], next: null });
    return said(200, await instruments.list(visitor.studioId, { ...query, student: visitor.studentId }));
  });

  endpoints.serve(routes.addInstrument, async ({ visitor: { studioId, teacherId }, body }) => {
    if (body.studentId !== null && !(await students.has(studioId, body.studentId))) throw notFound('student');
    await assertPossible(studioId, body);
    const held = await heldOr404(studioId, await instruments.add(studioId, teacherId, body));
    return said(201, held, { deed: { did: 'added', kind: 'instrument', id: held.id, name: held.name } });
  });

  endpoints.serve(routes.saveInstrument, async ({ request, visitor: { studioId }, body }) => {
    const id = idOf(request, 'instrument');
    await heldOr404(studioId, id);
    await assertPossible(studioId, body);
    assertSaved(await instruments.save(studioId, id, body), 'instrument');
    return said(200, await heldOr404(studioId, id), { deed: { did: 'changed', kind: 'instrument', id, name: body.name } });
  });

  serveAwayAndBack(endpoints, instruments, { away: routes.putInstrumentAway, back: routes.bringInstrumentBack, kind: 'instrument', thing: 'instrument' });
}

/** @throws HttpProblem 422 with every contradiction */
function assertHolds(instrument: Instrument): void {
  const problems = instrumentProblems(instrument);
  if (problems.length > 0) throw new HttpProblem(422, 'The instrument does not hold together', `${problems.join('; ')}.`);
}

function modelRoutes(endpoints: Endpoints, models: ModelRepository, instruments: InstrumentRepository): void {
  const modelOr404 = async (studioId: string, id: string): Promise<OwnModel> => {
    const model = await models.get(studioId, id);
    if (model === undefined) throw notFound('instrument');
    return model;
  };

  endpoints.serve(routes.models, async ({ visitor, query }) => said(200, await models.list(visitor.studioId, query)));

  endpoints.serve(routes.addModel, async ({ visitor: { studioId, name }, body: { instrument } }) => {
    assertHolds(instrument);
    const model = await modelOr404(studioId, await models.add(studioId, name, instrument));
    return said(201, model, { deed: { did: 'added', kind: 'model', id: model.id, name: instrument.name } });
  });

  endpoints.serve(routes.saveModel, async ({ request, visitor: { studioId }, body: { instrument, version } }) => {
    const id = idOf(request, 'instrument');
    await modelOr404(studioId, id);
    assertHolds(instrument);
    assertSaved(await models.save(studioId, id, version, instrument), 'instrument');
    return said(200, await modelOr404(studioId, id), { deed: { did: 'changed', kind: 'model', id, name: instrument.name } });
  });

  serveAwayAndBack(endpoints, models, {
    away: routes.putModelAway,
    back: routes.bringModelBack,
    kind: 'model',
    thing: 'instrument',
    before: async (studioId, id) => {
      const inUse = await instruments.countOf(studioId, id);
      if (inUse > 0)
        throw new HttpProblem(
          409,
          'In use',
          `${inUse === 1 ? 'One instrument is' : `${inUse} instruments are`} of this model. Choose another model for it first.`,
        );
      const uses = await models.usesOf(studioId, id);
      if (uses > 0) throw new HttpProblem(409, 'In use', `${uses} tunes and sheets are for this instrument. Move them to another one first.`);
    },
  });
}

function fingeringRoutes(endpoints: Endpoints, models: ModelRepository, fingerings: FingeringRepository): void {
  endpoints.serve(routes.fingerings, async ({ visitor, query }) => said(200, await fingerings.list(visitor.studioId, query)));

  endpoints.serve(routes.keepFingering, async ({ visitor: { studioId, name }, body }) => {
    const instrument = await models.instrument(studioId, body.model);
    if (instrument === undefined) throw cannot('This studio knows no such instrument.');
    const on = new Date().toISOString().slice(0, 10);
    const before = (await fingerings.of(studioId, body.model)).filter(
      ({ note, pattern }) => note !== body.note || patternKey(pattern) !== patternKey(body.pattern),
    );
    withKeptFingerings(instrument, [...before, { ...body, by: name, on }]);
    const kept = await fingerings.keep(studioId, name, on, body);
    return said(201, kept, { deed: { did: 'changed', kind: 'fingering', id: kept.id, name: deedName(instrument, body.note) } });
  });

  endpoints.serve(routes.dropFingering, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, 'fingering');
    const dropped = await fingerings.drop(studioId, id);
    if (dropped === undefined) throw notFound('fingering');
    const instrument = await models.instrument(studioId, dropped.model);
    const name = instrument === undefined ? 'a fingering' : deedName(instrument, dropped.note);
    return said(204, undefined, { deed: { did: 'removed', kind: 'fingering', id, name } });
  });
}

const deedName = (instrument: Instrument, note: string): string => `${noteOf(instrument, note).schoolName} on the ${instrument.name}`;
