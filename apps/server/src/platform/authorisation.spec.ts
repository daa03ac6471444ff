import type { Express } from 'express';
import { things } from '../things/things';
import { allRoutes } from './all-routes';
import { made, upload, type Answered, type Entry, type Made, type ThingMatrix } from '../things/matrix.spec-support';
import { describedApi, type DescribedApi } from '../testing/described';
import { forgetStudios } from '../testing/on-queries';
import { addStudio, addTeacher, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';

const actors = ['nobody', 'stranger', 'teacher', 'owner', 'student'] as const;
type Actor = (typeof actors)[number];

const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };
let fresh = 0;
const freshEmail = (): string => `fresh-${(fresh += 1)}@studio.example`;

/** Addresses that belong to no kept thing. */
const others: Readonly<Record<string, Entry>> = {
  'GET /api/health': { expected: [200, 200, 200, 200, 200] },
  'GET /api/ready': { expected: [200, 200, 200, 200, 200] },
  'GET /api/openapi.json': { expected: [200, 200, 200, 200, 200] },
  'GET /api/session': { expected: [200, 200, 200, 200, 200] },
  'POST /api/session': { body: () => ({ email: 'nobody@studio.example', password: 'x' }), expected: [401, 401, 401, 401, 401] },
  'DELETE /api/session': { endsSession: true, expected: [200, 200, 200, 200, 200] },
  'POST /api/studios': {
    body: () => ({ studio: 'Fresh', name: 'Fresh', email: freshEmail(), password: 'long enough for this' }),
    endsSession: true,
    expected: [201, 201, 201, 201, 201],
  },
  'POST /api/account/reset': { body: () => ({ email: freshEmail() }), expected: [204, 204, 204, 204, 204] },
  'POST /api/links/look': { body: () => ({ token: 'x'.repeat(32) }), expected: [404, 404, 404, 404, 404] },
  'POST /api/links/take': { body: () => ({ token: 'x'.repeat(32) }), expected: [404, 404, 404, 404, 404] },
  'GET /api/outbox': { expected: [200, 200, 200, 200, 200] },
  'PUT /api/account/password': { body: () => ({ current: 'not this', next: 'a longer password' }), expected: [401, 403, 403, 403, 403] },
  'DELETE /api/account/sessions': { endsSession: true, expected: [401, 204, 204, 204, 403] },
  'GET /api/studios': { expected: [401, 200, 200, 200, 403] },
  'PUT /api/session/studio': { body: () => ({ id: '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10' }), expected: [401, 404, 404, 404, 403] },
  'PUT /api/in-hand': { body: () => ({ student: null }), expected: [401, 204, 204, 204, 403] },
  'PUT /api/studio': { body: () => ({ name: 'Studio of Ada' }), expected: [401, 200, 403, 200, 403] },
  'GET /api/studio/room': { expected: [401, 200, 200, 200, 403] },
  'GET /api/teachers': { expected: [401, 200, 200, 200, 403] },
  'PUT /api/teachers/{id}': { path: ({ teacher }) => `/api/teachers/${teacher}`, body: () => ({ role: 'owner' }), expected: [401, 404, 403, 200, 403] },
  'DELETE /api/teachers/{id}': { path: ({ teacher }) => `/api/teachers/${teacher}`, expected: [401, 404, 403, 204, 403] },
  'GET /api/invitations': { expected: [401, 200, 403, 200, 403] },
  'POST /api/invitations': { body: () => ({ name: 'New', email: freshEmail() }), expected: [401, 201, 403, 201, 403] },
  'DELETE /api/invitations/{id}': { path: ({ invitation }) => `/api/invitations/${invitation}`, expected: [401, 404, 403, 204, 403] },
  'GET /api/audit': { expected: [401, 200, 403, 200, 403] },
  'GET /api/put-away': { expected: [401, 200, 200, 200, 403] },
  'DELETE /api/put-away/students/{id}': { path: ({ spare }) => `/api/put-away/students/${spare}`, expected: [401, 404, 204, 204, 403] },
};

/** The matrix of a kind of thing, from its folder. */
// eslint-disable-next-line @typescript-eslint/no-require-imports
const matrixOf = (kind: string): ThingMatrix => (require(`../${kind}s/${kind}.matrix.spec-support`) as { matrix: ThingMatrix }).matrix;
const kinds = things.map(({ kind }) => kind);
/** Those that have a list of their own. */
const listed = things
  .filter(({ kind, routes }) => Object.values(routes).some(({ method, path }) => method === 'get' && path === `/${kind}s`))
  .map(({ kind }) => kind);

