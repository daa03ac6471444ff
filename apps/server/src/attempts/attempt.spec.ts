import { onceHeader, type Attempt, type logbookSchema, type Page } from '@zelpit/contract';
import type * as z from 'zod';
import { addStudio, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';
import { newAttempt } from './attempt.matrix.spec-support';

type Logbook = z.infer<typeof logbookSchema>;

let server: TestServer;
let ada: Visitor;
let pim: string;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  pim = ((await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body as { id: string }).id;
});
afterAll(() => server.close());

const log = async (change: object = {}, by = ada): Promise<Attempt> =>
  (await by.post('/api/attempts', { ...newAttempt({ student: pim }), ...change }).expect(201)).body as Attempt;
const logged = async (query = ''): Promise<Attempt[]> => ((await ada.get(`/api/attempts?student=${pim}${query}`).expect(200)).body as Page<Attempt>).items;

describe('the log of what was practised', () => {
  it('keeps each try with who judged it, the newest first by when it began', async () => {
    const early = await log({ at: '2026-11-18T16:00:00.000Z', title: 'early' });
    const late = await log({ at: '2026-11-21T16:00:00.000Z', title: 'late' });
    expect(early).toMatchObject({ by: 'teacher', rating: 'clean', correction: null });
    expect((await logged()).slice(0, 2).map(({ id }) => id)).toEqual([late.id, early.id]);
    expect((await logged('&since=2026-11-20T00:00:00.000Z')).map(({ title }) => title)).toEqual(['late']);
  });

  it('gives pages that go on where the one before ended', async () => {
    const all = await logged();
    const first = (await ada.get(`/api/attempts?student=${pim}&limit=1`).expect(200)).body as Page<Attempt>;
    const second = (await ada.get(`/api/attempts?student=${pim}&limit=1&after=${first.next ?? ''}`).expect(200)).body as Page<Attempt>;
    expect([first.items[0].id, second.items[0].id]).toEqual(all.slice(0, 2).map(({ id }) => id));
  });

  it('keeps corrections beside what was logged, the last one counts', async () => {
    const attempt = await log({ title: 'corrected' });
    for (const rating of ['nearly', 'not-yet']) await ada.post(`/api/attempts/${attempt.id}/correction`, { rating, note: 'low G' }).expect(200);
    const [kept] = (await logged()).filter(({ id }) => id === attempt.id);
    expect(kept).toMatchObject({ rating: 'clean', correction: { rating: 'not-yet', note: 'low G' } });
    expect(
      Number((await server.dataSource.query<{ count: string }[]>('SELECT count(*) FROM attempt_correction WHERE attempt_id = $1', [attempt.id]))[0].count),
    ).toBe(2);
  });

  it('says in a logbook what was clean, corrections counted, since a moment and in the days of who reads', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Oda' }).expect(201)).body as { id: string };
    const at = (daysAgo: number): string => new Date(Date.now() - daysAgo * 86_400_000).toISOString();
    await log({ studentId: id, tempo: 66, at: at(40), seconds: 120 });
    const wrong = await log({ studentId: id, tempo: 72, at: at(2), seconds: 60 });
    await log({ studentId: id, tempo: 60, at: at(1), seconds: 60, rating: 'nearly' });
    await ada.post(`/api/attempts/${wrong.id}/correction`, { rating: 'not-yet' }).expect(200);
    const all = (await ada.get(`/api/logbook?student=${id}&days=7`).expect(200)).body as Logbook;
    expect(all.items).toMatchObject([{ title: 'B to E', kind: 'line', tries: 3, clean: 1, best: 66, recent: { judged: 2, clean: 0 } }]);
    expect(all.days).toHaveLength(7);
    expect(all.days.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(2);
    const lately = (await ada.get(`/api/logbook?student=${id}&since=${at(30)}`).expect(200)).body as Logbook;
    expect([lately.items[0].tries, lately.items[0].best]).toEqual([2, undefined]);
    await ada.get('/api/logbook').expect(404);
    await ada.get('/api/logbook?student=7f9d1f0c-8f63-4a7b-9c1d-1d2a3b4c5d6e').expect(404);
    await ada.get(`/api/logbook?student=${id}&days=0`).expect(400);
  });

  it('logs the same try once, however often it is sent', async () => {
    const key = '0d9f7a44-5a4e-4c8f-8c52-6d7a0e5f3b21';
    const before = (await logged()).length;
    for (const _ of [1, 2])
      await ada
        .post('/api/attempts', newAttempt({ student: pim }))
        .set(onceHeader, key)
        .expect(201);
    expect(await logged()).toHaveLength(before + 1);
  });

  it('is the student’s own where the student practises, and nobody else’s', async () => {
    const { body } = await ada.post(`/api/students/${pim}/link`, {}).expect(201);
    const tablet = await visitByLink(server.app, (body as { address: string }).address);
    expect((await log({ title: 'alone' }, tablet)).by).toBe('student');
    const other = ((await ada.post('/api/students', { alias: 'Oda' }).expect(201)).body as { id: string }).id;
    await tablet.post('/api/attempts', newAttempt({ student: other })).expect(403);
    expect(((await tablet.get(`/api/attempts?student=${other}`).expect(200)).body as Page<Attempt>).items).toEqual([]);
  });

  it.each([
    ['a tempo of 0', { tempo: 0 }],
    ['a rating that does not exist', { rating: 'great' }],
    ['no title', { title: ' ' }],
    ['a moment in the far future', { at: '2099-01-01T00:00:00.000Z' }],
    ['a moment before there was a log', { at: '1999-01-01T00:00:00.000Z' }],
    [
      'a ladder with too many rungs',
      { ladder: { start: 48, step: 6, ceiling: 90, rungs: Array.from({ length: 201 }, () => ({ tempo: 48, rating: 'clean' })) } },
    ],
    ['a lone surrogate', { note: '\ud800' }],
  ])('refuses %s', async (_, change) => {
    await ada.post('/api/attempts', { ...newAttempt({ student: pim }), ...change }).expect(400);
  });

  it('goes with its student: nothing of it is left', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Gone' }).expect(201)).body as { id: string };
    const attempt = await log({ studentId: id });
    await ada.post(`/api/attempts/${attempt.id}/correction`, { rating: 'nearly' }).expect(200);
    await ada.agent.delete(`/api/students/${id}`).set('x-zelpit-token', ada.token).expect(204);
    await ada.agent.delete(`/api/put-away/students/${id}`).set('x-zelpit-token', ada.token).expect(204);
    for (const table of ['attempt', 'attempt_correction'])
      expect((await server.dataSource.query<{ count: string }[]>(`SELECT count(*) FROM ${table} WHERE student_id = $1`, [id]))[0].count).toBe('0');
  });
});
