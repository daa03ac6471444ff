import type { Express } from 'express';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

/** What stands in Ada's studio when a request comes. */
interface Things {
  readonly student: string;
  readonly tune: string;
  readonly sheet: string;
  readonly line: string;
  readonly code: string;
}

interface Entry {
  readonly path: (things: Things) => string;
  readonly body?: (things: Things) => object;
  /** Answers to: nobody, a teacher of another studio, a teacher of this one. */
  readonly expected: readonly [nobody: number, stranger: number, own: number];
  /** What the thing must be before: put away, so that it can be brought back. */
  readonly putAway?: keyof Things;
  /** True where the session is gone afterwards, so that it must not be the one that all tests share. */
  readonly endsSession?: true;
}

const abc = 'X:1\nT:Hers\nM:4/4\nL:1/4\nK:HP\nA c e a|\n';
const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };
const newSheet = ({ student, tune }: Things) => ({ studentId: student, tuneId: tune, instrument: 'practice-chanter', title: 'More', note: '', lines: [line] });

/** Every route with who may use it. A route without an entry fails the test. */
const matrix: Readonly<Record<string, Entry>> = {
  'GET /api/health': { path: () => '/api/health', expected: [200, 200, 200] },
  'GET /api/ready': { path: () => '/api/ready', expected: [200, 200, 200] },
  'GET /api/session': { path: () => '/api/session', expected: [200, 200, 200] },
  'POST /api/session': { path: () => '/api/session', body: () => ({ email: 'nobody@studio.example', password: 'x' }), expected: [401, 401, 401] },
  'DELETE /api/session': { path: () => '/api/session', endsSession: true, expected: [200, 200, 200] },
  'GET /api/students': { path: () => '/api/students', expected: [401, 200, 200] },
  'POST /api/students': { path: () => '/api/students', body: () => ({ alias: 'New' }), expected: [401, 201, 201] },
  'PUT /api/students/:id': { path: ({ student }) => `/api/students/${student}`, body: () => ({ alias: 'Other' }), expected: [401, 404, 200] },
  'DELETE /api/students/:id': { path: ({ student }) => `/api/students/${student}`, expected: [401, 404, 204] },
  'POST /api/students/:id/restore': { path: ({ student }) => `/api/students/${student}/restore`, putAway: 'student', expected: [401, 404, 204] },
  'GET /api/tunes': { path: () => '/api/tunes', expected: [401, 200, 200] },
  'GET /api/tunes/:id': { path: ({ tune }) => `/api/tunes/${tune}`, expected: [401, 404, 200] },
  'POST /api/tunes/import': { path: () => '/api/tunes/import', body: () => ({}), expected: [401, 422, 422] },
  'PUT /api/tunes/:id': { path: ({ tune }) => `/api/tunes/${tune}`, body: () => ({ abc }), expected: [401, 404, 200] },
  'POST /api/tunes/:id/move': { path: ({ tune }) => `/api/tunes/${tune}/move`, body: () => ({ semitones: 2 }), expected: [401, 404, 200] },
  'DELETE /api/tunes/:id': { path: ({ tune }) => `/api/tunes/${tune}`, expected: [401, 404, 204] },
  'POST /api/tunes/:id/restore': { path: ({ tune }) => `/api/tunes/${tune}/restore`, putAway: 'tune', expected: [401, 404, 204] },
  'GET /api/sheets': { path: () => '/api/sheets', expected: [401, 200, 200] },
  'POST /api/sheets': { path: () => '/api/sheets', body: newSheet, expected: [401, 404, 201] },
  'GET /api/sheets/:id': { path: ({ sheet }) => `/api/sheets/${sheet}`, expected: [401, 404, 200] },
  'PUT /api/sheets/:id': {
    path: ({ sheet }) => `/api/sheets/${sheet}`,
    body: () => ({ title: 'Changed', note: '', version: 1, lines: [] }),
    expected: [401, 404, 200],
  },
  'GET /api/sheets/:id/lines.abc': { path: ({ sheet }) => `/api/sheets/${sheet}/lines.abc`, expected: [401, 404, 200] },
  'DELETE /api/sheets/:id': { path: ({ sheet }) => `/api/sheets/${sheet}`, expected: [401, 404, 204] },
  'POST /api/sheets/:id/restore': { path: ({ sheet }) => `/api/sheets/${sheet}/restore`, putAway: 'sheet', expected: [401, 404, 204] },
  'PUT /api/account/password': {
    path: () => '/api/account/password',
    body: () => ({ current: 'not this', next: 'a longer password' }),
    expected: [401, 403, 403],
  },
  'DELETE /api/account/sessions': { path: () => '/api/account/sessions', endsSession: true, expected: [401, 204, 204] },
  'GET /api/put-away': { path: () => '/api/put-away', expected: [401, 200, 200] },
  'DELETE /api/put-away/students/:id': { path: ({ student }) => `/api/put-away/students/${student}`, expected: [401, 404, 204] },
  'GET /api/lines/:code': { path: ({ code }) => `/api/lines/${code}`, expected: [401, 404, 200] },
};

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** Every route of the application, as "GET /api/tunes/:id". */
function routesOf(app: Express): readonly string[] {
  const walk = (stack: readonly Layer[], isApi: boolean): string[] =>
    stack.flatMap(({ route, handle }) => {
      if (route !== undefined) return Object.keys(route.methods).map((method) => `${method.toUpperCase()} ${isApi ? '/api' : ''}${route.path}`);
      return handle.stack === undefined ? [] : walk(handle.stack, true);
    });
  return walk((app as unknown as { router: { stack: readonly Layer[] } }).router.stack, false);
}

