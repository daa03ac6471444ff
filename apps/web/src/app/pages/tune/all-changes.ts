import type { TuneChange } from '@zelpit/core/tune';
import type { OpenedTune } from '../../documents/tune/tunes.service';

/** Worst first; those that grace notes or the tongue hide come after those that are heard. */
export const allChanges = ({ changes }: OpenedTune): readonly TuneChange[] => [...changes.open, ...changes.underGraceNotes, ...changes.tongued];

/** What a change is now: the one that is still there, else those of its notes that stand at its places with other fingers. */
export function successors(all: readonly TuneChange[], was: TuneChange): readonly TuneChange[] {
  const same = all.filter(({ id }) => id === was.id);
  if (same.length > 0) return same;
  const places = new Set(was.places.map(({ from }) => from));
  return all.filter(({ change, places: now }) => change.from === was.change.from && change.to === was.change.to && now.some(({ from }) => places.has(from)));
}
