import { ornamentKinds, pipeMovements, practiceChanter, unknownNotes, type MovementDefinition } from '@zelpit/core';
import { HttpProblem } from '../http/problem';

export const cannot = (detail: string): HttpProblem => new HttpProblem('not-possible', detail);
/** An ornament is confirmed under its own sign: "ornament-long-roll"; so is a proposed pair of fingerings, of a model and a note: "trill-recorder-alto-baroque-g5". */
const isOrnament = (id: string): boolean => ornamentKinds.some((kind) => id === `ornament-${kind}`) || neighbourSign.test(id);
const neighbourSign = /^(trill|upper-mordent|lower-mordent|grace-note)-[a-z0-9-]+-[a-z0-9-]+$/;

export const builtIn = (id: string): MovementDefinition | undefined => pipeMovements.find((each) => each.id === id);

/** @throws HttpProblem 422 where a movement names notes that the chanter does not have, or is said to be built in and is not */
export function assertMovement(movement: string, definition: MovementDefinition | null): void {
  if (definition === null) {
    if (builtIn(movement) === undefined && !isOrnament(movement)) throw cannot(`There is no built-in movement “${movement}” to confirm.`);
    return;
  }
  const unknown = unknownNotes(practiceChanter, definition);
  if (unknown.length > 0) throw cannot(`“${definition.names[0]}” names ${unknown.join(', ')}, which the ${practiceChanter.name} does not have.`);
}
