import type { Problem } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { Database } from '../database/database';
import { ended, sendFile } from '../testing/jobs';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { StudioRoom } from './studio-room';

const most = 1_000_000;
let server: TestServer;
let studio: string;
let ada: Visitor;
let bo: Visitor;
beforeAll(async () => {
  server = await startTestServer({ studioBytes: most });
  studio = await addStudio(server.dataSource, 'ada@studio.example');
  await addStudio(server.dataSource, 'bo@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  bo = await visit(server.app, 'bo@studio.example');
});
afterAll(() => server.close());

const room = async (visitor: Visitor): Promise<number> => ((await visitor.get('/api/studio/room').expect(200)).body as { bytes: number }).bytes;
/** A studio that keeps so many bytes more, as a recording does. */
const keep = (bytes: number): Promise<unknown> =>
  server.dataSource.query('INSERT INTO blob (studio_id, id, bytes) VALUES ($1, $2, $3)', [studio, randomUUID(), bytes]);
const fresh = (): StudioRoom => new StudioRoom(new Database(server.rows), most);

describe('the room of a studio', () => {
  it('is counted over all that it keeps, and is its own', async () => {
    const before = (await fresh().of(studio)).bytes ?? 0;
    await ada.post('/api/students', { alias: 'Pim' }).expect(201);
    await keep(300_000);
    await server.dataSource.query('UPDATE studio SET bytes_counted_at = NULL');
    const after = (await fresh().of(studio)).bytes ?? 0;
    expect(after - before).toBeGreaterThan(300_000);
    expect(after - before).toBeLessThan(301_000);
    expect(await room(bo)).toBeLessThan(50_000);
  });

  it('is refused to what is too much, in a sentence; reading, deleting and a short note go on', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Oda' }).expect(201)).body as { id: string };
    await keep(650_000);
    await server.dataSource.query('UPDATE studio SET bytes_counted_at = NULL');
    const now = fresh();
    await expect(now.take(studio, 200_000)).rejects.toThrow('may keep 1 MB');
    await expect(now.take(studio, 500)).resolves.toBeUndefined();
    // So much has come in that it is counted again, beside the request.
    await sendFile(ada, '/api/tunes/import', Buffer.alloc(25_000));
    while ((await room(ada)) < 900_000) await new Promise((resolve) => setTimeout(resolve, 20));
    const { status, body } = await sendFile(ada, '/api/jobs/restore', Buffer.alloc(900_000));
    expect([status, (body as Problem).type, (body as Problem).detail]).toEqual([
      507,
      'urn:zelpit:problem:studio-full',
      expect.stringContaining('Nothing was changed.'),
    ]);
    await ada.get('/api/students').expect(200);
    await ada.remove(`/api/students/${id}`).expect(204);
    // The other studio knows nothing of it.
    const job = (await sendFile(bo, '/api/jobs/restore', Buffer.alloc(400_000)).expect(202)).body as { id: string };
    await ended(bo, job.id);
  });

  it('is there again when something went', async () => {
    await keep(900_000);
    await server.dataSource.query('UPDATE studio SET bytes_counted_at = NULL');
    const now = fresh();
    await expect(now.take(studio, 500)).rejects.toThrow('This studio keeps');
    await server.dataSource.query('DELETE FROM blob WHERE studio_id = $1', [studio]);
    await server.dataSource.query('UPDATE studio SET bytes_counted_at = NULL');
    await expect(fresh().take(studio, 200_000)).resolves.toBeUndefined();
  });

  it('is added up between two counts, and counted again before somebody is refused', async () => {
    const now = fresh();
    await now.take(studio, 10_000);
    for (let count = 0; count < 9; count += 1) await now.take(studio, 90_000);
    const before = Date.now();
    jest.spyOn(Date, 'now').mockReturnValue(before + 6000);
    try {
      // Nothing of what was announced came in.
      await expect(now.take(studio, 300_000)).resolves.toBeUndefined();
    } finally {
      jest.restoreAllMocks();
    }
  });
});
