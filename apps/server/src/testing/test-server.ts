import pg from 'pg';
import { pino } from 'pino';
import request from 'supertest';
import type TestAgent from 'supertest/lib/agent';
import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { tokenHeader, type Session } from '@zelpit/contract';
import { hashPassword } from '../accounts/password';
import { createDataSource, migrate } from '../database/data-source';
import { AccountRepository } from '../accounts/account.repository';
import { ObjectStore } from '../blobs/object-store';
import { Database } from '../database/database';
import { PlanKeepingClient } from '../database/plan-keeping-client';
import { openWorker } from '../jobs/open-worker';
import { createApp } from '../platform/app';
import { ArchiveReader } from '../archive/archive-reader';
import { tables } from '../things/tables';
import { LongTakes } from '../takes/long-takes';
import { things } from '../things/things';
import { Readers } from '../tunes/readers';
import type { Config } from '../platform/config';

/** A server over a fresh database of the test cluster. */
export interface TestServer {
  readonly app: ReturnType<typeof createApp>;
  /** As the role that owns the tables, which sees the rows of all studios. */
  readonly dataSource: DataSource;
  /** As the role that the server works as. */
  readonly rows: DataSource;
  readonly databaseUrl: string;
  readonly databaseName: string;
  /** As the server itself uses it. */
  readonly database: Database;
  close(): Promise<void>;
}

export const clusterUrl = (): string => {
  const url = process.env['ZELPIT_TEST_DATABASE_URL'];
  if (url === undefined) throw new Error('Server tests need a PostgreSQL: run them through scripts/with-test-database.mjs.');
  return url;
};

export async function onCluster(sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: clusterUrl() });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

/** A database with all tables in it, made once for a whole run: copying it is quicker than making the tables anew. */
export const templateName = 'zelpit_template';

export const rowsClusterUrl = (): string => process.env['ZELPIT_TEST_ROWS_URL'] ?? '';

const urlOf = (database: string, cluster = clusterUrl()): string => {
  const url = new URL(cluster);
  url.pathname = `/${database}`;
  return url.toString();
};

/** Makes the template; whoever copies it needs it without connections. */
export async function makeTemplate(): Promise<void> {
  await onCluster(`CREATE DATABASE ${templateName}`);
  await migrate(urlOf(templateName), rowsClusterUrl());
}

export async function startTestServer(settings: Partial<Config> = {}): Promise<TestServer> {
  const databaseName = `test_${randomUUID().replaceAll('-', '')}`;
  await onCluster(`CREATE DATABASE ${databaseName} TEMPLATE ${templateName}`);
  const databaseUrl = urlOf(databaseName);
  const dataSource = createDataSource(databaseUrl, tables, () => undefined);
  const rowsUrl = urlOf(databaseName, rowsClusterUrl());
  const rows = createDataSource(rowsUrl, tables, () => undefined);
  await Promise.all([dataSource.initialize(), rows.initialize()]);
  const pool = new pg.Pool({ connectionString: rowsUrl, max: 3, connectionTimeoutMillis: 2000, Client: PlanKeepingClient });
  pool.on('error', () => undefined);
  const config: Config = {
    databaseUrl: rowsUrl,
    pool: 10,
    studioBytes: 1_000_000_000,
    port: 0,
    host: '127.0.0.1',
    isDemo: false,
    hasOutbox: true,
    sessionSecret: 'x'.repeat(32),
    logLevel: 'silent',
    ...settings,
  };
  const files = config.files === undefined ? undefined : await ObjectStore.open(config.files);
  const readers = new Readers({ path: process.env['ZELPIT_TEST_READER'] ?? '', tuneMs: 8000 });
  const archives = new ArchiveReader({ path: process.env['ZELPIT_TEST_ARCHIVES'] ?? '' });
  const longTakes = new LongTakes({ path: process.env['ZELPIT_TEST_LONG_TAKES'] ?? '' });
  const [database, logger] = [new Database(rows, files), pino({ level: 'silent' })];
  const worker = openWorker({ databaseUrl: rowsUrl, database, things, readers, archives, longTakes, logger });
  const app = createApp({ config, dataSource: rows, database, pool, logger, readers, worker });
  return {
    app,
    dataSource,
    rows,
    databaseUrl,
    databaseName,
    database,
    close: async () => {
      await worker.close();
      files?.close();
      await Promise.allSettled([dataSource.destroy(), rows.destroy(), pool.end(), readers.close(), archives.close()]);
      await onCluster(`DROP DATABASE ${databaseName} WITH (FORCE)`);
    },
  };
}

export const password = 'lifts before lowers';
let hashed: Promise<string> | undefined;
/** Hashed once: it takes its time on purpose. */
const passwordHash = (): Promise<string> => (hashed ??= hashPassword(password));

/** A studio with its owner. */
export async function addStudio(dataSource: DataSource, email: string): Promise<string> {
  const accounts = new AccountRepository(new Database(dataSource));
  const studioId = await accounts.addStudio(`Studio of ${email}`);
  const teacherId = await accounts.addAccount({ name: 'A Teacher', email, passwordHash: await passwordHash() });
  await accounts.join(studioId, teacherId, 'owner');
  return studioId;
}

/** One more teacher in a studio. */
export async function addTeacher(dataSource: DataSource, studioId: string, email: string): Promise<void> {
  const accounts = new AccountRepository(new Database(dataSource));
  await accounts.join(studioId, await accounts.addAccount({ name: 'B Teacher', email, passwordHash: await passwordHash() }), 'teacher');
}

/** Somebody at a browser: keeps cookies and sends the token with every write. */
export interface Visitor {
  readonly agent: TestAgent;
  readonly token: string;
  get(path: string): request.Test;
  post(path: string, body?: object): request.Test;
  put(path: string, body: object): request.Test;
  remove(path: string): request.Test;
}

export async function visit(app: TestServer['app'], email?: string): Promise<Visitor> {
  const agent = request.agent(app);
  let { token } = (await agent.get('/api/session')).body as Session;
  if (email !== undefined) {
    const answer = await agent.post('/api/session').set(tokenHeader, token).send({ email, password }).expect(200);
    ({ token } = answer.body as Session);
  }
  return visitorOf(agent, token);
}

/** Who opens a one-time link, and is signed in by it. */
export async function visitByLink(app: TestServer['app'], address: string, use: object = {}): Promise<Visitor> {
  const visitor = await visit(app);
  const { token } = (await visitor.post('/api/links/take', { token: address.split('#')[1], ...use }).expect(200)).body as Session;
  return visitorOf(visitor.agent, token);
}

/** A browser's agent with the token that its session has now. */
export function visitorOf(agent: TestAgent, token: string): Visitor {
  return {
    agent,
    token,
    get: (path) => agent.get(path),
    post: (path, body = {}) => agent.post(path).set(tokenHeader, token).send(body),
    put: (path, body) => agent.put(path).set(tokenHeader, token).send(body),
    remove: (path) => agent.delete(path).set(tokenHeader, token),
  };
}
