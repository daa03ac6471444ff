import type { Instrument } from '@zelpit/core';
import { In, type EntityTarget, type ObjectLiteral } from 'typeorm';
import type * as z from 'zod';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';

/** An archive that cannot be taken, with the reason. */
export const refused = (reason: string): HttpProblem => new HttpProblem('archive-refused', `${reason} Nothing was changed.`);

/** Things are named in an archive by signs that hold inside it only: "s1", "t4". */
export class Signs {
  private readonly all = new Map<string, string>();

  give(letter: string, ids: readonly string[]): void {
    ids.forEach((id, index) => this.all.set(id, `${letter}${index + 1}`));
  }

  /** @throws Error for a thing that has none: a row that points to another studio */
  of(id: string): string {
    const sign = this.all.get(id);
    if (sign === undefined) throw new Error(`No sign was given for ${id}.`);
    return sign;
  }

  /** Undefined for what is not there any more. */
  find(id: string): string | undefined {
    return this.all.get(id);
  }

  /** A model's sign, or the id of a built-in instrument as it is. */
  ofModel(id: string): string {
    return this.all.get(id) ?? id;
  }
}

/** What is known of a whole archive before its things are checked one by one. */
export interface ArchiveContext {
  /** The signs of one file whose things all have one. */
  readonly signsIn: (file: string) => ReadonlySet<string>;
  /** The built-in instruments by id and those of the archive by sign. */
  readonly instruments: ReadonlyMap<string, Instrument>;
}

/** Where an archive is written into. */
export interface ArchiveTarget {
  readonly database: Database;
  readonly studioId: string;
  /** The new id of what has this sign. */
  readonly idOf: (sign: string) => string;
  /** The new id of a model of the archive, or a built-in instrument as it is. */
  readonly modelOf: (model: string) => string;
}

/** Checks the things of one file, each as it comes. @throws HttpProblem `archive-refused` with a sentence */
export interface ArchiveChecker<Item, Prepared> {
  /** What writing it takes beside the thing itself. */
  readonly each: (item: Item) => Prepared;
  /** What can be said only when all have come. */
  readonly end?: () => void;
}

/** A thing that was checked, with what was prepared for it. */
export interface Checked<Item, Prepared> {
  readonly item: Item;
  readonly prepared: Prepared;
}

/** Writes the things of one file, some at a time, in their order. */
export interface ArchiveWriter<Item, Prepared> {
  readonly some: (checked: readonly Checked<Item, Prepared>[]) => Promise<void>;
  /** What can be written only when all are there. */
  readonly end?: () => Promise<void>;
  /** How many came in, and how many codes of lines had to be new. */
  readonly brought: () => { readonly count: number; readonly newCodes?: number };
}

/** How one kind of thing goes into an archive and out of it: never all of it at once, however many there are. */
export interface ArchivePart<Item, Prepared> {
  /** Its file: "sheets.json". */
  readonly file: string;
  /** The version of the archive that had it first. */
  readonly since: number;
  /** The version in which its things got something that earlier readers refuse; `since` where it is absent. */
  readonly changed?: number;
  /** Of one thing. */
  readonly schema: z.ZodType<Item>;
  /** True where it stays here unless somebody chooses otherwise: its list is empty then. */
  readonly isByChoice?: true;
  /** True where its file is one object and no list. */
  readonly isOne?: true;
  /** Where other things name it, so that each has a sign: the letter of these, its table, and in which order they are given. */
  readonly signs?: { readonly letter: string; readonly table: string; readonly order?: string };
  /** Everything of the studio in its order, what is put away too, some at a time. */
  readonly read: (database: Database, studioId: string, signs: Signs) => AsyncIterable<readonly Item[]>;
  readonly check: (context: ArchiveContext) => ArchiveChecker<Item, Prepared>;
  readonly write: (target: ArchiveTarget) => ArchiveWriter<Item, Prepared>;
}

