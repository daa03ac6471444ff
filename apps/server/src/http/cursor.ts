import type { Page } from '@zelpit/contract';
import * as z from 'zod';
import { HttpProblem } from './problem';

/** Where a page of a list ended, as a sign to ask on with. */
export function cursorOf(...place: readonly string[]): string {
  return Buffer.from(JSON.stringify(place)).toString('base64url');
}

const places = {
  /** By a moment of the database, then by id. */
  moment: z.tuple([z.string().regex(/^\d{4}-\d\d-\d\d \d\d:\d\d:\d\d(\.\d+)?[+-]\d\d(:\d\d)?$/), z.uuid()]),
  /** By a name, then by id. */
  name: z.tuple([z.string(), z.uuid()]),
};

/** The place in such a sign; empty where the list begins. @throws HttpProblem 400 for a sign that no list gave */
export function readCursor(sign: string | undefined, by: keyof typeof places): readonly [first?: string, id?: string] {
  if (sign === undefined) return [];
  const place = places[by].safeParse(parsed(Buffer.from(sign, 'base64url').toString()));
  if (!place.success) throw new HttpProblem('not-understood', 'after: this sign did not come from the end of a list here.');
  return place.data;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** A page of rows of which one more than wanted was asked for. */
export function cutPage<Row, Item>(rows: readonly Row[], limit: number, place: (row: Row) => string, item: (row: Row) => Item): Page<Item> {
  const shown = rows.slice(0, limit);
  return { items: shown.map(item), next: rows.length > limit ? place(shown[shown.length - 1]) : null };
}

/** A pattern of LIKE for text that holds these words; null for any text. */
export function containing(words: string | undefined): string | null {
  return words === undefined || words === '' ? null : `%${words.replace(/[\\%_]/g, '\\$&')}%`;
}
