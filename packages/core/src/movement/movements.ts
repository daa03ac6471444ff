import { ZelpitFault } from '../fault';
import type { Instrument, NoteId } from '../fingering';
import { compileMovement, type CompiledMovement } from './compile';
import { usualMovementSettings, type MovementDefinition, type MovementSettings } from './definition';
import { pipeMovements } from './movements.data';

/**
 * @param own movements of a studio, which stand in place of those with the same id
 * @throws ZelpitFault `unknown-movement`
 */
export function movementById(id: string, own: readonly MovementDefinition[] = []): MovementDefinition {
  const found = [...own, ...pipeMovements].find((each) => each.id === id);
  if (found === undefined) throw new ZelpitFault('unknown-movement', `There is no movement "${id}".`, { id });
  return found;
}

/**
 * The movements of an instrument; none where its tradition has none of this kind.
 * @param own movements of a studio: one with the id of a built-in movement stands in its place, the others follow
 */
export function movementsOf({ family }: Instrument, own: readonly MovementDefinition[] = []): readonly MovementDefinition[] {
  if (family !== 'pipes') return [];
  const builtIn = pipeMovements.map((each) => own.find(({ id }) => id === each.id) ?? each);
  return [...builtIn, ...own.filter(({ id }) => !pipeMovements.some((each) => each.id === id))];
}

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z]/g, '');

/** Shorter words of a name tell too little by themselves. */
const shortestWord = 4;

/**
 * Movements under any of their names, the best match first; a name written a little wrong is found too.
 * @example findMovements(practiceChanter, 'torluath')[0].id // 'taorluath'
 */
export function findMovements(instrument: Instrument, words: string, own: readonly MovementDefinition[] = []): readonly MovementDefinition[] {
  const wanted = plain(words);
  const all = movementsOf(instrument, own);
  if (wanted === '') return all;
  const distanceTo = (name: string): number => {
    const own = plain(name);
    if (own.includes(wanted)) return (own.length - wanted.length) / 1000;
    // Words beside the name, as in "doubling on C", count little.
    if (wanted.includes(own)) return 0.5 - own.length / 1000;
    // One word of a longer name may be written wrong by itself.
    const words = name
      .split(/\s+/)
      .map(plain)
      .filter((word) => word.length >= shortestWord);
    return Math.min(editDistance(own, wanted), ...words.map((word) => editDistance(word, wanted) + 0.4));
  };
  const distanceOf = ({ names, spelt = [] }: MovementDefinition): number => Math.min(...[...names, ...spelt].map(distanceTo));
  const most = Math.max(1, Math.floor(wanted.length / 3));
  return all
    .map((movement) => ({ movement, distance: distanceOf(movement) }))
    .filter(({ distance }) => distance < most + 0.5)
    .sort((one, other) => one.distance - other.distance)
    .map(({ movement }) => movement);
}

/** Letters to be put in, taken out or changed (Levenshtein 1966). */
export function editDistance<T>(one: ArrayLike<T>, other: ArrayLike<T>): number {
  let row = Array.from({ length: other.length + 1 }, (_, index) => index);
  for (let at = 1; at <= one.length; at += 1) {
    const next = [at];
    for (let to = 1; to <= other.length; to += 1) next.push(Math.min(row[to] + 1, next[to - 1] + 1, row[to - 1] + (one[at - 1] === other[to - 1] ? 0 : 1)));
    row = next;
  }
  return row[other.length];
}

/** One movement from every note into every note. */
export function movementTable(
  instrument: Instrument,
  movement: MovementDefinition,
  settings: MovementSettings = usualMovementSettings,
): readonly { readonly before: NoteId; readonly cells: readonly CompiledMovement[] }[] {
  return instrument.notes.map(({ id: before }) => ({
    before,
    cells: instrument.notes.map(({ id: after }) => compileMovement(instrument, movement, before, after, settings)),
  }));
}