/** A part whose types are its own business. */
export type AnyArchivePart = ArchivePart<unknown, unknown>;

/** Gives a part away without its types: what `check` prepares goes to `write`, and to nobody else. */
export const archivePart = <Item, Prepared>(part: ArchivePart<Item, Prepared>): AnyArchivePart => part as unknown as AnyArchivePart;

/** In the order in which they were made. */
const asMade = 'created_at, id';

interface KeptRow extends ObjectLiteral {
  readonly id: string;
}

/** The ids of a table's rows of the studio in hand, in an order. */
export async function idsInOrder(database: Database, table: string, order = asMade): Promise<readonly string[]> {
  return (await database.query<{ id: string }>(`SELECT id FROM ${table} WHERE studio_id = current_studio() ORDER BY ${order}`)).map(({ id }) => id);
}

/** All rows of the studio in hand in an order, what is put away too; none but some of them at a time. Belongs into a transaction, which holds the moment. */
export async function* pagesOf<T extends KeptRow>(database: Database, entity: EntityTarget<T>, studioId: string, order = asMade): AsyncGenerator<readonly T[]> {
  const table = database.of(entity);
  const cursor = `archive_${table.metadata.tableName}`;
  await database.query(
    `DECLARE ${cursor} NO SCROLL CURSOR FOR SELECT id FROM ${table.metadata.tableName} WHERE studio_id = current_studio() ORDER BY ${order}`,
  );
  for (;;) {
    const ids = (await database.query<{ id: string }>(`FETCH ${page} FROM ${cursor}`)).map(({ id }) => id);
    if (ids.length === 0) break;
    const rows = await table.find({ where: { studioId, id: In(ids) } as never, withDeleted: true });
    const byId = new Map(rows.map((row) => [row.id, row]));
    yield ids.map((id) => byId.get(id) as T);
  }
  await database.query(`CLOSE ${cursor}`);
}

/** Rows fetched at once: making them into objects keeps the server from answering others. */
const page = 250;

/**
 * Puts many rows into a table in one statement, which costs the server a tenth of what rows of parameters do.
 * @param rows by the names of the entity's properties, each with the same ones; what is not among them gets its default
 */
export async function insertAll<T extends ObjectLiteral>(database: Database, entity: EntityTarget<T>, rows: readonly object[]): Promise<void> {
  if (rows.length === 0) return;
  const { tableName, columns } = database.of(entity).metadata;
  const known = columns.filter(({ propertyName }) => propertyName in rows[0]);
  const names = known.map(({ databaseName }) => `"${databaseName}"`).join(', ');
  const content = rows.map((row) =>
    Object.fromEntries(known.map(({ databaseName, propertyName }) => [databaseName, (row as Record<string, unknown>)[propertyName]])),
  );
  await database.query(`INSERT INTO ${tableName} (${names}) SELECT ${names} FROM jsonb_populate_recordset(NULL::${tableName}, $1::jsonb)`, [
    JSON.stringify(content),
  ]);
}

/** A writer whose things are one row each. */
export function rowWriter<Item, Prepared, Row extends ObjectLiteral>(
  { database }: ArchiveTarget,
  entity: EntityTarget<Row>,
  rowOf: (item: Item, prepared: Prepared) => object,
): ArchiveWriter<Item, Prepared> {
  let count = 0;
  return {
    some: async (checked) => {
      const rows = checked.map(({ item, prepared }) => rowOf(item, prepared));
      await insertAll(database, entity, rows);
      count += rows.length;
    },
    brought: () => ({ count }),
  };
}

/** A checker that finds nothing to check beside the schema. */
export const nothingToCheck = (): ArchiveChecker<unknown, undefined> => ({ each: () => undefined });

export const isoOrNull = (date: Date | null): string | null => (date === null ? null : date.toISOString());
export const dateOrNull = (text: string | null): Date | null => (text === null ? null : new Date(text));
