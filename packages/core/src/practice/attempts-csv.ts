/** A row of the log as it leaves the house. */
export interface CsvAttempt {
  readonly at: string;
  readonly title: string;
  readonly kind: string;
  readonly tempo: number | null;
  readonly count: number;
  readonly rating: string;
  readonly by: string;
  readonly seconds: number;
  readonly device: string;
  readonly note: string;
  readonly ladder: { readonly rungs: readonly { readonly tempo: number; readonly rating: string }[] } | null;
  readonly correction: { readonly rating: string; readonly who: string; readonly at: string } | null;
}

const columns = ['at', 'title', 'kind', 'tempo', 'count', 'rating', 'by', 'seconds', 'device', 'ladder', 'corrected', 'corrected by', 'note'] as const;

/** A field between quotes where it needs them; one that a table program would take for a formula begins with an apostrophe. */
function field(value: string | number | null): string {
  const text = value === null ? '' : String(value);
  const safe = typeof value === 'string' && /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\n\r]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** The log as a table (RFC 4180), the first line its heads. */
export function attemptsCsv(attempts: readonly CsvAttempt[]): string {
  const rows = attempts.map(({ at, title, kind, tempo, count, rating, by, seconds, device, note, ladder, correction }) => [
    ...[at, title, kind, tempo, count, rating, by, seconds, device],
    ladder?.rungs.map((rung) => `${rung.tempo} ${rung.rating}`).join('; ') ?? '',
    ...[correction?.rating ?? '', correction?.who ?? '', note],
  ]);
  return [[...columns], ...rows].map((row) => row.map(field).join(',')).join('\r\n') + '\r\n';
}
