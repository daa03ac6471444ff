import type { Route } from '@zelpit/contract';
import type { EntityTarget, ObjectLiteral } from 'typeorm';
import type { AnyArchivePart } from '../archive/archive-part';
import type { BlobRepository } from '../blobs/blob.repository';
import type { Database } from '../database/database';
import type { Endpoints } from '../http/endpoints';
import type { JobWorker } from '../jobs/job-worker';
import type { Sealer } from '../platform/sealer';
import type { Readers } from '../tunes/readers';

/** What a module is served with; it makes its repositories itself. */
export interface ThingParts {
  readonly database: Database;
  /** Where people reach this server, for links; absent for loopback. */
  readonly address: string | undefined;
  /** Seals what is kept in the database and read by nobody but the server. */
  readonly sealer: Sealer;
  /** What reads tunes apart from the server's own thread. */
  readonly readers: Readers;
  readonly blobs: BlobRepository;
  /** What does long work. */
  readonly worker: JobWorker;
}

/** How a kind of thing is put away: its table has `deleted_at`. */
export interface PutAwayPart {
  readonly table: string;
  /** The column that holds its name. */
  readonly name: string;
  /** True where it has a `student_id`, so that it goes for good with its student. */
  readonly isOfStudent?: true;
  /** What else goes for good after a while: a table and the column with the moment since when. */
  readonly alsoClears?: { readonly table: string; readonly since: string };
}

/**
 * One kind of thing that a studio keeps. Routes, archive, putting away, tables and the matrix of who may do what walk over the list of these in
 * `things.ts`; a new kind is a folder, its contract file, a migration and a line there.
 */
export interface Thing {
  /** As the list of changes and the API name it: "sheet". Its folder has the same name in the plural. */
  readonly kind: string;
  /** Its addresses, by their operation ids. */
  readonly routes: Readonly<Record<string, Route>>;
  readonly entities: readonly EntityTarget<ObjectLiteral>[];
  readonly serve: (endpoints: Endpoints, parts: ThingParts) => void;
  readonly putAway?: PutAwayPart;
  readonly archive?: AnyArchivePart;
}

/** Those that go into an archive, each with how. */
export const archivePartsOf = (things: readonly Thing[]) => things.flatMap(({ kind, archive: part }) => (part === undefined ? [] : [{ kind, part }]));

/** Those that can be put away, each with how. */
export const putAwayPartsOf = (things: readonly Thing[]) => things.flatMap(({ kind, putAway }) => (putAway === undefined ? [] : [{ kind, ...putAway }]));