/** Every route with who may use it. A route without an entry fails the test. */
const matrix: Readonly<Record<string, Entry>> = Object.assign({}, others, ...kinds.map((kind) => matrixOf(kind).entries)) as Record<string, Entry>;

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** Every route that the application serves, found in Express itself. */
function servedBy(app: Express): readonly string[] {
  const walk = (stack: readonly Layer[], isApi: boolean): string[] =>
    stack.flatMap(({ route, handle }) => {
      if (route !== undefined) {
        const path = `${isApi ? '/api' : ''}${route.path.replace(/:(\w+)/g, '{$1}')}`;
        return Object.keys(route.methods).map((method) => `${method.toUpperCase()} ${path}`);
      }
      return handle.stack === undefined ? [] : walk(handle.stack, true);
    });
  return walk((app as unknown as { router: { stack: readonly Layer[] } }).router.stack, false);
}

let server: TestServer;
let api: DescribedApi;
let studio: string;
let student: string;
let people: Record<Actor, Visitor>;

beforeAll(async () => {
  server = await startTestServer();
  api = await describedApi(server.app);
  studio = await addStudio(server.dataSource, 'ada@studio.example');
  await addTeacher(server.dataSource, studio, 'cy@studio.example');
  await addStudio(server.dataSource, 'bo@studio.example');
  people = {
    nobody: await visit(server.app),
    stranger: await visit(server.app, 'bo@studio.example'),
    teacher: await visit(server.app, 'cy@studio.example'),
    owner: await visit(server.app, 'ada@studio.example'),
  } as Record<Actor, Visitor>;
  student = ((await people.owner.post('/api/students', { alias: 'Pim' }).expect(201)).body as { id: string }).id;
  people.student = await asStudent();
});
afterAll(() => server.close());

async function asStudent(): Promise<Visitor> {
  const { body } = await people.owner.post(`/api/students/${student}/link`).expect(201);
  return visitByLink(server.app, (body as { address: string }).address);
}

/** The same person in a session of its own. */
async function again(actor: Actor): Promise<Visitor> {
  const emails: Partial<Record<Actor, string>> = { stranger: 'bo@studio.example', teacher: 'cy@studio.example', owner: 'ada@studio.example' };
  return actor === 'student' ? asStudent() : visit(server.app, emails[actor]);
}

async function freshThings(putAway?: Entry['putAway']): Promise<Made> {
  const { owner } = people;
  let all: Made = { student };
  for (const kind of kinds) all = { ...all, ...(await matrixOf(kind).make(owner, all)) };
  const email = freshEmail();
  await addTeacher(server.dataSource, studio, email);
  const teachers = (await owner.get('/api/teachers').expect(200)).body as { id: string; email: string }[];
  const teacher = teachers.find((each) => each.email === email)?.id ?? '';
  const invitation = await made(owner, '/api/invitations', { name: 'Di', email: freshEmail() });
  all = { ...all, teacher, invitation };
  if (putAway !== undefined) await owner.remove(putAway(all)).expect(204);
  return all;
}

/** Things that no call has changed yet: the next route meets them too. */
let untouched: Made | undefined;

async function ask(visitor: Visitor, method: string, path: string, body: object): Promise<Answered> {
  if (Buffer.isBuffer(body)) return upload(visitor, path, body);
  const calls: Readonly<Record<string, () => Promise<Answered>>> = {
    GET: async () => visitor.get(path),
    POST: async () => visitor.post(path, body),
    PUT: async () => visitor.put(path, body),
    DELETE: async () => visitor.remove(path),
  };
  return calls[method]();
}

