import { fork } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';
import { dist } from '../scripts/lib/paths.mjs';

export { isFree } from '../scripts/lib/ports.mjs';

/** Makes a fresh database in the test cluster and returns its address. */
export async function freshDatabase() {
  const cluster = process.env.ZELPIT_TEST_DATABASE_URL;
  if (cluster === undefined) throw new Error('This needs a PostgreSQL of its own: run it through scripts/with-test-database.mjs.');
  const name = `e2e_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client({ connectionString: cluster });
  await client.connect();
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  const url = new URL(cluster);
  url.pathname = `/${name}`;
  return url.toString();
}

/** The same database of the test cluster, as the role that a server works as. */
function rowsUrlOf(database) {
  const [url, rows] = [new URL(database), new URL(process.env.ZELPIT_TEST_ROWS_URL)];
  return Object.assign(url, { username: rows.username, password: rows.password }).toString();
}

/**
 * Serves the built application, with the demo studio in it, over a fresh database of the test cluster or the one named.
 * @returns its address, the address of its database, its process, and what stops it
 */
export async function startServer({ databaseUrl, rowsUrl, sessionSecret = randomBytes(32).toString('hex'), env = {} } = {}) {
  const database = databaseUrl ?? (await freshDatabase());
  const server = fork(join(dist, 'server', 'main.js'), {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: rowsUrl ?? rowsUrlOf(database),
      ZELPIT_MIGRATIONS_URL: database,
      ZELPIT_PORT: '0',
      ZELPIT_DEMO: '1',
      ZELPIT_SESSION_SECRET: sessionSecret,
      ZELPIT_WEB_ROOT: join(dist, 'web'),
      ZELPIT_LOG: 'warn',
      ...env,
    },
  });
  const ended = new Promise((resolve) => server.once('exit', resolve));
  const port = await new Promise((resolve, reject) => {
    server.once('message', (message) => resolve(message.listening));
    void ended.then((code) => reject(new Error(`The server ended with ${code} before it listened.`)));
  });
  const stop = async () => {
    server.kill('SIGTERM');
    await ended;
  };
  return { address: `http://127.0.0.1:${port}`, databaseUrl: database, child: server, ended, stop };
}
