import { HttpProblem, notFound } from './problem';

/** How a save of a version that was read before went; `stale` where a later one is in the database. */
export type SaveOutcome = 'saved' | 'stale' | 'missing';

/** @throws HttpProblem 404 where there is no such thing, 409 where it was changed after it was read */
export function assertSaved(outcome: SaveOutcome, thing: string): void {
  if (outcome === 'missing') throw notFound(thing);
  if (outcome === 'stale')
    throw new HttpProblem('changed-elsewhere', `This ${thing} was changed somewhere else after you opened it. Your version has not been saved yet.`);
}
