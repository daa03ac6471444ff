import { longestTakeBytes, type Page, type Take } from '@zelpit/contract';
import { BlobRepository } from '../blobs/blob.repository';
import { Database } from '../database/database';
import { asBytes } from '../testing/as-bytes';
import { addStudio, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';
import { upload } from '../things/matrix.spec-support';
import { TakeRepository } from './take.repository';
import { consent, newTake, soundOf, wave } from './take.matrix.spec-support';

let server: TestServer;
let ada: Visitor;
let studioId: string;
let pim: string;
let wren: string;
const added = async (alias: string): Promise<string> => ((await ada.post('/api/students', { alias }).expect(201)).body as { id: string }).id;
const listOf = async (visitor: Visitor, query = ''): Promise<readonly Take[]> =>
  ((await visitor.get(`/api/takes${query}`).expect(200)).body as Page<Take>).items;
const kept = async (student: string, more: object = {}): Promise<Take> =>
  (await ada.post('/api/takes', { ...newTake(student, await soundOf(ada, student)), ...more }).expect(201)).body as Take;
const blobs = async (): Promise<number> => ((await server.dataSource.query('SELECT count(*)::int AS n FROM blob')) as { n: number }[])[0].n;

beforeAll(async () => {
  server = await startTestServer();
  studioId = await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  [pim, wren] = [await added('Pim'), await added('Wren')];
  await consent(ada, pim, true);
});
afterAll(() => server.close());
beforeEach(() => server.dataSource.query('DELETE FROM blob'));

describe('a take that is kept', () => {
  it('has its sound as it was sent, what was heard in it, and goes by itself after 90 days', async () => {
    const take = await kept(pim);
    expect(take).toMatchObject({ title: 'B to E', places: 8, faulty: 1, by: 'teacher', remarks: [], version: 1 });
    expect(Math.round((Date.parse(take.keptUntil ?? '') - Date.now()) / 86_400_000)).toBe(90);
    expect(await listOf(ada, `?student=${pim}`)).toEqual([take]);
    expect(await listOf(ada, `?student=${wren}`)).toEqual([]);
    const { body, headers } = await asBytes(ada.get(`/api/takes/${take.id}/sound`));
    expect([headers['content-type'], headers['content-disposition']]).toEqual(['audio/wav', 'attachment; filename="B to E.wav"']);
    expect(wave().equals(body as Buffer)).toBe(true);
  });

  it('can have remarks at its moments, one writer at a time, and be kept longer', async () => {
    const { id } = await kept(pim);
    const remarks = [{ at: 1200, text: 'Listen to the low A here.' }];
    const saved = (await ada.put(`/api/takes/${id}`, { remarks, keepDays: 0, version: 1 }).expect(200)).body as Take;
    expect(saved).toMatchObject({ remarks, keptUntil: null, version: 2 });
    await ada.put(`/api/takes/${id}`, { remarks: [], version: 1 }).expect(409);
    expect((await ada.put(`/api/takes/${id}`, { remarks: [{ at: 0, text: ' ' }], version: 2 })).status).toBe(400);
    expect((await ada.put(`/api/takes/${id}`, { remarks: [], keepDays: 8, version: 2 })).status).toBe(400);
  });

  it('goes with its sound: deleted, when its time is over, or all of a student', async () => {
    const [first] = [await kept(pim), await kept(pim), await kept(pim)];
    await ada.remove(`/api/takes/${first.id}`).expect(204);
    expect(await blobs()).toBe(2);
    await ada.remove(`/api/takes/${first.id}`).expect(404);
    await server.dataSource.query(`UPDATE take SET kept_until = now() - interval '1 minute' WHERE id = (SELECT id FROM take LIMIT 1)`);
    const database = new Database(server.dataSource);
    await database.inStudio(studioId, () => new TakeRepository(database).clear());
    expect([(await listOf(ada)).length, await blobs()]).toEqual([1, 1]);
    expect((await ada.remove(`/api/students/${pim}/takes`).expect(200)).body).toEqual({ deleted: 1 });
    expect(await blobs()).toBe(0);
  });

  it('keeps its sound where what nothing names is cleared', async () => {
    await kept(pim);
    await soundOf(ada, pim);
    await server.dataSource.query(`UPDATE blob SET created_at = now() - interval '2 days'`);
    const database = new Database(server.dataSource);
    await database.inStudio(studioId, () => new BlobRepository(database).clear());
    expect([(await listOf(ada)).length, await blobs()]).toEqual([1, 1]);
  });
});

describe('without consent', () => {
  it('nothing is kept, and nothing that was kept before leaves the server', async () => {
    const refused = await upload(ada, `/api/takes/sound?student=${wren}`, wave());
    expect([refused.status, (refused.body as { detail: string }).detail]).toEqual([
      403,
      'No guardian has agreed that Wren is recorded. Nothing is kept, and what was kept before is not played: it can only be deleted.',
    ]);
    expect(await blobs()).toBe(0);
    await ada.post('/api/takes', newTake(wren, await soundOf(ada))).expect(403);
    const { id } = await kept(pim);
    await consent(ada, pim, false);
    await ada.get(`/api/takes/${id}/sound`).expect(403);
    await ada.remove(`/api/takes/${id}`).expect(204);
    await consent(ada, pim, true);
  });
});

describe('a demonstration', () => {
  it('is a teacher’s own take that students hear and cannot touch', async () => {
    const mine = (await ada.post('/api/takes', newTake(null, await soundOf(ada))).expect(201)).body as Take;
    const { address } = (await ada.post(`/api/students/${pim}/link`).expect(201)).body as { address: string };
    const tablet = await visitByLink(server.app, address);
    // Until it is shown, it is the teacher's alone.
    expect([mine.isShown, await listOf(tablet, '?of=teachers')]).toEqual([false, []]);
    await tablet.get(`/api/takes/${mine.id}`).expect(404);
    await tablet.get(`/api/takes/${mine.id}/sound`).expect(404);
    const shown = (await ada.put(`/api/takes/${mine.id}`, { remarks: [], isShown: true, version: 1 }).expect(200)).body as Take;
    expect([shown.isShown, await listOf(tablet, '?of=teachers')]).toEqual([true, [shown]]);
    expect((await listOf(tablet)).map(({ id }) => id)).not.toContain(mine.id);
    expect((await listOf(ada, '?of=teachers')).map(({ id }) => id)).toEqual([mine.id]);
    await tablet.get(`/api/takes/${mine.id}/sound`).expect(200);
    await tablet.remove(`/api/takes/${mine.id}`).expect(404);
    await tablet.put(`/api/takes/${mine.id}`, { remarks: [], version: 2 }).expect((response) => expect([403, 404]).toContain(response.status));
    // What is saved otherwise leaves it shown; it can be taken back.
    expect(((await ada.put(`/api/takes/${mine.id}`, { remarks: [], version: 2 }).expect(200)).body as Take).isShown).toBe(true);
    await ada.put(`/api/takes/${mine.id}`, { remarks: [], isShown: false, version: 3 }).expect(200);
    expect(await listOf(tablet, '?of=teachers')).toEqual([]);
    await ada.remove(`/api/takes/${mine.id}`).expect(204);
  });

  it('is never a student’s take', async () => {
    const { id } = await kept(pim);
    const refused = await ada.put(`/api/takes/${id}`, { remarks: [], isShown: true, version: 1 });
    expect([refused.status, (refused.body as { detail: string }).detail]).toEqual([
      422,
      'Only a teacher’s own take can be shown to students: a student’s stays theirs.',
    ]);
    await ada.get('/api/takes?of=everyone').expect(400);
  });
});

describe('a student', () => {
  it('keeps, hears and deletes own takes only, and a parent hears them', async () => {
    await consent(ada, wren, true, 'Wren');
    const theirs = await kept(wren);
    const { address } = (await ada.post(`/api/students/${pim}/link`).expect(201)).body as { address: string };
    const tablet = await visitByLink(server.app, address);
    const own = (await tablet.post('/api/takes', newTake(pim, await soundOf(tablet))).expect(201)).body as Take;
    expect([own.by, (await listOf(tablet)).map(({ id }) => id)]).toEqual(['student', [own.id]]);
    expect(await listOf(tablet, `?student=${wren}`)).toEqual([]);
    await tablet.post('/api/takes', newTake(wren, await soundOf(tablet))).expect(403);
    expect((await upload(tablet, `/api/takes/sound?student=${wren}`, wave())).status).toBe(403);
    await tablet.get(`/api/takes/${theirs.id}/sound`).expect(404);
    await tablet.remove(`/api/takes/${theirs.id}`).expect(404);
    const parent = await visitByLink(server.app, ((await ada.post(`/api/students/${pim}/parent-link`).expect(201)).body as { address: string }).address);
    await parent.get(`/api/takes/${own.id}/sound`).expect(200);
    await parent.remove(`/api/takes/${own.id}`).expect(403);
    await tablet.remove(`/api/takes/${own.id}`).expect(204);
  });
});

describe('bad input', () => {
  it('is refused with a sentence, and leaves nothing', async () => {
    const none = await upload(ada, '/api/takes/sound', Buffer.from('this is no sound'));
    expect([none.status, (none.body as { detail: string }).detail]).toEqual([415, 'This is no sound that can be kept: it has to be a WAV file.']);
    expect((await upload(ada, '/api/takes/sound', Buffer.alloc(0))).status).toBe(415);
    expect((await upload(ada, '/api/takes/sound', Buffer.alloc(longestTakeBytes + 1))).status).toBe(413);
    expect(await blobs()).toBe(0);
    const sound = await soundOf(ada);
    for (const [change, status] of [
      [{ asked: { kind: 'changes', from: 'b', to: 'x9' } }, 422],
      [{ asked: { kind: 'tune', tuneId: '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10', what: 'all' } }, 404],
      [{ model: 'no-such-model' }, 422],
      [{ title: ' ' }, 400],
      [{ seconds: 301 }, 400],
      [{ soundId: '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10' }, 422],
      [{ studentId: '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10' }, 404],
    ] as const)
      expect([change, (await ada.post('/api/takes', { ...newTake(null, sound), ...change })).status]).toEqual([change, status]);
    const played = { ...(newTake(null, await soundOf(ada)) as object), asked: { kind: 'line', code: 'K7MP', click: 90 } };
    await ada.post('/api/takes', { ...played, asked: { ...played.asked, click: 301 } }).expect(400);
    // The click that it was played to comes back with it.
    expect((await ada.post('/api/takes', played).expect(201)).body).toMatchObject({ asked: { kind: 'line', code: 'K7MP', click: 90 } });
    await ada.post('/api/takes', newTake(null, sound)).expect(201);
    // One sound is one take.
    await ada.post('/api/takes', newTake(null, sound)).expect(422);
  });
});
