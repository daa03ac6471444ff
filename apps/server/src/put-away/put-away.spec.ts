import type { PutAway } from '@zelpit/contract';
import { Database } from '../database/database';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { things } from '../things/things';
import { PutAwayRepository } from './put-away.repository';

let server: TestServer;
let ada: Visitor;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
});
afterAll(() => server.close());

const addStudent = async (alias: string): Promise<string> => ((await ada.post('/api/students', { alias }).expect(201)).body as { id: string }).id;
const addSheet = async (studentId: string, title: string): Promise<string> => {
  const lines = [{ home: 'c', other: 'e', repetitions: 8, tempo: null, point: `little finger, ${title}` }];
  const sheet = { studentId, tuneId: null, instrument: 'practice-chanter', title, note: '', lines };
  return ((await ada.post('/api/sheets', sheet).expect(201)).body as { id: string }).id;
};
const list = async (): Promise<PutAway[]> => (await ada.get('/api/put-away').expect(200)).body.items as PutAway[];

/** Every row of every table that holds a text. */
async function rowsWith(text: string): Promise<readonly string[]> {
  const tables = await server.dataSource.query<{ table_name: string }[]>("SELECT table_name FROM information_schema.tables WHERE table_schema = 'public'");
  const found: string[] = [];
  for (const { table_name: table } of tables) {
    const rows = await server.dataSource.query<{ row: string }[]>(`SELECT t::text AS row FROM "${table}" t WHERE t::text LIKE $1`, [`%${text}%`]);
    found.push(...rows.map(({ row }) => `${table}: ${row}`));
  }
  return found;
}

describe('what was put away', () => {
  it('is listed with its name and thirty days, newest first, and comes back', async () => {
    const student = await addStudent('Bramble');
    const sheet = await addSheet(student, 'Week of Bramble');
    await ada.remove(`/api/sheets/${sheet}`).expect(204);
    await ada.remove(`/api/students/${student}`).expect(204);
    const [first, second] = await list();
    expect([first.kind, first.name, second.kind, second.name]).toEqual(['student', 'Bramble', 'sheet', 'Week of Bramble']);
    expect(Date.parse(first.until) - Date.parse(first.since)).toBe(30 * 24 * 3600 * 1000);
    await ada.post(`/api/students/${student}/restore`).expect(204);
    await ada.post(`/api/sheets/${sheet}/restore`).expect(204);
    expect(await list()).toEqual([]);
  });

  it('goes for good after thirty days and not before', async () => {
    const student = await addStudent('Tansy');
    await ada.remove(`/api/students/${student}`).expect(204);
    const repository = new PutAwayRepository(new Database(server.dataSource), things);
    const age = (days: number): Promise<unknown> =>
      server.dataSource.query("UPDATE student SET deleted_at = now() - $1 * interval '1 day' WHERE deleted_at IS NOT NULL", [days]);
    await age(29.9);
    expect(await repository.clear()).toBe(0);
    expect((await list()).map((each) => each.name)).toContain('Tansy');
    await age(30.1);
    expect(await repository.clear()).toBe(1);
    expect(await list()).toEqual([]);
    expect(await rowsWith('Tansy')).toEqual([]);
  });

  it('leaves alone what is in use', async () => {
    const student = await addStudent('Yarrow');
    await new PutAwayRepository(new Database(server.dataSource), things).clear();
    expect(((await ada.get('/api/students')).body.items as { id: string }[]).some(({ id }) => id === student)).toBe(true);
  });
});

describe('deleting a student for good', () => {
  it('leaves nothing of them in any table', async () => {
    const student = await addStudent('Quillan');
    await addSheet(student, 'Ten minutes for Quillan');
    const away = await addSheet(student, 'An older one for Quillan');
    await ada.remove(`/api/sheets/${away}`).expect(204);
    expect((await rowsWith('Quillan')).length).toBeGreaterThanOrEqual(5);
    await ada.remove(`/api/put-away/students/${student}`).expect(204);
    expect(await rowsWith('Quillan')).toEqual([]);
    expect(await rowsWith(student)).toEqual([]);
    await ada.post(`/api/students/${student}/restore`).expect(404);
    await ada.remove(`/api/put-away/students/${student}`).expect(404);
  });
});
