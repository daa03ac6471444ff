import { createServer, type RequestListener } from 'node:http';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { pino } from 'pino';
import { AccountRepository } from './accounts/account.repository';
import { LinkRepository } from './accounts/link.repository';
import { createDataSource, migrate } from './database/data-source';
import { Database } from './database/database';
import { loadDemo, removeDemo } from './demo/load-demo';
import { KeptAnswers } from './http/kept-answers';
import { createApp } from './platform/app';
import { readConfig } from './platform/config';
import { createMetrics, serveMetrics } from './platform/metrics';
import { PutAwayRepository } from './put-away/put-away.repository';
import { tables } from './things/tables';
import { things } from './things/things';
import { Readers } from './tunes/readers';
import { waitingApp, whenDatabaseAnswers } from './platform/waiting';

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel });
const onPoolError = (error: unknown): void => logger.warn({ reason: (error as Error).message }, 'a database connection was lost');

/** Once a day what was put away long ago goes for good. */
const clearEveryMs = 24 * 3600 * 1000;

const dataSource = createDataSource(config.databaseUrl, tables, onPoolError);
const database = new Database(dataSource);

if (process.argv.includes('--demo-reset')) {
  await dataSource.initialize();
  await migrate(dataSource, config.databaseUrl);
  await removeDemo(dataSource);
  await loadDemo(dataSource);
  await dataSource.destroy();
  process.exit(0);
}

/** Stands beside this file where both are built. */
const readers = new Readers({ path: fileURLToPath(new URL('./reader.js', import.meta.url)) });

const pool = new pg.Pool({ connectionString: config.databaseUrl, max: 5, connectionTimeoutMillis: 3000 });
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
/** Lets running requests finish, for ten seconds at most, then closes the connections. */
async function stop(): Promise<void> {
  if (isStopping) return;
  isStopping = true;
  const closed = new Promise((resolve) => server.close(resolve));
  server.closeIdleConnections();
  metricsServer?.close();
  setTimeout(() => server.closeAllConnections(), 10_000).unref();
  await closed;
  await Promise.allSettled([pool.end(), ...(dataSource.isInitialized ? [dataSource.destroy()] : [])]);
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
process.on('disconnect', () => void stop());

await whenDatabaseAnswers(async () => {
  if (!dataSource.isInitialized) await dataSource.initialize();
  await migrate(dataSource, config.databaseUrl);
  if (config.isDemo && !(await new AccountRepository(database).hasAnyStudio())) await loadDemo(dataSource);
}, logger);
const [putAway, links, keptAnswers] = [new PutAwayRepository(database, things), new LinkRepository(database), new KeptAnswers(database)];
const clear = (): void => void Promise.all([putAway.clear(), links.clear(), keptAnswers.clear()]).catch(onPoolError);
clear();
setInterval(clear, clearEveryMs).unref();

answer = createApp({ config, dataSource, pool, logger, readers, metrics });
const address = server.address();
const port = typeof address === 'object' && address !== null ? address.port : config.port;
process.send?.({ listening: port });
logger.info({ port }, 'listening');
