import { startTestServer, type TestServer } from '../testing/test-server';
import { Database } from './database';

let server: TestServer;
let database: Database;
beforeAll(async () => {
  server = await startTestServer();
  database = new Database(server.dataSource);
});
afterAll(() => server.close());

const isolation = async (): Promise<string> => {
  const [row] = await database.query<{ transaction_isolation: string }>('SHOW transaction_isolation');
  return row.transaction_isolation;
};

describe('Database.transaction', () => {
  it('runs in the isolation that was asked for, and inner work belongs to the outer one', async () => {
    expect(await database.transaction(isolation, 'REPEATABLE READ')).toBe('repeatable read');
    expect(await database.transaction(() => database.transaction(isolation), 'REPEATABLE READ')).toBe('repeatable read');
    expect(await database.transaction(() => database.transaction(isolation))).toBe('read committed');
  });

  it('refuses work that needs more isolation than the transaction around it has (issue 12)', async () => {
    const nested = database.transaction(() => database.transaction(isolation, 'REPEATABLE READ'));
    await expect(nested).rejects.toThrow('A transaction that needs REPEATABLE READ cannot run inside one of READ COMMITTED.');
  });

  it('takes everything back where the work fails, inner work too', async () => {
    const id = '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10';
    const work = database.transaction(async () => {
      await database.transaction(() => database.query("INSERT INTO studio (id, name) VALUES ($1, 'Fell Row')", [id]));
      throw new Error('No further.');
    });
    await expect(work).rejects.toThrow('No further.');
    expect(await database.query('SELECT id FROM studio WHERE id = $1', [id])).toEqual([]);
  });
});
