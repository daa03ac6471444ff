import type { LoggedAttempt } from './logbook';

/** A try as it is kept in a log, as far as it is read here. */
export interface KeptAttempt {
  readonly kind: string;
  readonly title: string;
  /** A moment as text. */
  readonly at: string;
  readonly seconds: number;
  readonly tempo: number | null;
  readonly rating: LoggedAttempt['rating'];
  readonly by: LoggedAttempt['by'];
  readonly ladder: { readonly start: number; readonly ceiling: number; readonly rungs: readonly { readonly tempo: number; readonly rating: string }[] } | null;
  readonly correction: { readonly rating: LoggedAttempt['rating'] } | null;
}

/** The longest title that a log keeps. */
export const longestTitle = 200;

/** What a log knows something practised by: the same on every sheet on which it stands. */
export const itemName = ({ kind, title }: { readonly kind: string; readonly title: string }): string => `${kind} ${title.slice(0, longestTitle)}`;

/** A try as the logbook reads it: with its last correction. */
export function loggedOf({ kind, title, at, seconds, tempo, rating, by, ladder, correction }: KeptAttempt): LoggedAttempt {
  const cleanTempos = (ladder?.rungs ?? []).flatMap((rung) => (rung.rating === 'clean' ? [rung.tempo] : []));
  return {
    ...{ item: itemName({ kind, title }), title, kind, at: Date.parse(at), seconds, tempo },
    rating: correction?.rating ?? rating,
    // What a teacher judged otherwise, a teacher judged.
    by: correction === null ? by : 'teacher',
    cleanTempos: correction === null || correction.rating === 'clean' ? cleanTempos : [],
    ...(ladder !== null && {
      climb: { start: ladder.start, ceiling: ladder.ceiling, slip: ladder.rungs.find((rung) => rung.rating === 'slip')?.tempo ?? null },
    }),
  };
}
