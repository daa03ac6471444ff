import { routes } from '@zelpit/contract';
import { fingerOf, noteOf, ornamentKinds, pipeMovements, practiceChanter, unknownNotes, type MovementDefinition } from '@zelpit/core';
import { idOf, said, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import type { ModelRepository } from '../instruments/model.repository';
import type { MovementRepository } from './movement.repository';

const cannot = (detail: string): HttpProblem => new HttpProblem(422, 'Cannot be done', detail);
const mostOwn = 200;
/** An ornament is confirmed under its own sign: "ornament-long-roll"; so is a proposed pair of fingerings, of a model and a note: "trill-recorder-alto-baroque-g5". */
const isOrnament = (id: string): boolean => ornamentKinds.some((kind) => id === `ornament-${kind}`) || neighbourSign.test(id);
const neighbourSign = /^(trill|upper-mordent|lower-mordent|grace-note)-[a-z0-9-]+-[a-z0-9-]+$/;

const builtIn = (id: string): MovementDefinition | undefined => pipeMovements.find((each) => each.id === id);

/** @throws HttpProblem 422 where a movement names notes that the chanter does not have, or is said to be built in and is not */
export function assertMovement(movement: string, definition: MovementDefinition | null): void {
  if (definition === null) {
    if (builtIn(movement) === undefined && !isOrnament(movement)) throw cannot(`There is no built-in movement “${movement}” to confirm.`);
    return;
  }
  const unknown = unknownNotes(practiceChanter, definition);
  if (unknown.length > 0) throw cannot(`“${definition.names[0]}” names ${unknown.join(', ')}, which the ${practiceChanter.name} does not have.`);
}

/** What a studio says of movements, and how it plays them. */
export function movementRoutes(endpoints: Endpoints, movements: MovementRepository, models: ModelRepository): void {
  endpoints.serve(routes.movements, async ({ visitor, query }) => said(200, await movements.list(visitor.studioId, query)));

  endpoints.serve(routes.keepMovement, async ({ visitor: { studioId, name }, body }) => {
    assertMovement(body.movement, body.definition);
    const others = (await movements.all(studioId)).filter(({ movement }) => movement !== body.movement);
    if (others.length >= mostOwn) throw cannot(`A studio keeps at most ${mostOwn} movements.`);
    const kept = await movements.keep(studioId, name, new Date().toISOString().slice(0, 10), body);
    const thing = body.definition?.names[0] ?? builtIn(body.movement)?.names[0] ?? body.movement;
    return said(201, kept, { deed: { did: 'changed', kind: 'movement', id: kept.id, name: thing } });
  });

  endpoints.serve(routes.dropMovement, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, 'movement');
    const dropped = await movements.drop(studioId, id);
    if (dropped === undefined) throw notFound('movement');
    return said(204, undefined, { deed: { did: 'removed', kind: 'movement', id, name: builtIn(dropped)?.names[0] ?? dropped } });
  });

  endpoints.serve(routes.movementChoices, async ({ visitor }) => said(200, await movements.choices(visitor.studioId)));

  endpoints.serve(routes.saveMovementChoices, async ({ visitor: { studioId }, body: { version, ...choices } }) => {
    for (const note of [...choices.settings.twoFingers, ...choices.settings.lightTaps]) noteOf(practiceChanter, note);
    for (const [model, { cutOn, tapOn, cranOn, cranFingers }] of Object.entries(choices.ornaments)) {
      const instrument = await models.known(studioId, model);
      for (const note of [...Object.keys(cutOn), ...Object.keys(tapOn), ...cranOn]) noteOf(instrument, note);
      for (const finger of [...Object.values(cutOn), ...Object.values(tapOn), ...cranFingers]) fingerOf(instrument, finger);
    }
    assertSaved(await movements.saveChoices(studioId, choices, version), 'choice');
    return said(200, await movements.choices(studioId), { deed: { did: 'changed', kind: 'movement', id: studioId, name: 'how movements are played' } });
  });
}
