import type { Lesson } from '@zelpit/contract';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { newLesson } from './lesson.matrix.spec-support';

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

const add = async (change: object = {}): Promise<Lesson> =>
  (await ada.post('/api/lessons', { ...newLesson({ student: pim }), ...change }).expect(201)).body as Lesson;
const between = async (from: string, to: string): Promise<Lesson[]> => (await ada.get(`/api/lessons?from=${from}&to=${to}`).expect(200)).body as Lesson[];
const begin = async (id: string, on: string): Promise<Lesson> => (await ada.post(`/api/lessons/${id}/begin`, { on }).expect(200)).body as Lesson;
const days = (lessons: readonly Lesson[]): string[] => lessons.map(({ on, time }) => `${on} ${time}`);

describe('lessons', () => {
  afterEach(() => server.dataSource.query('DELETE FROM lesson'));

  it('stand on their days in order of time, weekly ones from their first day to their last', async () => {
    await add({ on: '2026-12-03', time: '15:30', repeats: 'once' });
    await add({ on: '2026-12-01', until: '2026-12-15' });
    expect(days(await between('2026-11-20', '2026-12-31'))).toEqual(['2026-12-01 16:00', '2026-12-03 15:30', '2026-12-08 16:00', '2026-12-15 16:00']);
    expect(days(await between('2026-12-08', '2026-12-08'))).toEqual(['2026-12-08 16:00']);
    expect(await between('2026-12-09', '2026-12-14')).toEqual([]);
  });

  it('are held once on a day, whoever begins them, and the other weeks stay as they were', async () => {
    const weekly = await add();
    const [held, again] = [await begin(weekly.id, '2026-12-08'), await begin(weekly.id, '2026-12-08')];
    expect([again.id, again.begunAt]).toEqual([held.id, held.begunAt]);
    expect(held).toMatchObject({ weeklyId: weekly.id, repeats: 'once', on: '2026-12-08', endedAt: null });
    const all = await between('2026-12-01', '2026-12-15');
    expect(all.map(({ id, on }) => [id, on])).toEqual([
      [weekly.id, '2026-12-01'],
      [held.id, '2026-12-08'],
      [weekly.id, '2026-12-15'],
    ]);
    await ada.post(`/api/lessons/${weekly.id}/begin`, { on: '2026-12-09' }).expect(422);
  });

  it('begin with what stands on the last sheet, and keep a plan that was made', async () => {
    const line = { home: 'b', other: 'e', repetitions: 8, tempo: 60, point: '', exercise: null };
    const sheet = { studentId: pim, tuneId: null, instrument: 'practice-chanter', title: 'Ten minutes', note: '', lines: [line] };
    await ada.post('/api/sheets', sheet).expect(201);
    const single = await add({ repeats: 'once' });
    const begun = await begin(single.id, '2026-12-01');
    expect(begun.plan).toEqual([expect.objectContaining({ title: 'B to E', tempo: 60, times: 8, kind: 'line', model: 'practice-chanter' })]);
    const { on, time, minutes, repeats, until, note, version } = begun;
    const plan = [{ itemId: null, title: 'Posture with the mirror', kind: 'words', model: 'practice-chanter', tempo: null, times: 1 }];
    await ada.agent
      .put(`/api/lessons/${single.id}`)
      .set('x-zelpit-token', ada.token)
      .send({ on, time, minutes, repeats, until, note, plan, version })
      .expect(200);
    await ada.agent
      .put(`/api/lessons/${single.id}`)
      .set('x-zelpit-token', ada.token)
      .send({ on, time, minutes, repeats, until, note, plan, version })
      .expect(409);
    expect((await begin(single.id, '2026-12-01')).plan).toEqual(plan);
  });

  it('end only once they have begun', async () => {
    const single = await add({ repeats: 'once' });
    await ada.post(`/api/lessons/${single.id}/end`).expect(422);
    await begin(single.id, '2026-12-01');
    expect(((await ada.post(`/api/lessons/${single.id}/end`).expect(200)).body as Lesson).endedAt).not.toBeNull();
  });

  it.each([
    ['a time that does not exist', { time: '25:00' }],
    ['a day that does not exist', { on: '2026-02-30' }],
    ['an end before its beginning', { until: '2026-11-01' }],
    ['an end of a single one', { repeats: 'once', until: '2026-12-24' }],
    ['a lesson of a minute', { minutes: 1 }],
  ])('refuse %s', async (_, change) => {
    await ada.post('/api/lessons', { ...newLesson({ student: pim }), ...change }).expect(400);
  });

  it('are asked for in at most two months', async () => {
    await ada.get('/api/lessons?from=2026-01-01&to=2026-12-31').expect(400);
    await ada.get('/api/lessons?from=2026-02-01&to=2026-01-01').expect(400);
  });

  it('that are taken out while they are held elsewhere leave what was judged in the log, and say that they are gone', async () => {
    const single = await add({ repeats: 'once' });
    const held = await begin(single.id, '2026-12-01');
    const tried = {
      ...{ studentId: pim, itemId: null, lessonId: held.id, title: 'C to E', kind: 'line', model: 'practice-chanter', tempo: 60, count: 1, rating: 'clean' },
      ...{ ladder: null, seconds: 0, device: 'desk', note: '', at: new Date().toISOString() },
    };
    await ada.post('/api/attempts', tried).expect(201);
    await ada.remove(`/api/lessons/${held.id}`).expect(204);
    // The other device has not noticed: what is played is kept all the same.
    const later = new Date(Date.parse(tried.at) + 1000).toISOString();
    await ada.post('/api/attempts', { ...tried, rating: 'nearly', at: later }).expect(201);
    expect((await ada.get(`/api/attempts?lesson=${held.id}`).expect(200)).body).toMatchObject({ items: [{ rating: 'nearly' }, { rating: 'clean' }] });
    const { on, time, minutes, repeats, until, note, version, plan } = held;
    for (const answer of [
      await ada.post(`/api/lessons/${held.id}/end`),
      await ada.put(`/api/lessons/${held.id}`, { on, time, minutes, repeats, until, note, version, plan }),
      await ada.post('/api/reviews', { studentId: pim, lessonId: held.id, on: '2026-12-01' }),
    ])
      expect([answer.status, (answer.body as { detail: string }).detail]).toEqual([404, expect.stringMatching(/lesson/)]);
    await ada.post('/api/reviews', { studentId: pim, lessonId: null, on: '2026-12-01' }).expect(201);
  });

  it('go with their student', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Gone' }).expect(201)).body as { id: string };
    await add({ studentId: id });
    await ada.agent.delete(`/api/students/${id}`).set('x-zelpit-token', ada.token).expect(204);
    expect(await between('2026-12-01', '2026-12-01')).toEqual([]);
    await ada.agent.delete(`/api/put-away/students/${id}`).set('x-zelpit-token', ada.token).expect(204);
    expect((await server.dataSource.query<{ count: string }[]>('SELECT count(*) FROM lesson'))[0].count).toBe('0');
  });
});
