import type { Door, Lesson, Route, Session, SheetDetail } from '@zelpit/contract';
import { Database } from '../database/database';
import { allRoutes } from '../platform/all-routes';
import { addStudio, addTeacher, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';
import { AccountRepository } from './account.repository';

let server: TestServer;
let ada: Visitor;
let pim: string;
let studioId: string;
beforeAll(async () => {
  server = await startTestServer();
  studioId = await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  pim = ((await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body as { id: string }).id;
});
beforeEach(() => server.dataSource.query('DELETE FROM tries'));
afterAll(() => server.close());

const nobody = '7f9d1f0c-8f63-4a7b-9c1d-1d2a3b4c5d6e';
/** All but those with which somebody ends their own session. */
const routes: readonly Route[] = Object.values(allRoutes).filter(({ path }) => !path.startsWith('/account') && !path.startsWith('/session'));
const nameOf = ({ method, path }: Route): string => `${method.toUpperCase()} ${path}`;
/** Addresses that are refused to somebody before anything is read. */
async function refusedTo(visitor: Visitor): Promise<string[]> {
  const refused: string[] = [];
  for (const each of routes.filter(({ who }) => who !== 'anyone')) {
    const path = `/api${each.path.replace('{code}', 'ABCD').replace(/\{\w+\}/g, nobody)}`;
    const calls = { get: () => visitor.get(path), post: () => visitor.post(path), put: () => visitor.put(path, {}), delete: () => visitor.remove(path) };
    if ((await calls[each.method]()).status === 403) refused.push(nameOf(each));
  }
  return refused;
}
const allowed = async (visitor: Visitor): Promise<string[]> => {
  const refused = new Set(await refusedTo(visitor));
  return routes
    .filter(({ who }) => who !== 'anyone')
    .map(nameOf)
    .filter((name) => !refused.has(name))
    .sort();
};

describe('a parent', () => {
  let parent: Visitor;
  let sheet: SheetDetail;
  beforeAll(async () => {
    const line = { home: 'c', other: 'e', repetitions: 2, tempo: 60, point: '' };
    const body = { studentId: pim, tuneId: null, instrument: 'practice-chanter', title: 'Week 1', note: '', lines: [line] };
    sheet = (await ada.post('/api/sheets', body).expect(201)).body as SheetDetail;
    const { address } = (await ada.post(`/api/students/${pim}/parent-link`).expect(201)).body as { address: string };
    parent = await visitByLink(server.app, address);
  });

  it('is who the link says, and sees what was asked and done', async () => {
    expect(((await parent.get('/api/session')).body as Session).signedIn).toMatchObject({ role: 'parent', person: { name: 'Pim' } });
    expect((await parent.get('/api/sheets').expect(200)).body).toMatchObject({ items: [{ title: 'Week 1' }] });
    await parent.get(`/api/sheets/${sheet.id}`).expect(200);
    expect((await parent.get('/api/attempts').expect(200)).body).toEqual({ items: [], next: null });
  });

  it('changes nothing, and sees nobody else', async () => {
    expect(await allowed(parent)).toEqual([
      'GET /attempts',
      'GET /fingerings',
      'GET /instruments',
      'GET /logbook',
      'GET /models',
      'GET /models/{id}',
      'GET /movement-choices',
      'GET /movements',
      'GET /sheets',
      'GET /sheets/{id}',
      'GET /sheets/{id}/lines.abc',
      'GET /takes',
      'GET /takes/{id}',
      'GET /takes/{id}/sound',
      'GET /trials',
    ]);
    const other = ((await ada.post('/api/students', { alias: 'Oda' }).expect(201)).body as { id: string }).id;
    expect((await parent.get(`/api/attempts?student=${other}`)).body).toMatchObject({ items: [] });
    const answer = await parent.post('/api/attempts', {});
    expect([answer.status, (answer.body as { detail: string }).detail]).toEqual([403, 'A parent sees what was asked and done, and changes nothing.']);
  });

  it('goes with the student', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Gone' }).expect(201)).body as { id: string };
    const { address } = (await ada.post(`/api/students/${id}/parent-link`).expect(201)).body as { address: string };
    const theirs = await visitByLink(server.app, address);
    await ada.remove(`/api/students/${id}`).expect(204);
    await theirs.get('/api/sheets').expect(401);
  });
});

describe('a substitute', () => {
  let ben: Visitor;
  beforeAll(async () => {
    await addTeacher(server.dataSource, studioId, 'ben@studio.example');
    const teachers = (await ada.get('/api/teachers').expect(200)).body as { id: string; email: string }[];
    const { id } = teachers.find(({ email }) => email === 'ben@studio.example') as { id: string };
    await ada.put(`/api/teachers/${id}`, { role: 'substitute' }).expect(200);
    ben = await visit(server.app, 'ben@studio.example');
  });

  it('reads the book, holds a lesson and judges what is played', async () => {
    await ben.get('/api/students').expect(200);
    await ben.get('/api/tunes').expect(200);
    const lesson = { studentId: pim, on: '2026-12-01', time: '16:00', minutes: 30, repeats: 'once', until: null, note: '' };
    const { id } = (await ada.post('/api/lessons', lesson).expect(201)).body as { id: string };
    const begun = (await ben.post(`/api/lessons/${id}/begin`, { on: '2026-12-01' }).expect(200)).body as Lesson;
    const { on, time, minutes, repeats, until, note, version, plan } = begun;
    await ben.put(`/api/lessons/${id}`, { on, time, minutes, repeats, until, note, version, plan }).expect(200);
    const tried = {
      ...{ studentId: pim, itemId: null, lessonId: id, title: 'C to E', kind: 'line', model: 'practice-chanter', tempo: 60, count: 1, rating: 'clean' },
      ...{ ladder: null, seconds: 0, device: 'desk', note: '', at: new Date().toISOString() },
    };
    const attempt = (await ben.post('/api/attempts', tried).expect(201)).body as { id: string; by: string };
    expect(attempt.by).toBe('teacher');
    await ben.post(`/api/attempts/${attempt.id}/correction`, { rating: 'nearly' }).expect(200);
    await ben.post(`/api/lessons/${id}/end`).expect(200);
  });

  it('changes nothing in the book, and is told so', async () => {
    const may = await allowed(ben);
    expect(may.filter((name) => !name.startsWith('GET'))).toEqual([
      'DELETE /spoken-words/{id}',
      'DELETE /takes/{id}',
      'POST /attempts',
      'POST /attempts/{id}/correction',
      'POST /lessons/{id}/begin',
      'POST /lessons/{id}/end',
      'POST /lessons/{id}/words',
      'POST /takes',
      'POST /takes/sound',
      'POST /trials',
      'PUT /in-hand',
      'PUT /lessons/{id}',
      'PUT /takes/{id}',
    ]);
    for (const name of ['GET /archive', 'GET /put-away', 'GET /invitations']) expect(may).not.toContain(name);
    const answer = await ben.post('/api/reviews', { studentId: pim, lessonId: null, on: '2026-12-01' });
    expect([answer.status, (answer.body as { detail: string }).detail]).toEqual([403, expect.stringMatching(/^A substitute reads and holds lessons/)]);
  });
});

describe('what is in hand', () => {
  const inHand = async (visitor: Visitor) => ((await visitor.get('/api/session').expect(200)).body as Session).signedIn?.inHand;

  it('is the same on another device, and nothing that is gone or somebody else’s', async () => {
    const [desk, tablet] = [await visit(server.app, 'ada@studio.example'), await visit(server.app, 'ada@studio.example')];
    await desk.put('/api/in-hand', { student: pim }).expect(204);
    expect(await inHand(tablet)).toEqual({ student: pim, tune: null });
    await tablet.put('/api/in-hand', { tune: nobody }).expect(204);
    expect(await inHand(desk)).toEqual({ student: pim, tune: null });
    await addStudio(server.dataSource, 'eve@studio.example');
    const eve = await visit(server.app, 'eve@studio.example');
    await eve.put('/api/in-hand', { student: pim }).expect(204);
    expect(await inHand(eve)).toEqual({ student: null, tune: null });
    const { id } = (await ada.post('/api/students', { alias: 'Gone' }).expect(201)).body as { id: string };
    await desk.put('/api/in-hand', { student: id }).expect(204);
    await ada.remove(`/api/students/${id}`).expect(204);
    await ada.remove(`/api/put-away/students/${id}`).expect(204);
    expect(await inHand(desk)).toEqual({ student: null, tune: null });
  });
});

describe('a private link with a code', () => {
  const door = async (): Promise<Door> => (await ada.post(`/api/students/${pim}/door`).expect(201)).body as Door;
  const token = ({ address }: Pick<Door, 'address'>): string => address.split('#')[1];
  const take = async (made: Door, code: string) => (await visit(server.app)).post('/api/links/take', { token: token(made), code });

  it('opens again and again with its code, and only with it', async () => {
    const made = await door();
    expect(made.code).toMatch(/^\d{6}$/);
    const anybody = await visit(server.app);
    expect((await anybody.post('/api/links/look', { token: token(made) }).expect(200)).body).toMatchObject({ purpose: 'door', name: 'Pim' });
    for (let visits = 0; visits < 3; visits += 1) {
      const student = await visitByLink(server.app, made.address, { code: made.code });
      expect(((await student.get('/api/session')).body as Session).signedIn).toMatchObject({ role: 'student', person: { id: pim } });
    }
    expect((await anybody.post('/api/links/take', { token: token(made) }).expect(400)).body).toMatchObject({
      detail: 'Enter the code that came with the link.',
    });
    expect((await take(made, made.code === '000000' ? '000001' : '000000')).body).toMatchObject({ detail: 'That is not the code of this link.' });
    expect((await take(made, 'abcdef')).status).toBe(400);
    await anybody.post('/api/links/take', { token: 'x'.repeat(32), code: made.code }).expect(404);
  });

  it('is not opened by a thousand wrong codes: after ten each has to wait, and the right one too', async () => {
    const made = await door();
    const visitor = await visit(server.app);
    const answers = new Map<number, number>();
    const right = Number(made.code);
    for (let guess = 0; guess < 1000; guess += 1) {
      // From many addresses: what is counted is the link.
      await server.dataSource.query("DELETE FROM tries WHERE key LIKE 'asking from address%'");
      const code = String((right + 1 + guess) % 1_000_000).padStart(6, '0');
      const { status } = await visitor.post('/api/links/take', { token: token(made), code });
      answers.set(status, (answers.get(status) ?? 0) + 1);
    }
    expect([...answers.keys()].sort()).toEqual([403, 429]);
    expect(answers.get(403)).toBeLessThanOrEqual(15);
    expect((await take(made, made.code)).status).toBe(429);
    await server.dataSource.query('DELETE FROM tries');
    expect((await take(made, made.code)).status).toBe(200);
  }, 120_000);

  it('ends when another is made, when it is ended, and with its student', async () => {
    const first = await door();
    const second = await door();
    expect((await take(first, first.code)).status).toBe(404);
    await visitByLink(server.app, second.address, { code: second.code });
    await ada.remove(`/api/students/${pim}/door`).expect(204);
    expect((await take(second, second.code)).status).toBe(404);
    expect((await ada.remove(`/api/students/${pim}/door`).expect(404)).body).toMatchObject({ detail: 'Pim has no private link.' });
  });

  it('keeps neither link nor code in the database', async () => {
    const made = await door();
    const rows = JSON.stringify(await server.dataSource.query('SELECT * FROM one_time_link'));
    expect(rows).not.toContain(token(made));
    expect(rows).not.toContain(made.code);
    expect(await new AccountRepository(new Database(server.dataSource)).hasAnyStudio()).toBe(true);
  });
});
