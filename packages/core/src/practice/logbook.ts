import { count } from '../words';

/** One entry of the log, as far as the logbook reads it. */
export interface LoggedAttempt {
  /** What was practised: the same for all tries of one line. */
  readonly item: string;
  readonly title: string;
  /** What it is: "line", "movement", "tune". */
  readonly kind: string;
  /** When it began, in ms. */
  readonly at: number;
  readonly seconds: number;
  readonly tempo: number | null;
  /** With a correction, where there is one. */
  readonly rating: 'clean' | 'nearly' | 'not-yet' | 'unjudged';
  /** Who judged: a student alone is an own ear. */
  readonly by: 'student' | 'teacher';
  /** Tempos that were clean in a climb. */
  readonly cleanTempos: readonly number[];
  /** Of a climb: where it began and what it aimed at; absent for a try that was none. */
  readonly climb?: { readonly start: number; readonly ceiling: number; readonly slip: number | null };
}

/** A climb in tempos as it went. */
export interface LogbookLadder {
  readonly title: string;
  readonly at: number;
  readonly start: number;
  readonly ceiling: number;
  /** Fastest clean tempo; null for none. */
  readonly score: number | null;
  /** Where it slipped; null where it did not. */
  readonly slip: number | null;
}

export interface LogbookItem {
  readonly item: string;
  readonly title: string;
  readonly kind: string;
  readonly tries: number;
  /** Of the judged ones. */
  readonly clean: number;
  /** Fastest clean tempo, in beats a minute; undefined where none was judged so. */
  readonly best: number | undefined;
  /** True where only the student judged it. */
  readonly isOwnEar: boolean;
  /** Fastest clean tempo of each week in which there was one, the oldest first; `week` is the moment it begins. */
  readonly weeks: readonly { readonly week: number; readonly best: number }[];
  readonly lastAt: number;
  /** Not touched for three weeks. */
  readonly isStale: boolean;
  /** Of the judged tries of the last three weeks. */
  readonly recent: { readonly judged: number; readonly clean: number };
}

export interface LogbookOf {
  /** The last practised first. */
  readonly items: readonly LogbookItem[];
  /** Minutes of each day, the oldest first, days without practice among them; `day` is the moment it begins. */
  readonly days: readonly { readonly day: number; readonly minutes: number }[];
  /** The last climbs, the newest first. */
  readonly ladders: readonly LogbookLadder[];
}

const dayMs = 86_400_000;
const staleDays = 21;
/** So many climbs are shown. */
const shownLadders = 6;
/** 1 January 1970 was a Thursday: weeks begin on Monday. */
const weekOf = (day: number): number => day - ((((day / dayMs + 3) % 7) + 7) % 7) * dayMs;

/**
 * What a log says: fastest clean tempos by week, minutes by day, what has gone stale.
 * @param now in ms; days are those of UTC moved by `offsetMinutes`
 * @param shownDays so many days of minutes, up to today
 */
export function logbookOf(attempts: readonly LoggedAttempt[], now: number, shownDays = 28, offsetMinutes = 0): LogbookOf {
  const dayOf = (at: number): number => Math.floor((at + offsetMinutes * 60_000) / dayMs) * dayMs;
  const today = dayOf(now);
  const seconds = new Map<number, number>();
  const byItem = new Map<string, LoggedAttempt[]>();
  for (const attempt of attempts) {
    const day = dayOf(attempt.at);
    seconds.set(day, (seconds.get(day) ?? 0) + attempt.seconds);
    byItem.set(attempt.item, [...(byItem.get(attempt.item) ?? []), attempt]);
  }
  const items = [...byItem].map(([item, tries]): LogbookItem => {
    const latest = tries.reduce((last, each) => (each.at > last.at ? each : last));
    const cleanOf = (each: LoggedAttempt): readonly number[] => [
      ...each.cleanTempos,
      ...(each.rating === 'clean' && each.tempo !== null && each.cleanTempos.length === 0 ? [each.tempo] : []),
    ];
    const weeks = new Map<number, number>();
    for (const each of tries) for (const tempo of cleanOf(each)) weeks.set(weekOf(dayOf(each.at)), Math.max(tempo, weeks.get(weekOf(dayOf(each.at))) ?? 0));
    const best = Math.max(0, ...weeks.values());
    const lately = tries.filter((each) => each.rating !== 'unjudged' && today - dayOf(each.at) < staleDays * dayMs);
    const isBest = (each: LoggedAttempt): boolean => cleanOf(each).includes(best);
    return {
      ...{ item, title: latest.title, kind: latest.kind, tries: tries.length, lastAt: latest.at },
      clean: tries.filter(({ rating }) => rating === 'clean').length,
      best: best === 0 ? undefined : best,
      isOwnEar: best > 0 && !tries.some((each) => isBest(each) && each.by === 'teacher'),
      weeks: [...weeks].sort(([one], [other]) => one - other).map(([week, fastest]) => ({ week, best: fastest })),
      isStale: today - dayOf(latest.at) >= staleDays * dayMs,
      recent: { judged: lately.length, clean: lately.filter(({ rating }) => rating === 'clean').length },
    };
  });
  return {
    items: items.sort((one, other) => other.lastAt - one.lastAt),
    days: Array.from({ length: shownDays }, (_, index) => {
      const day = today - (shownDays - 1 - index) * dayMs;
      return { day, minutes: Math.round((seconds.get(day) ?? 0) / 60) };
    }),
    ladders: laddersOf(attempts),
  };
}

function laddersOf(attempts: readonly LoggedAttempt[]): readonly LogbookLadder[] {
  return attempts
    .flatMap(({ title, at, climb, cleanTempos }): LogbookLadder[] =>
      climb === undefined ? [] : [{ title, at, ...climb, score: cleanTempos.length === 0 ? null : Math.max(...cleanTempos) }],
    )
    .sort((one, other) => other.at - one.at)
    .slice(0, shownLadders);
}

/** What a teacher wants to know first, in two sentences: how much, and what moved most. */
export function logbookText({ items, days }: Pick<LogbookOf, 'items' | 'days'>, alias: string): { readonly first: string; readonly second: string } {
  if (items.length === 0) return { first: `Nothing is logged of ${alias} yet.`, second: 'The log begins with the first line that is practised by its code.' };
  const week = days.slice(-7);
  const minutes = week.reduce((sum, day) => sum + day.minutes, 0);
  const practised = week.filter((day) => day.minutes > 0).length;
  const first =
    minutes === 0
      ? `${alias} logged no practice in the last seven days.`
      : `${count(minutes, 'minute')} in the last seven days, on ${count(practised, 'day')}.`;
  const moved = items
    .flatMap(({ title, weeks }) => (weeks.length < 2 ? [] : [{ title, from: weeks[0].best, to: weeks[weeks.length - 1].best, over: weeks.length }]))
    .sort((one, other) => other.to - other.from - (one.to - one.from));
  const [most] = moved;
  if (most !== undefined && most.to > most.from) return { first, second: `Moved most: ${most.title}, from ${most.from} to ${most.to}.` };
  return { first, second: moved.length === 0 ? 'No tempo was judged clean in two different weeks yet.' : 'No tempo has gone up yet.' };
}
