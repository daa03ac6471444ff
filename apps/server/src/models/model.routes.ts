import { modelRoutes, type OwnModel } from '@zelpit/contract';
import { instrumentProblems, type Instrument } from '@zelpit/core';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { InstrumentRepository } from '../instruments/instrument.repository';
import { serveAwayAndBack } from '../put-away/away-and-back';
import type { ThingParts } from '../things/thing';
import { ModelRepository } from './model.repository';

/** @throws HttpProblem 422 with every contradiction */
function assertHolds(instrument: Instrument): void {
  const problems = instrumentProblems(instrument);
  if (problems.length > 0) throw new HttpProblem('model-has-mistakes', `${problems.join('; ')}.`);
}

export function serveModels(endpoints: Endpoints, { database }: ThingParts): void {
  const [models, instruments] = [new ModelRepository(database), new InstrumentRepository(database)];

  const modelOr404 = async (studioId: string, id: string): Promise<OwnModel> => {
    const model = await models.get(studioId, id);
    if (model === undefined) throw notFound('instrument');
    return model;
  };

  endpoints.serve(modelRoutes.models, async ({ visitor, query }) => respond(200, await models.list(visitor.studioId, query)));

  endpoints.serve(modelRoutes.model, async ({ request, visitor: { studioId } }) => respond(200, await modelOr404(studioId, idOf(request, 'instrument'))));

  endpoints.serve(modelRoutes.addModel, async ({ visitor: { studioId, name }, body: { instrument } }) => {
    assertHolds(instrument);
    const model = await modelOr404(studioId, await models.add(studioId, name, instrument));
    return respond(201, model, { audit: { did: 'added', kind: 'model', id: model.id, name: instrument.name } });
  });

  endpoints.serve(modelRoutes.saveModel, async ({ request, visitor: { studioId }, body: { instrument, version } }) => {
    const id = idOf(request, 'instrument');
    await modelOr404(studioId, id);
    assertHolds(instrument);
    assertSaved(await models.save(studioId, id, version, instrument), 'instrument');
    return respond(200, await modelOr404(studioId, id), { audit: { did: 'changed', kind: 'model', id, name: instrument.name } });
  });

  serveAwayAndBack(endpoints, models, {
    away: modelRoutes.putModelAway,
    back: modelRoutes.bringModelBack,
    kind: 'model',
    thing: 'instrument',
    before: async (studioId, id) => {
      const inUse = await instruments.countOf(studioId, id);
      if (inUse > 0)
        throw new HttpProblem('in-use', `${inUse === 1 ? 'One instrument is' : `${inUse} instruments are`} of this model. Choose another model for it first.`);
      const uses = await models.usesOf(studioId, id);
      if (uses > 0) throw new HttpProblem('in-use', `This instrument is in use (tunes and sheets: ${uses}). Move them to another one first.`);
    },
  });
}
