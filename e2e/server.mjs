import { fork } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';
import { dist } from '../scripts/lib/paths.mjs';

/**
 * Serves the built application over a fresh database of the test cluster, with the demo studio in it.
 * @returns its address, the address of its database, and what stops it
 */
export async function startServer() {
  const cluster = process.env.ZELPIT_TEST_DATABASE_URL;
  if (cluster === undefined) throw new Error('This needs a PostgreSQL of its own: run it through scripts/with-test-database.mjs.');
  const name = `e2e_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client({ connectionString: cluster });
  await client.connect();
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  const url = new URL(cluster);
  url.pathname = `/${name}`;
  const server = fork(join(dist, 'server', 'main.js'), {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: url.toString(),
      ZELPIT_PORT: '0',
      ZELPIT_DEMO: '1',
      ZELPIT_SESSION_SECRET: randomBytes(32).toString('hex'),
      ZELPIT_WEB_ROOT: join(dist, 'web'),
      ZELPIT_LOG: 'warn',
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
  return { address: `http://127.0.0.1:${port}`, databaseUrl: url.toString(), stop };
}
