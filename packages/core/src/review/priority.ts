import { count } from '../words';

const weekMs = 7 * 86_400_000;

/** The one thing that comes before everything else for some weeks. Days are written as "2026-12-01". */
export interface Priority {
  /** "No low G between C and E." */
  readonly text: string;
  /** A sentence of the teacher's own; empty for none. */
  readonly sentence: string;
  /** Its last day. */
  readonly until: string;
  /** The change that it is about; null where it is about none. */
  readonly home: string | null;
  readonly other: string | null;
}

/** True up to its last day. */
export const stands = ({ until }: Pick<Priority, 'until'>, today: string): boolean => today <= until;

/** The day so many weeks later. */
export const weeksLater = (day: string, weeks: number): string => new Date(Date.parse(day) + weeks * weekMs).toISOString().slice(0, 10);

/** "for two more weeks": weeks that are begun count. */
export function standsText(priority: Pick<Priority, 'until'>, today: string): string {
  if (!stands(priority, today)) return 'it has ended';
  const weeks = Math.ceil((Date.parse(priority.until) - Date.parse(today)) / weekMs);
  return weeks === 0 ? 'until today' : `for ${count(weeks, 'more week')}`;
}
