import { cheapestPath, isTongued, PathCosts, type Articulation, type Instrument, type PathChoice, type Pins, type Tune } from '@zelpit/core';

/** Costs of an instrument, kept for as long as it is in hand. */
const known = new WeakMap<Instrument, PathCosts>();

/** How the notes that have several fingerings are fingered with the least trouble, by their indices. */
export type TunePath = ReadonlyMap<number, PathChoice>;

/** The cheapest fingerings through a tune as it is written; repeats are not played out. */
export function pathOfTune(instrument: Instrument, tune: Tune, articulation: Articulation, pins: Pins): TunePath {
  const hasWays = instrument.fingerings.some(({ rank }) => rank > 1);
  if (!hasWays) return new Map();
  const costs = known.get(instrument) ?? new PathCosts(instrument);
  known.set(instrument, costs);
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
  const ways = new Map<string, number>();
  for (const { note } of instrument.fingerings) ways.set(note, (ways.get(note) ?? 0) + 1);
  return new Map(played.flatMap(({ note, id }, index) => ((ways.get(id) ?? 0) > 1 ? [[note.index, choices[index]] as const] : [])));
}
