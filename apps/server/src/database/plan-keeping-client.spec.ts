import { execFileSync } from 'node:child_process';
import { connect, createServer, type AddressInfo, type Server } from 'node:net';
import { clusterUrl, startTestServer, type TestServer } from '../testing/test-server';
import { Database } from './database';
import { PlanKeepingClient } from './plan-keeping-client';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const open = async (connectionString: string): Promise<PlanKeepingClient> => {
  const client = new PlanKeepingClient({ connectionString } as never);
  await client.connect();
  return client;
};

interface Rows {
  readonly rows: readonly Record<string, unknown>[];
}

const ask = (client: PlanKeepingClient, text: string, values?: readonly unknown[]): Promise<Rows> => client.query(text, values) as Promise<Rows>;

const keptBy = async (client: PlanKeepingClient): Promise<readonly unknown[]> =>
  (await ask(client, 'SELECT statement FROM pg_prepared_statements WHERE statement NOT LIKE $1', ['%pg_prepared%'])).rows.map(({ statement }) => statement);

/** Cuts every connection to the rows while this process stands still, so that nothing in it can notice before it goes on. */
function cutAll(): void {
  const sql = `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${server.databaseName}' AND usename <> current_user`;
  const script = `const { Client } = require('pg');
    const client = new Client({ connectionString: process.argv[1] });
    client.connect().then(() => client.query(process.argv[2])).then(() => client.end());`;
  execFileSync(process.execPath, ['-e', script, clusterUrl(), sql], { cwd: __dirname });
}

/** BackendKeyData, with the number of the process that greets. */
const greeting = Buffer.from([0x4b, 0, 0, 0, 12]);

/** Stands between as a transaction pooler does: it greets by a number of its own. */
async function asPooler(url: string): Promise<{ readonly pooler: Server; readonly pooledUrl: string }> {
  const { hostname, port } = new URL(url);
  const pooler = createServer((visitor) => {
    const behind = connect(Number(port), hostname);
    visitor.pipe(behind);
    behind.on('data', (bytes) => {
      const at = bytes.indexOf(greeting);
      if (at >= 0) bytes.writeInt32BE(2_000_000_000, at + greeting.length);
      visitor.write(bytes);
    });
    behind.on('close', () => visitor.destroy());
    visitor.on('close', () => behind.destroy());
  });
  await new Promise<void>((resolve) => pooler.listen(0, '127.0.0.1', resolve));
  const pooled = Object.assign(new URL(url), { hostname: '127.0.0.1', port: String((pooler.address() as AddressInfo).port) });
  return { pooler, pooledUrl: pooled.toString() };
}

describe('PlanKeepingClient', () => {
  it('lets PostgreSQL keep the plan of what is asked with values, once for each text', async () => {
    const client = await open(server.databaseUrl);
    for (const value of [1, 2, 3]) expect((await ask(client, 'SELECT $1::int + 1 AS sum', [value])).rows).toEqual([{ sum: value + 1 }]);
    await ask(client, 'SELECT 1');
    expect(await keptBy(client)).toEqual(['SELECT $1::int + 1 AS sum']);
    await client.end();
  });

  it('asks for none through a pooler, where the next statement may reach another process', async () => {
    const { pooler, pooledUrl } = await asPooler(server.databaseUrl);
    const client = await open(pooledUrl);
    expect((await ask(client, 'SELECT $1::int + 1 AS sum', [4])).rows).toEqual([{ sum: 5 }]);
    expect(await keptBy(client)).toEqual([]);
    await client.end();
    pooler.close();
  });

  it('goes on without kept plans once one no longer fits its table', async () => {
    const [client, owner] = [await open(server.databaseUrl), await open(server.databaseUrl)];
    await ask(owner, 'CREATE TABLE barn (id int)');
    const look = (): Promise<Rows> => ask(client, 'SELECT * FROM barn WHERE id > $1', [0]);
    await look();
    await ask(owner, 'ALTER TABLE barn ADD COLUMN beams int');
    await expect(look()).rejects.toThrow('cached plan');
    expect((await look()).rows).toEqual([]);
    await ask(owner, 'DROP TABLE barn');
    await Promise.all([client.end(), owner.end()]);
  });

  it('tells where there is no server to greet it', async () => {
    await expect(open(Object.assign(new URL(clusterUrl()), { port: '1' }).toString())).rejects.toThrow('ECONNREFUSED');
  });
});

