export { capital } from '@zelpit/core/words';

/** "9 March 2026". */
export const dayInWords = (moment: string): string => new Date(moment).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** A day written as "2026-12-01", as it is said: "1 December". */
export const dayAndMonth = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));

/** A typed number with a decimal point or comma; undefined for nothing, NaN for something else. */
export function typedNumber(text: string): number | undefined {
  const typed = text.trim().replace(',', '.');
  return typed === '' ? undefined : Number(typed);
}

/** How long a file is, or how much is kept: "840 kB", "12.4 MB", "4 GB". */
export function sizeText(bytes: number): string {
  if (bytes < 1_000_000) return `${Math.ceil(bytes / 1000)} kB`;
  const [number, unit] = bytes < 1_000_000_000 ? [bytes / 1_000_000, 'MB'] : [bytes / 1_000_000_000, 'GB'];
  return `${number.toFixed(1).replace(/\.0$/, '')} ${unit}`;
}

/** Seconds as a clock shows them: "1:05". */
export const clockText = (seconds: number): string => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
