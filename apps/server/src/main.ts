import { createServer, type RequestListener } from 'node:http';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { pino } from 'pino';
import { AccountRepository } from './accounts/account.repository';
import { ArchiveReader } from './archive/archive-reader';
import { LinkRepository } from './accounts/link.repository';
import { Tries } from './accounts/tries';
import { assertLeastRights, createDataSource, migrate } from './database/data-source';
import { Database } from './database/database';
import { PlanKeepingClient } from './database/plan-keeping-client';
import { loadDemo, removeDemo } from './demo/load-demo';
import { BlobRepository } from './blobs/blob.repository';
import { ObjectStore } from './blobs/object-store';
import { KeptAnswers } from './http/kept-answers';
import { JobRepository } from './jobs/job.repository';
import { openWorker } from './jobs/open-worker';
import { createApp } from './platform/app';
import { readConfig } from './platform/config';
import { createMetrics, serveMetrics } from './platform/metrics';
import { PutAwayRepository } from './put-away/put-away.repository';
import { tables } from './things/tables';
import { SpokenWordRepository } from './spoken-words/spoken-word.repository';
import { LongTakes } from './takes/long-takes';
import { TakeRepository } from './takes/take.repository';
import { things } from './things/things';
import { readAgain } from './tunes/read-again';
import { Readers } from './tunes/readers';
import { Sealer } from './platform/sealer';
import { waitingApp, whenDatabaseAnswers } from './platform/waiting';

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel });
const onPoolError = (error: unknown): void => logger.warn({ reason: (error as Error).message }, 'a database connection was lost');

/** Once a day what was put away long ago goes for good. */
const clearEveryMs = 24 * 3600 * 1000;
const sweepEveryMs = 15_000;

/** What went wrong beneath a problem that was told in a sentence. */
function reasonOf(error: unknown): string {
  const { name, message, $metadata } = ((error as Error).cause ?? error) as Error & { readonly $metadata?: { readonly httpStatusCode?: number } };
  return [name, message, $metadata?.httpStatusCode ?? ''].join(' ').trim();
}

const dataSource = createDataSource(config.databaseUrl, tables, onPoolError, config.pool);
const files = config.files === undefined ? undefined : await ObjectStore.open(config.files);
const database = new Database(dataSource, files);
const accounts = new AccountRepository(database);

/** The tables as this version has them, and a connection that may do no more than it should. */
async function prepareDatabase(): Promise<void> {
  if (config.migrationsUrl !== undefined) await migrate(config.migrationsUrl, config.databaseUrl);
  if (!dataSource.isInitialized) await dataSource.initialize();
  await assertLeastRights(dataSource);
}

if (process.argv.includes('--demo-reset')) {
  await prepareDatabase();
  await removeDemo(dataSource);
  await loadDemo(dataSource);
  await dataSource.destroy();
  process.exit(0);
}

/** Stands beside this file where both are built. */
const readers = new Readers({ path: fileURLToPath(new URL('./reader.js', import.meta.url)) });
const archives = new ArchiveReader({ path: fileURLToPath(new URL('./archive.js', import.meta.url)) });
const longTakes = new LongTakes({ path: fileURLToPath(new URL('./long-take.js', import.meta.url)) });

const worker = openWorker({ databaseUrl: config.databaseUrl, database, things, readers, archives, longTakes, logger });

const pool = new pg.Pool({ connectionString: config.databaseUrl, max: 5, connectionTimeoutMillis: 3000, Client: PlanKeepingClient });
pool.on('error', onPoolError);

// The address answers from the first moment; what needs the database says so until it is there.
let answer: RequestListener = waitingApp();
const server = createServer((request, response) => answer(request, response));
server.listen(config.port, config.host);
server.on('error', (error) => {
  logger.fatal({ reason: error.message }, 'cannot listen');
  process.exit(1);
});
const metrics = createMetrics(pool);
const metricsServer = config.metricsPort === undefined ? undefined : serveMetrics(metrics.registry, config.metricsPort);
metricsServer?.on('error', (error) => logger.warn({ reason: error.message }, 'no figures are served'));

let isStopping = false;
/** Running requests may take so long once the server was told to stop: a book is being read, a backup restored. */
const longestStopMs = 25_000;

/** Lets running requests finish, then closes the connections. */
async function stop(): Promise<void> {
  if (isStopping) return;
  isStopping = true;
  const closed = new Promise((resolve) => server.close(resolve));
  server.closeIdleConnections();
  metricsServer?.close();
  setTimeout(() => server.closeAllConnections(), longestStopMs).unref();
  await closed;
  await worker.close();
  await Promise.allSettled([pool.end(), ...(dataSource.isInitialized ? [dataSource.destroy()] : [])]);
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
process.on('disconnect', () => void stop());

await whenDatabaseAnswers(async () => {
  await prepareDatabase();
  if (config.isDemo && !(await accounts.hasAnyStudio())) await loadDemo(dataSource);
}, logger);
const [jobs, takes, words, blobs] = [
  new JobRepository(database),
  new TakeRepository(database),
  new SpokenWordRepository(database),
  new BlobRepository(database),
];
const [putAway, links, keptAnswers] = [
  new PutAwayRepository(database, things),
  new LinkRepository(database),
  new KeptAnswers(database, new Sealer(config.sessionSecret)),
];

/** Studio by studio, since no transaction spans two. */
async function clear(): Promise<void> {
  for (const studioId of await accounts.allStudios())
    await database.inStudio(studioId, async () => {
      await putAway.clear();
      await links.clear();
      await keptAnswers.clear();
      await jobs.clear();
      await takes.clear();
      await words.clear();
      await blobs.clear();
    });
  await accounts.clearSessions();
  await new Tries(database).clear();
}
/** What was deleted is soon deleted where files lie beside the database. */
if (files !== undefined) {
  files
    .check()
    .catch((error: unknown) => logger.error({ reason: reasonOf(error) }, `the store of files at ${config.files?.address ?? ''} does not let this server in`));
  setInterval(
    () => void blobs.sweep().catch((error: unknown) => logger.warn({ reason: reasonOf(error) }, 'files could not be deleted from their store')),
    sweepEveryMs,
  ).unref();
}

const clearNow = (): void => void clear().catch(onPoolError);
clearNow();
setInterval(clearNow, clearEveryMs).unref();

/** Tunes that an older version read, studio by studio, beside all other work. */
async function readOldTunes(): Promise<void> {
  for (const studioId of await accounts.allStudios()) {
    const count = await readAgain(database, readers, studioId);
    if (count > 0) logger.info({ studioId, count }, 'tunes read again');
  }
}
void readOldTunes().catch(onPoolError);

answer = createApp({ config, dataSource, database, pool, logger, readers, worker, metrics });
void worker.start().catch(onPoolError);
const address = server.address();
const port = typeof address === 'object' && address !== null ? address.port : config.port;
process.send?.({ listening: port });
logger.info({ port }, 'listening');
