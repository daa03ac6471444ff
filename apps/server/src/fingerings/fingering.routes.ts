import { fingeringRoutes } from '@zelpit/contract';
import { noteOf, patternKey, withKeptFingerings, type Instrument } from '@zelpit/core';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { ModelRepository } from '../models/model.repository';
import type { ThingParts } from '../things/thing';
import { FingeringRepository } from './fingering.repository';

export function serveFingerings(endpoints: Endpoints, { database }: ThingParts): void {
  const [models, fingerings] = [new ModelRepository(database), new FingeringRepository(database)];

  endpoints.serve(fingeringRoutes.fingerings, async ({ visitor, query }) => respond(200, await fingerings.list(visitor.studioId, query)));

  endpoints.serve(fingeringRoutes.keepFingering, async ({ visitor: { studioId, name }, body }) => {
    const instrument = await models.instrument(studioId, body.model);
    if (instrument === undefined) throw new HttpProblem('not-possible', 'This studio has no such instrument.');
    const on = new Date().toISOString().slice(0, 10);
    const before = (await fingerings.of(studioId, body.model)).filter(
      ({ note, pattern }) => note !== body.note || patternKey(pattern) !== patternKey(body.pattern),
    );
    withKeptFingerings(instrument, [...before, { ...body, by: name, on }]);
    const kept = await fingerings.keep(studioId, name, on, body);
    return respond(201, kept, { audit: { did: 'changed', kind: 'fingering', id: kept.id, name: nameInAudit(instrument, body.note) } });
  });

  endpoints.serve(fingeringRoutes.dropFingering, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, 'fingering');
    const dropped = await fingerings.drop(studioId, id);
    if (dropped === undefined) throw notFound('fingering');
    const instrument = await models.instrument(studioId, dropped.model);
    const name = instrument === undefined ? 'a fingering' : nameInAudit(instrument, dropped.note);
    return respond(204, undefined, { audit: { did: 'removed', kind: 'fingering', id, name } });
  });
}

const nameInAudit = (instrument: Instrument, note: string): string => `${noteOf(instrument, note).schoolName} on the ${instrument.name}`;
