import { mostJobsWaiting, onceHeader, tokenHeader, type Job } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { ended, fileOf, sendFile } from '../testing/jobs';
import { addStudio, addTeacher, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let studio: string;
let ada: Visitor;
let bo: Visitor;
beforeAll(async () => {
  server = await startTestServer();
  studio = await addStudio(server.dataSource, 'ada@studio.example');
  await addTeacher(server.dataSource, studio, 'cy@studio.example');
  await addStudio(server.dataSource, 'bo@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  bo = await visit(server.app, 'bo@studio.example');
});
afterAll(() => server.close());

const tune = (title: string, notes = 'A c|e a|]'): string => `X:1\nT:${title}\nM:2/4\nL:1/4\nK:HP\n${notes}\n\n`;
const bookOf = (name: string, count: number): Buffer => Buffer.from(Array.from({ length: count }, (_, index) => tune(`${name} ${index}`)).join(''));
const begin = async (visitor: Visitor, book: Buffer, name = 'Fell Row.abc'): Promise<Job> =>
  (await sendFile(visitor, `/api/jobs/tunes?name=${encodeURIComponent(name)}`, book).expect(202)).body as Job;
const titlesOf = async (visitor: Visitor, find: string): Promise<string[]> =>
  ((await visitor.get(`/api/tunes?find=${encodeURIComponent(find)}`).expect(200)).body as { items: { title: string }[] }).items.map(({ title }) => title);
const blobs = async (): Promise<number> => Number(((await server.dataSource.query('SELECT count(*) AS count FROM blob')) as { count: string }[])[0].count);

describe('a long book', () => {
  it('is kept at once and read afterwards; what came of it waits, for whoever began it only', async () => {
    const job = await begin(ada, Buffer.concat([bookOf('Stair', 300), Buffer.from(tune('Broken', 'A {g'))]));
    expect(job).toMatchObject({ kind: 'bring-tunes', name: 'Fell Row.abc', endedAt: null, result: null });
    const done = await ended(ada, job.id);
    expect(done).toMatchObject({ state: 'done', done: 301, of: 301, problem: '' });
    expect(done.kind === 'bring-tunes' && [done.result?.saved.length, done.result?.refused.map(({ title }) => title)]).toEqual([300, ['Broken']]);
    expect((await titlesOf(ada, 'Stair 299')).length).toBe(1);
    const { items } = (await ada.get('/api/jobs').expect(200)).body as { items: Job[] };
    expect(items).toEqual([{ ...done, result: null }]);
    const cy = await visit(server.app, 'cy@studio.example');
    expect((await cy.get('/api/jobs').expect(200)).body).toEqual({ items: [] });
    await cy.get(`/api/jobs/${job.id}`).expect(404);
    const { items: audit } = (await ada.get('/api/audit').expect(200)).body as { items: { thing: string }[] };
    expect(audit[0]).toMatchObject({ did: 'brought in', kind: 'tunes', thing: '300 tunes', who: 'A Teacher' });
    // What came in is not kept beside what was made of it.
    expect(await blobs()).toBe(0);
    await ada.remove(`/api/jobs/${job.id}`).expect(204);
    await ada.get(`/api/jobs/${job.id}`).expect(404);
  });

  it.each([
    ['is no book', Buffer.from('Dear teacher'), /./],
    ['is a picture', Buffer.from('\u0089PNG....', 'latin1'), /a picture/],
    ['has nothing in it', Buffer.alloc(0), /./],
  ])('that %s fails with a sentence, and changes nothing', async (_, file, problem) => {
    const { id } = await begin(bo, file);
    expect(await ended(bo, id)).toMatchObject({ state: 'failed', result: null, problem: expect.stringMatching(problem) });
    expect(await titlesOf(bo, '')).toEqual([]);
  });

  it('for an instrument that nobody knows is refused at once', async () => {
    await sendFile(bo, '/api/jobs/tunes?instrument=bagpuss', bookOf('No', 1)).expect(422);
    await sendFile(bo, `/api/jobs/tunes?name=${'x'.repeat(201)}`, bookOf('No', 1)).expect(400);
    expect(await blobs()).toBe(0);
  });

  it('that is stopped adds nothing, however far it was', async () => {
    const { id } = await begin(bo, bookOf('Halted', 2500));
    const since = Date.now();
    for (;;) {
      const { done } = (await bo.get(`/api/jobs/${id}`).expect(200)).body as Job;
      if (done > 0 || Date.now() - since > 10_000) break;
    }
    expect((await bo.post(`/api/jobs/${id}/stop`).expect(200)).body).toMatchObject({ state: 'stopped' });
    expect((await bo.post(`/api/jobs/${id}/stop`).expect(200)).body).toMatchObject({ state: 'stopped' });
    await ended(bo, (await begin(bo, bookOf('After', 1))).id);
    expect(await titlesOf(bo, 'Halted')).toEqual([]);
    expect(await titlesOf(bo, 'After')).toEqual(['After 0']);
  });

  it('that comes again because no answer was heard is read once', async () => {
    const key = randomUUID();
    const send = (book: Buffer) => sendFile(ada, '/api/jobs/tunes', book).set(onceHeader, key);
    const book = bookOf('Once', 3);
    const first = (await send(book).expect(202)).body as Job;
    expect(((await send(book).expect(202)).body as Job).id).toBe(first.id);
    await ended(ada, first.id);
    expect((await titlesOf(ada, 'Once')).length).toBe(3);
    await send(bookOf('Another', 1)).expect(422);
  });

  it('waits its turn, and one more than may wait is refused', async () => {
    const waiting = await Promise.all(Array.from({ length: mostJobsWaiting + 8 }, (_, index) => sendFile(bo, '/api/jobs/tunes', bookOf(`Many${index}`, 400))));
    const statuses = waiting.map(({ status }) => status);
    expect(statuses.filter((status) => status === 202).length).toBeGreaterThanOrEqual(mostJobsWaiting);
    expect(statuses).toContain(429);
    const refused = waiting.find(({ status }) => status === 429);
    expect((refused?.body as { detail: string }).detail).toContain('are waiting already');
    const taken = waiting.filter(({ status }) => status === 202).map(({ body }) => (body as Job).id);
    // Somebody else's studio does not wait behind all of them.
    const other = await begin(ada, bookOf('Beside', 1));
    expect((await ended(ada, other.id)).state).toBe('done');
    const states = await Promise.all(taken.map(async (id) => ((await bo.get(`/api/jobs/${id}`)).body as Job).state));
    expect(states).toContain('waiting');
    for (const id of taken) await bo.post(`/api/jobs/${id}/stop`);
  }, 60_000);
});

describe('a job whose server fell', () => {
  /** As a server leaves it that was killed in the middle. */
  const leave = async (begun: number): Promise<string> => {
    const id = randomUUID();
    await server.dataSource.query(
      `INSERT INTO job (studio_id, id, teacher_id, who, kind, name, settings, state, begun, worker, beat_at)
       SELECT $1, $2, account_id, 'A Teacher', 'take-archive', 'left.zip', '{}', 'running', $3, gen_random_uuid(), now() - interval '1 minute'
       FROM membership WHERE studio_id = $1 AND role = 'owner'`,
      [studio, id, begun],
    );
    await ada.post('/api/jobs/backup').expect(202);
    return id;
  };

  it('is begun again and done', async () => {
    const id = await leave(1);
    expect(await ended(ada, id)).toMatchObject({ state: 'done' });
    expect((await fileOf(ada, id)).subarray(0, 2).toString()).toBe('PK');
  });

  it('is given up where it fell again and again', async () => {
    const id = await leave(3);
    expect(await ended(ada, id)).toMatchObject({ state: 'failed', problem: expect.stringContaining('never came to its end') });
  });
});

describe('what a job wrote', () => {
  it('is fetched by whoever began it, under its name, and goes with the job', async () => {
    const { id, name } = (await ada.post('/api/jobs/backup').expect(202)).body as Job;
    await ada.get(`/api/jobs/${id}/file`);
    const done = await ended(ada, id);
    const { headers } = await ada.get(`/api/jobs/${id}/file`).expect(200);
    expect([headers['content-type'], headers['content-disposition']]).toEqual(['application/zip', `attachment; filename="${name}"`]);
    expect(done.kind === 'take-archive' && done.result?.bytes).toBe((await fileOf(ada, id)).length);
    await bo.get(`/api/jobs/${id}/file`).expect(404);
    const before = await blobs();
    await ada.remove(`/api/jobs/${id}`).expect(204);
    expect(await blobs()).toBe(before - 1);
  });

  it('is nothing for a job that gave none', async () => {
    const { id } = await begin(ada, bookOf('No file', 1));
    await ended(ada, id);
    expect(((await ada.get(`/api/jobs/${id}/file`).expect(409)).body as { detail: string }).detail).toContain('no file');
    await ada.get(`/api/jobs/${randomUUID()}/file`).expect(404);
    await ada.agent.delete('/api/jobs/x').set(tokenHeader, ada.token).expect(404);
  });
});
