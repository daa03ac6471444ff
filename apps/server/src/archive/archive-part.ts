import { MoreThan, type EntityTarget, type ObjectLiteral } from 'typeorm';
import type * as z from 'zod';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';

/** An archive that cannot be taken, with the reason. */
export const refused = (reason: string): HttpProblem => new HttpProblem('archive-refused', `${reason} Nothing was changed.`);

/** The files of an archive as they were read, by name. */
export type ArchiveFiles = ReadonlyMap<string, unknown>;

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

  /** A model's sign, or the id of a built-in instrument as it is. */
  ofModel(id: string): string {
    return this.all.get(id) ?? id;
  }
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

/** What one kind of thing brought: how many, and how many codes of lines had to be new. */
export interface Brought {
  readonly count: number;
  readonly newCodes?: number;
}

/** How one kind of thing goes into an archive and out of it. */
export interface ArchivePart<Content, Rows, Prepared> {
  /** Its file: "sheets.json". */
  readonly file: string;
  /** The version of the archive that had it first. */
  readonly since: number;
  /** The version in which its things got something that earlier readers refuse; `since` where it is absent. */
  readonly changed?: number;
  readonly schema: z.ZodType<Content>;
  /** What an archive of an earlier version has instead. */
  readonly absent: Content;
  /** Everything of the studio, what is put away too. */
  readonly load: (database: Database, studioId: string) => Promise<Rows>;
  readonly pack: (rows: Rows, signs: Signs) => Content;
  /** Where other things name it, so that its file is a list of things with signs: the letter of these, and the ids of its rows. */
  readonly signs?: { readonly letter: string; readonly idsOf: (rows: Rows) => readonly string[] };
  /** Checks a file beside the others and reads what it takes. @throws HttpProblem 422 with a sentence */
  readonly prepare: (content: Content, files: ArchiveFiles) => Prepared;
  readonly write: (content: Content, prepared: Prepared, target: ArchiveTarget) => Promise<Brought>;
}

/** A part whose types are its own business. */
export type AnyArchivePart = ArchivePart<unknown, unknown, unknown>;

/** Gives a part away without its types: what `load` gives goes to `pack`, what `prepare` gives to `write`, and to nobody else. */
export const archivePart = <Content, Rows, Prepared>(part: ArchivePart<Content, Rows, Prepared>): AnyArchivePart => part as unknown as AnyArchivePart;

/** The signs in what one part's file holds; none where its things have none. */
export const signsOf = ({ signs }: AnyArchivePart, content: unknown): readonly string[] => (signs === undefined ? [] : signsAmong(content));

/** The signs of one file whose things all have one. */
export const signsIn = (files: ArchiveFiles, file: string): ReadonlySet<string> => new Set(signsAmong(files.get(file) ?? []));

const signsAmong = (content: unknown): readonly string[] => (content as readonly { readonly sign: string }[]).map(({ sign }) => sign);

/** The ids of rows. */
export const idsOf = (rows: readonly { readonly id: string }[]): readonly string[] => rows.map(({ id }) => id);

/** All rows of a studio in the order in which they were made, what is put away too. */
export async function everything<T extends KeptRow>(database: Database, entity: EntityTarget<T>, studioId: string): Promise<T[]> {
  const rows: T[] = [];
  for (;;) {
    const after = rows.at(-1)?.id;
    const where = { studioId, ...(after !== undefined && { id: MoreThan(after) }) } as never;
    const more = await database.of(entity).find({ where, withDeleted: true, order: { id: 'ASC' } as never, take: page });
    rows.push(...more);
    if (more.length < page) break;
  }
  return rows.sort((one, other) => one.createdAt.getTime() - other.createdAt.getTime() || (one.id < other.id ? -1 : 1));
}

interface KeptRow extends ObjectLiteral {
  readonly id: string;
  readonly createdAt: Date;
}

/** Rows fetched at once: making them into objects keeps the server from answering others. */
const page = 1000;

const batch = 200;

export async function insertAll<T extends ObjectLiteral>(database: Database, entity: EntityTarget<T>, rows: readonly object[]): Promise<void> {
  for (let start = 0; start < rows.length; start += batch) await database.of(entity).insert(rows.slice(start, start + batch) as never[]);
}

export const isoOrNull = (date: Date | null): string | null => (date === null ? null : date.toISOString());
export const dateOrNull = (text: string | null): Date | null => (text === null ? null : new Date(text));
