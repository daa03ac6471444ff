import { cheapestPath, type PathChoice, type PathCosts, type Pins } from '../timing';
import { isTongued, type Articulation, type Tune } from './tune';

/** How the notes that have several fingerings are fingered with the least trouble, by their indices. */
export type TunePath = ReadonlyMap<number, PathChoice>;

/**
 * The cheapest fingerings through a tune as it is written; repeats are not played out.
 * @param costs of the instrument that it is read for
 * @param pins fingerings that a teacher wants, by note
 */
export function pathOfTune(costs: PathCosts, tune: Tune, articulation: Articulation, pins: Pins): TunePath {
  const ways = new Map<string, number>();
  for (const { note } of costs.instrument.fingerings) ways.set(note, (ways.get(note) ?? 0) + 1);
  if ([...ways.values()].every((count) => count === 1)) return new Map();
  const played = tune.notes.flatMap((note) => (note.written.kind === 'note' ? [{ note, id: note.written.note }] : []));
  const { choices } = cheapestPath(
    costs,
    played.map(({ note, id }) => {
      const before = tune.notes[note.index - 1];
      const isApart = before === undefined || before.written.kind !== 'note' || isTongued(note, articulation);
      return { note: id, isApart };
    }),
    pins,
  );
  return new Map(played.flatMap(({ note, id }, index) => ((ways.get(id) ?? 0) > 1 ? [[note.index, choices[index]] as const] : [])));
}
