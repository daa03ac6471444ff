import { movementRoutes } from '@zelpit/contract';
import { fingerOf, noteOf, practiceChanter } from '@zelpit/core';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { ModelRepository } from '../models/model.repository';
import type { ThingParts } from '../things/thing';
import { assertMovement, builtIn, cannot } from './assert-movement';
import { MovementRepository } from './movement.repository';

const mostOwn = 200;

/** What a studio says of movements, and how it plays them. */
export function serveMovements(endpoints: Endpoints, { database }: ThingParts): void {
  const [movements, models] = [new MovementRepository(database), new ModelRepository(database)];

  endpoints.serve(movementRoutes.movements, async ({ visitor, query }) => respond(200, await movements.list(visitor.studioId, query)));

  endpoints.serve(movementRoutes.keepMovement, async ({ visitor: { studioId, name }, body }) => {
    assertMovement(body.movement, body.definition);
    const others = (await movements.all(studioId)).filter(({ movement }) => movement !== body.movement);
    if (others.length >= mostOwn) throw cannot(`A studio can have at most ${mostOwn} movements.`);
    const kept = await movements.keep(studioId, name, new Date().toISOString().slice(0, 10), body);
    const thing = body.definition?.names[0] ?? builtIn(body.movement)?.names[0] ?? body.movement;
    return respond(201, kept, { audit: { did: 'changed', kind: 'movement', id: kept.id, name: thing } });
  });

  endpoints.serve(movementRoutes.dropMovement, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, 'movement');
    const dropped = await movements.drop(studioId, id);
    if (dropped === undefined) throw notFound('movement');
    return respond(204, undefined, { audit: { did: 'removed', kind: 'movement', id, name: builtIn(dropped)?.names[0] ?? dropped } });
  });

  endpoints.serve(movementRoutes.movementChoices, async ({ visitor }) => respond(200, await movements.choices(visitor.studioId)));

  endpoints.serve(movementRoutes.saveMovementChoices, async ({ visitor: { studioId }, body: { version, ...choices } }) => {
    for (const note of [...choices.settings.twoFingers, ...choices.settings.lightTaps]) noteOf(practiceChanter, note);
    for (const [model, { cutOn, tapOn, cranOn, cranFingers }] of Object.entries(choices.ornaments)) {
      const instrument = await models.known(studioId, model);
      for (const note of [...Object.keys(cutOn), ...Object.keys(tapOn), ...cranOn]) noteOf(instrument, note);
      for (const finger of [...Object.values(cutOn), ...Object.values(tapOn), ...cranFingers]) fingerOf(instrument, finger);
    }
    assertSaved(await movements.saveChoices(studioId, choices, version), 'choice');
    return respond(200, await movements.choices(studioId), { audit: { did: 'changed', kind: 'movement', id: studioId, name: 'how movements are played' } });
  });
}
