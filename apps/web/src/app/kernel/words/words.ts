export { capital } from '@zelpit/core/words';

/** "9 March 2026". */
export const dayInWords = (moment: string): string => new Date(moment).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** A typed number with a decimal point or comma; undefined for nothing, NaN for something else. */
export function typedNumber(text: string): number | undefined {
  const typed = text.trim().replace(',', '.');
  return typed === '' ? undefined : Number(typed);
}
