import pg from 'pg';
import { pino } from 'pino';
import { AccountRepository } from './accounts/account.repository';
import { createDataSource, migrate } from './database/data-source';
import { loadDemo, removeDemo } from './demo/load-demo';
import { createApp } from './platform/app';
import { readConfig } from './platform/config';

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel });
const onPoolError = (error: unknown): void => logger.warn({ reason: (error as Error).message }, 'a database connection was lost');

const dataSource = createDataSource(config.databaseUrl, onPoolError);
await dataSource.initialize();
await migrate(dataSource, config.databaseUrl);

if (process.argv.includes('--demo-reset')) {
  await removeDemo(dataSource);
  await loadDemo(dataSource);
  await dataSource.destroy();
  process.exit(0);
}

if (config.isDemo && !(await new AccountRepository(dataSource).hasAnyStudio())) await loadDemo(dataSource);

const pool = new pg.Pool({ connectionString: config.databaseUrl, max: 5, connectionTimeoutMillis: 3000 });
pool.on('error', onPoolError);

const server = createApp({ config, dataSource, pool, logger }).listen(config.port, config.host, (error?: Error) => {
  if (error) {
    logger.fatal({ reason: error.message }, 'cannot listen');
    process.exit(1);
  }
  const address = server.address();
  const port = typeof address === 'object' && address !== null ? address.port : config.port;
  process.send?.({ listening: port });
  logger.info({ port }, 'listening');
});

let isStopping = false;
async function stop(): Promise<void> {
  if (isStopping) return;
  isStopping = true;
  server.close();
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), 3000).unref();
  await new Promise((resolve) => server.once('close', resolve));
  await Promise.allSettled([pool.end(), dataSource.destroy()]);
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
process.on('disconnect', () => void stop());