describe('who may do what', () => {
  it('is one address a route, and every write that changes a studio is for somebody', () => {
    const all = Object.values(allRoutes);
    expect(new Set(all.map(({ method, path }) => `${method} ${path}`)).size).toBe(all.length);
    const open = all.filter(({ who, method }) => who === 'anyone' && method !== 'get').map(({ path }) => path);
    expect(open).toEqual(['/session', '/session', '/studios', '/account/reset', '/links/look', '/links/take']);
  });

  it('is said for every route there is, and for no other; the description knows the same', () => {
    expect([...servedBy(server.app)].sort()).toEqual(Object.keys(matrix).sort());
    expect([...api.routes].sort()).toEqual(Object.keys(matrix).sort());
  });

  it.each(Object.entries(matrix))('%s answers as it should, and as the description says', async (route, entry) => {
    const [method, described] = route.split(' ');
    const statuses: number[] = [];
    const needsThings = entry.path !== undefined || entry.body !== undefined;
    let all = entry.putAway === undefined ? untouched : undefined;
    for (const actor of actors) {
      // What was refused has changed nothing, and the next one meets the same things.
      if (needsThings) all ??= await freshThings(entry.putAway);
      const visitor = entry.endsSession ? await again(actor) : people[actor];
      const answer = await ask(visitor, method, entry.path?.(all ?? {}) ?? described, entry.body?.(all ?? {}) ?? {});
      statuses.push(answer.status);
      if (method !== 'GET' && answer.status < 300) all = undefined;
      if (route === 'DELETE /api/account/sessions' && actor !== 'nobody') people[actor] = await again(actor);
      expect([actor, ...api.faultsOf(route, answer)]).toEqual([actor]);
    }
    untouched = entry.putAway === undefined ? all : undefined;
    expect(statuses).toEqual(entry.expected);
  });

  it('leaves a stranger without a row where a query forgets its studio', async () => {
    const all = await freshThings();
    const forgetful = forgetStudios();
    try {
      for (const [route, entry] of Object.entries(matrix)) {
        if (entry.path === undefined || entry.expected[1] !== 404) continue;
        const [method] = route.split(' ');
        const { status } = await ask(people.stranger, method, entry.path(all), entry.body?.(all) ?? {});
        expect([route, status]).toEqual([route, 404]);
      }
      for (const kind of listed) {
        const text = JSON.stringify((await people.stranger.get(`/api/${kind}s`).expect(200)).body);
        for (const id of Object.values(all)) if (id.length > 4) expect([kind, text.includes(id)]).toEqual([kind, false]);
      }
      expect(forgetful.count()).toBeGreaterThan(30);
    } finally {
      forgetful.restore();
    }
    // And nothing of it was changed: its owner finds all of it.
    expect((await people.owner.get('/api/tunes').expect(200)).text).toContain(all['tune']);
  });

  it('shows a stranger nothing of another studio in any list', async () => {
    const all = await freshThings();
    for (const list of [...listed.map((kind) => `${kind}s`), 'put-away', 'teachers', 'invitations', 'audit']) {
      const text = JSON.stringify((await people.stranger.get(`/api/${list}`).expect(200)).body);
      for (const id of Object.values(all)) {
        if (id.length > 4) expect(text).not.toContain(id);
      }
    }
  });

  it('shows a student nothing of another student', async () => {
    const { spare, tune } = await freshThings();
    const { body } = await people.owner
      .post('/api/sheets', { studentId: spare, tuneId: tune, instrument: 'practice-chanter', title: 'More', note: '', lines: [line] })
      .expect(201);
    const other = body as { id: string; lines: { code: string }[] };
    await people.student.get(`/api/sheets/${other.id}`).expect(404);
    await people.student.get(`/api/sheets/${other.id}/lines.abc`).expect(404);
    await people.student.get(`/api/lines/${other.lines[0].code}`).expect(404);
    const { items } = (await people.student.get('/api/sheets').expect(200)).body as { items: { student: { id: string } }[] };
    expect(new Set(items.map((sheet) => sheet.student.id))).toEqual(new Set([student]));
    expect((await people.student.get(`/api/sheets?student=${spare}`).expect(200)).body).toEqual({ items: [], next: null });
  });

  it('needs the token of the session for every write', async () => {
    const all = await freshThings();
    for (const [route, entry] of Object.entries(matrix)) {
      const [method, described] = route.split(' ');
      if (method === 'GET') continue;
      const call = people.owner.agent[method.toLowerCase() as 'post' | 'put' | 'delete'](entry.path?.(all) ?? described);
      const body = entry.body?.(all) ?? {};
      expect([route, (await (Buffer.isBuffer(body) ? call.type('application/zip').send(body) : call.send(body))).status]).toEqual([route, 403]);
    }
  });
});