describe('Database.inStudio', () => {
  const studio = '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10';

  it('gives each of many reads at once its own studio and its own answer, and refuses a write among them', async () => {
    const database = new Database(server.rows);
    const read = (n: number): Promise<unknown> =>
      database.inStudio(
        studio.replace(/.$/, String(n % 10)),
        async () => {
          if (n % 7 === 0) return database.query('DELETE FROM student WHERE alias = $1', ['nobody']).catch((error: Error) => error.message);
          const [row] = await database.query<{ own: string; n: number }>("SELECT current_setting('zelpit.studio') AS own, $1::int AS n", [n]);
          return row;
        },
        'READ COMMITTED',
        'READ ONLY',
      );
    const found = await Promise.all(Array.from({ length: 60 }, (_, n) => read(n)));
    found.forEach((answer, n) => {
      if (n % 7 === 0) expect(answer).toContain('read-only transaction');
      else expect(answer).toEqual({ own: studio.replace(/.$/, String(n % 10)), n });
    });
  });

  it('gives every connection back, whether a read is answered, is refused by the database, or fails by itself', async () => {
    const database = new Database(server.rows);
    const works: readonly (() => Promise<unknown>)[] = [
      () => database.query('SELECT $1::int AS n', [1]),
      () => database.query('SELECT nothing FROM nowhere WHERE $1', [1]),
      () => Promise.reject(new Error('No further.')),
      // Two at once, the first of which is refused.
      () => Promise.all([database.query('SELECT nothing FROM nowhere'), database.query('SELECT 1')]),
    ];
    const reads = Array.from({ length: 400 }, (_, n) => database.inStudio(studio, works[n % works.length], 'READ COMMITTED', 'READ ONLY'));
    const answered = (await Promise.allSettled(reads)).filter(({ status }) => status === 'fulfilled').length;
    expect(answered).toBe(100);
    const pool = (server.rows.driver as unknown as { master: { idleCount: number; totalCount: number; waitingCount: number } }).master;
    const isAllBack = (): boolean => pool.idleCount === pool.totalCount && pool.waitingCount === 0;
    for (let tries = 0; !isAllBack() && tries < 100; tries += 1) await new Promise((resolve) => setTimeout(resolve, 20));
    expect([pool.idleCount, pool.waitingCount]).toEqual([pool.totalCount, 0]);
  });

  it.each(['READ ONLY', 'READ WRITE'] as const)('loses no transaction (%s) that begins on connections which were cut', async (access) => {
    const database = new Database(server.rows);
    const read = (): Promise<unknown> => database.inStudio(studio, () => database.query('SELECT $1::int AS n', [1]), 'READ COMMITTED', access);
    const atOnce = (): Promise<unknown[]> => Promise.all(Array.from({ length: 12 }, read));
    await atOnce();
    cutAll();
    expect(await atOnce()).toEqual(new Array(12).fill([{ n: 1 }]));
  });

  it('does not begin anew what was cut while it was under way', async () => {
    const database = new Database(server.rows);
    let times = 0;
    const work = async (): Promise<void> => {
      times += 1;
      await database.query('SELECT $1::int AS n', [1]);
      cutAll();
      await database.query('SELECT $1::int AS n', [2]);
    };
    for (const access of ['READ ONLY', 'READ WRITE'] as const)
      await expect(database.inStudio(studio, work, 'READ COMMITTED', access)).rejects.toThrow(/terminat|closed/i);
    expect(times).toBe(2);
  });
});
