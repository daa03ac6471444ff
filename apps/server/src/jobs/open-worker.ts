import type { Logger } from 'pino';
import { archiveWorks } from '../archive/archive.jobs';
import type { ArchiveReader } from '../archive/archive-reader';
import { AuditRepository } from '../audit/audit.repository';
import { BlobRepository } from '../blobs/blob.repository';
import type { Database } from '../database/database';
import type { Thing } from '../things/thing';
import { listenWork } from '../takes/long-take.job';
import type { LongTakes } from '../takes/long-takes';
import type { Readers } from '../tunes/readers';
import { bringTunesWork } from '../tunes/tune.job';
import { JobRepository } from './job.repository';
import { JobWorker } from './job-worker';
import { openWorkQueue } from './work-queue';

export interface WorkParts {
  /** As the role that the server works as. */
  readonly databaseUrl: string;
  readonly database: Database;
  readonly things: readonly Thing[];
  readonly readers: Readers;
  readonly archives: ArchiveReader;
  readonly longTakes: LongTakes;
  readonly logger: Logger;
}

/** What does the server's long work, with every kind of it. */
export function openWorker({ databaseUrl, database, things, readers, archives, longTakes, logger }: WorkParts): JobWorker {
  const blobs = new BlobRepository(database);
  const parts = { database, jobs: new JobRepository(database), audit: new AuditRepository(database), logger };
  return new JobWorker(openWorkQueue(databaseUrl), parts, [
    bringTunesWork(database, blobs, readers),
    ...archiveWorks({ database, things, blobs, archives }),
    listenWork(database, blobs, longTakes),
  ]);
}