let server: TestServer;
let ada: Visitor;
let bo: Visitor;

beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  await addStudio(server.dataSource, 'bo@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  bo = await visit(server.app, 'bo@studio.example');
});
afterAll(() => server.close());

async function freshThings(putAway?: keyof Things): Promise<Things> {
  const student = ((await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body as { id: string }).id;
  const imported = await ada.agent
    .post('/api/tunes/import')
    .set('x-zelpit-token', ada.token)
    .type('application/octet-stream')
    .send(Buffer.from(abc))
    .expect(201);
  const tune = (imported.body as { saved: { id: string }[] }).saved[0].id;
  const { body } = await ada.post('/api/sheets', newSheet({ student, tune } as Things)).expect(201);
  const { id: sheet, lines } = body as { id: string; lines: { id: string; code: string }[] };
  const things: Things = { student, tune, sheet, line: lines[0].id, code: lines[0].code };
  if (putAway !== undefined) await ada.remove(`/api/${putAway}s/${things[putAway]}`).expect(204);
  return things;
}

function ask(visitor: Visitor, method: string, path: string, body: object): Promise<{ status: number; body: unknown }> {
  const calls: Readonly<Record<string, () => Promise<{ status: number; body: unknown }>>> = {
    GET: async () => visitor.get(path),
    POST: async () => visitor.post(path, body),
    PUT: async () => visitor.put(path, body),
    DELETE: async () => visitor.remove(path),
  };
  return calls[method]();
}

describe('who may do what', () => {
  it('is said for every route there is, and for no other', () => {
    expect([...routesOf(server.app)].sort()).toEqual(Object.keys(matrix).sort());
  });

  it.each(Object.entries(matrix))('%s', async (route, entry) => {
    const [method] = route.split(' ');
    const things = await freshThings(entry.putAway);
    const body = entry.body?.(things) ?? {};
    const nobody = await ask(await visit(server.app), method, entry.path(things), body);
    const stranger = entry.endsSession ? await visit(server.app, 'bo@studio.example') : bo;
    const strange = await ask(stranger, method, entry.path(things), body);
    const owner = entry.endsSession ? await visit(server.app, 'ada@studio.example') : ada;
    const own = await ask(owner, method, entry.path(things), body);
    if (entry.endsSession) [ada, bo] = [await visit(server.app, 'ada@studio.example'), await visit(server.app, 'bo@studio.example')];
    expect([nobody.status, strange.status, own.status]).toEqual(entry.expected);
  });

  it('shows a stranger nothing of another studio in any list', async () => {
    const things = await freshThings();
    for (const list of ['/api/students', '/api/tunes', '/api/sheets']) {
      const text = JSON.stringify((await bo.get(list).expect(200)).body);
      for (const id of [things.student, things.tune, things.sheet]) expect(text).not.toContain(id);
    }
  });

  it('needs the token of the session for every write', async () => {
    const things = await freshThings();
    for (const [route, entry] of Object.entries(matrix)) {
      const [method] = route.split(' ');
      if (method === 'GET') continue;
      const call = ada.agent[method.toLowerCase() as 'post' | 'put' | 'delete'](entry.path(things));
      expect([route, (await call.send(entry.body?.(things) ?? {})).status]).toEqual([route, 403]);
    }
  });
});
