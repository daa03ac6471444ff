import { practiceChanter } from '@zelpit/core';
import type { Express } from 'express';
import { writeArchive } from '../archive/archive-file';
import { describedApi, type DescribedApi } from '../testing/described';
import { addStudio, addTeacher, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';

/** What stands in Ada's studio when a request comes. */
interface Things {
  /** Whose tablet the student's session is on; the sheet is theirs. */
  readonly student: string;
  /** Another student, who can go. */
  readonly spare: string;
  readonly tune: string;
  readonly sheet: string;
  readonly code: string;
  readonly teacher: string;
  readonly invitation: string;
  readonly instrument: string;
  readonly model: string;
  readonly fingering: string;
  readonly trial: string;
  readonly movement: string;
  readonly archive: Buffer;
}

const actors = ['nobody', 'stranger', 'teacher', 'owner', 'student'] as const;
type Actor = (typeof actors)[number];

interface Entry {
  readonly path?: (things: Things) => string;
  readonly body?: (things: Things) => object;
  /** Answers to: nobody, another studio's owner, a teacher of this studio, its owner, its student. */
  readonly expected: readonly [nobody: number, stranger: number, teacher: number, owner: number, student: number];
  /** What the thing must be before: put away, so that it can be brought back. */
  readonly putAway?: 'spare' | 'tune' | 'sheet' | 'instrument' | 'model';
  /** True where the session is another one afterwards, so that it must not be the one that all tests share. */
  readonly endsSession?: true;
}

const abc = 'X:1\nT:Hers\nM:4/4\nL:1/4\nK:HP\nA c e a|\n';
const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };
const newSheet = ({ student, tune }: Pick<Things, 'student' | 'tune'>) => ({
  studentId: student,
  tuneId: tune,
  instrument: 'practice-chanter',
  title: 'More',
  note: '',
  lines: [line],
});
const settings = {
  name: 'Hers',
  model: 'practice-chanter',
  hands: 'left-on-top',
  tuning: { kind: 'chart' },
  schools: {},
  referenceHertz: null,
  knownNotes: ['low-a'],
  note: '',
};
const newInstrument = ({ student }: Pick<Things, 'student'>) => ({ ...settings, studentId: student });
const newModel = () => ({ instrument: { ...practiceChanter, name: 'my own chanter' } });
const newFingering = () => ({ model: 'whistle-d', note: 'c6', pattern: [0, 1, 1, 0, 1, 0], isFirst: false, isHidden: false, remark: '', forNow: null });
const newTrial = ({ student }: Pick<Things, 'student'>) => ({
  studentId: student,
  model: 'practice-chanter',
  result: { kind: 'ear', from: 'c', to: 'e', thresholdMs: 20, lowMs: 15, highMs: 26, right: 30, asked: 40 },
});
const newMovement = () => ({ movement: 'grip', definition: null });
let fresh = 0;
const freshEmail = (): string => `fresh-${(fresh += 1)}@studio.example`;

/** Every route with who may use it. A route without an entry fails the test. */
const matrix: Readonly<Record<string, Entry>> = {
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
  'POST /api/account/reset': { body: () => ({ email: 'nobody@studio.example' }), expected: [204, 204, 204, 204, 204] },
  'POST /api/links/look': { body: () => ({ token: 'x'.repeat(32) }), expected: [404, 404, 404, 404, 404] },
  'POST /api/links/take': { body: () => ({ token: 'x'.repeat(32) }), expected: [404, 404, 404, 404, 404] },
  'GET /api/outbox': { expected: [200, 200, 200, 200, 200] },
  'PUT /api/account/password': { body: () => ({ current: 'not this', next: 'a longer password' }), expected: [401, 403, 403, 403, 403] },
  'DELETE /api/account/sessions': { endsSession: true, expected: [401, 204, 204, 204, 403] },
  'PUT /api/studio': { body: () => ({ name: 'Studio of Ada' }), expected: [401, 200, 403, 200, 403] },
  'GET /api/teachers': { expected: [401, 200, 200, 200, 403] },
  'PUT /api/teachers/{id}': { path: ({ teacher }) => `/api/teachers/${teacher}`, body: () => ({ role: 'owner' }), expected: [401, 404, 403, 200, 403] },
  'DELETE /api/teachers/{id}': { path: ({ teacher }) => `/api/teachers/${teacher}`, expected: [401, 404, 403, 204, 403] },
  'GET /api/invitations': { expected: [401, 200, 403, 200, 403] },
  'POST /api/invitations': { body: () => ({ name: 'New', email: freshEmail() }), expected: [401, 201, 403, 201, 403] },
  'DELETE /api/invitations/{id}': { path: ({ invitation }) => `/api/invitations/${invitation}`, expected: [401, 404, 403, 204, 403] },
  'GET /api/audit': { expected: [401, 200, 403, 200, 403] },
  'GET /api/archive': { expected: [401, 200, 403, 200, 403] },
  'POST /api/archive': { path: () => '/api/archive', body: ({ archive }) => archive, expected: [401, 200, 403, 409, 403] },
  'GET /api/students': { expected: [401, 200, 200, 200, 403] },
  'POST /api/students': { body: () => ({ alias: 'New' }), expected: [401, 201, 201, 201, 403] },
  'PUT /api/students/{id}': {
    path: ({ spare }) => `/api/students/${spare}`,
    body: () => ({ alias: 'Other', version: 1 }),
    expected: [401, 404, 200, 200, 403],
  },
  'DELETE /api/students/{id}': { path: ({ spare }) => `/api/students/${spare}`, expected: [401, 404, 204, 204, 403] },
  'POST /api/students/{id}/restore': { path: ({ spare }) => `/api/students/${spare}/restore`, putAway: 'spare', expected: [401, 404, 204, 204, 403] },
  'POST /api/students/{id}/link': { path: ({ spare }) => `/api/students/${spare}/link`, expected: [401, 404, 201, 201, 403] },
  'GET /api/tunes': { expected: [401, 200, 200, 200, 403] },
  'GET /api/tunes/{id}': { path: ({ tune }) => `/api/tunes/${tune}`, expected: [401, 404, 200, 200, 403] },
  'POST /api/tunes/import': { body: () => Buffer.from(abc), expected: [401, 201, 201, 201, 403] },
  'PUT /api/tunes/{id}': { path: ({ tune }) => `/api/tunes/${tune}`, body: () => ({ abc, version: 1 }), expected: [401, 404, 200, 200, 403] },
  'POST /api/tunes/{id}/move': {
    path: ({ tune }) => `/api/tunes/${tune}/move`,
    body: () => ({ semitones: 2, version: 1 }),
    expected: [401, 404, 200, 200, 403],
  },
  'DELETE /api/tunes/{id}': { path: ({ tune }) => `/api/tunes/${tune}`, expected: [401, 404, 204, 204, 403] },
  'POST /api/tunes/{id}/restore': { path: ({ tune }) => `/api/tunes/${tune}/restore`, putAway: 'tune', expected: [401, 404, 204, 204, 403] },
  'GET /api/sheets': { expected: [401, 200, 200, 200, 200] },
  'POST /api/sheets': { body: newSheet, expected: [401, 404, 201, 201, 403] },
  'GET /api/sheets/{id}': { path: ({ sheet }) => `/api/sheets/${sheet}`, expected: [401, 404, 200, 200, 200] },
  'PUT /api/sheets/{id}': {
    path: ({ sheet }) => `/api/sheets/${sheet}`,
    body: () => ({ title: 'Changed', note: '', version: 1, lines: [] }),
    expected: [401, 404, 200, 200, 403],
  },
  'GET /api/sheets/{id}/lines.abc': { path: ({ sheet }) => `/api/sheets/${sheet}/lines.abc`, expected: [401, 404, 200, 200, 200] },
  'DELETE /api/sheets/{id}': { path: ({ sheet }) => `/api/sheets/${sheet}`, expected: [401, 404, 204, 204, 403] },
  'POST /api/sheets/{id}/restore': { path: ({ sheet }) => `/api/sheets/${sheet}/restore`, putAway: 'sheet', expected: [401, 404, 204, 204, 403] },
  'GET /api/lines/{code}': { path: ({ code }) => `/api/lines/${code}`, expected: [401, 404, 200, 200, 200] },
  'GET /api/instruments': { expected: [401, 200, 200, 200, 200] },
  'POST /api/instruments': { body: newInstrument, expected: [401, 404, 201, 201, 403] },
  'PUT /api/instruments/{id}': {
    path: ({ instrument }) => `/api/instruments/${instrument}`,
    body: () => ({ ...settings, version: 1 }),
    expected: [401, 404, 200, 200, 403],
  },
  'DELETE /api/instruments/{id}': { path: ({ instrument }) => `/api/instruments/${instrument}`, expected: [401, 404, 204, 204, 403] },
  'POST /api/instruments/{id}/restore': {
    path: ({ instrument }) => `/api/instruments/${instrument}/restore`,
    putAway: 'instrument',
    expected: [401, 404, 204, 204, 403],
  },
  'GET /api/models': { expected: [401, 200, 200, 200, 200] },
  'POST /api/models': { body: newModel, expected: [401, 201, 201, 201, 403] },
  'PUT /api/models/{id}': { path: ({ model }) => `/api/models/${model}`, body: () => ({ ...newModel(), version: 1 }), expected: [401, 404, 200, 200, 403] },
  'DELETE /api/models/{id}': { path: ({ model }) => `/api/models/${model}`, expected: [401, 404, 204, 204, 403] },
  'POST /api/models/{id}/restore': { path: ({ model }) => `/api/models/${model}/restore`, putAway: 'model', expected: [401, 404, 204, 204, 403] },
  'GET /api/fingerings': { expected: [401, 200, 200, 200, 200] },
  'POST /api/fingerings': { body: newFingering, expected: [401, 201, 201, 201, 403] },
  'GET /api/movements': { expected: [401, 200, 200, 200, 200] },
  'POST /api/movements': { body: newMovement, expected: [401, 201, 201, 201, 403] },
  'DELETE /api/movements/{id}': { path: ({ movement }) => `/api/movements/${movement}`, expected: [401, 404, 204, 204, 403] },
  'GET /api/movement-choices': { expected: [401, 200, 200, 200, 200] },
  // Each has a version of its own: the owner comes after the teacher.
  'PUT /api/movement-choices': { body: () => ({ settings: {}, syllables: {}, version: 1 }), expected: [401, 200, 200, 409, 403] },
  'DELETE /api/fingerings/{id}': { path: ({ fingering }) => `/api/fingerings/${fingering}`, expected: [401, 404, 204, 204, 403] },
  'PUT /api/tunes/{id}/pins': {
    path: ({ tune }) => `/api/tunes/${tune}/pins`,
    body: () => ({ pins: [] }),
    expected: [401, 404, 200, 200, 403],
  },
  'GET /api/trials': { expected: [401, 200, 200, 200, 200] },
  'POST /api/trials': { body: newTrial, expected: [401, 404, 201, 201, 201] },
  'DELETE /api/trials/{id}': { path: ({ trial }) => `/api/trials/${trial}`, expected: [401, 404, 204, 204, 403] },
  'GET /api/put-away': { expected: [401, 200, 200, 200, 403] },
  'DELETE /api/put-away/students/{id}': { path: ({ spare }) => `/api/put-away/students/${spare}`, expected: [401, 404, 204, 204, 403] },
};

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
let archive: Buffer;
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
  const nothing = {
    'students.json': [],
    'tunes.json': [],
    'sheets.json': [],
    'instruments.json': [],
    'models.json': [],
    'fingerings.json': [],
    'trials.json': [],
    'movements.json': { choices: null, kept: [] },
  };
  archive = Buffer.from(await writeArchive({ 'studio.json': { name: 'Empty' }, ...nothing }, new Date()));
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

const noThings = {} as Things;

async function freshThings(putAway?: Entry['putAway']): Promise<Things> {
  const { owner } = people;
  const spare = ((await owner.post('/api/students', { alias: 'Oda' }).expect(201)).body as { id: string }).id;
  const imported = await upload(owner, '/api/tunes/import', Buffer.from(abc));
  const tune = (imported.body as { saved: { id: string }[] }).saved[0].id;
  const { body } = await owner.post('/api/sheets', newSheet({ student, tune })).expect(201);
  const { id: sheet, lines } = body as { id: string; lines: { code: string }[] };
  const email = freshEmail();
  await addTeacher(server.dataSource, studio, email);
  const teachers = (await owner.get('/api/teachers').expect(200)).body as { id: string; email: string }[];
  const teacher = teachers.find((each) => each.email === email)?.id ?? '';
  const invitation = ((await owner.post('/api/invitations', { name: 'Di', email: freshEmail() }).expect(201)).body as { id: string }).id;
  const made = async (path: string, sent: object): Promise<string> => ((await owner.post(`/api/${path}`, sent).expect(201)).body as { id: string }).id;
  const instrument = await made('instruments', newInstrument({ student }));
  const model = await made('models', newModel());
  const fingering = await made('fingerings', newFingering());
  const trial = await made('trials', newTrial({ student }));
  const movement = await made('movements', newMovement());
  const things: Things = { instrument, model, fingering, trial, movement, student, spare, tune, sheet, code: lines[0].code, teacher, invitation, archive };
  if (putAway !== undefined) await owner.remove(`/api/${putAway === 'spare' ? 'student' : putAway}s/${things[putAway]}`).expect(204);
  return things;
}

interface Answered {
  readonly status: number;
  readonly type: string;
  readonly body: unknown;
}

const upload = (visitor: Visitor, path: string, file: Buffer): Promise<Answered> =>
  visitor.agent.post(path).set('x-zelpit-token', visitor.token).type('application/octet-stream').send(file) as unknown as Promise<Answered>;

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
  it('is said for every route there is, and for no other; the description knows the same', () => {
    expect([...servedBy(server.app)].sort()).toEqual(Object.keys(matrix).sort());
    expect([...api.routes].sort()).toEqual(Object.keys(matrix).sort());
  });

  it.each(Object.entries(matrix))('%s answers as it should, and as the description says', async (route, entry) => {
    const [method, described] = route.split(' ');
    const statuses: number[] = [];
    for (const actor of actors) {
      const needsThings = entry.path !== undefined || entry.body !== undefined;
      const things = needsThings ? await freshThings(entry.putAway) : noThings;
      const visitor = entry.endsSession ? await again(actor) : people[actor];
      const answer = await ask(visitor, method, entry.path?.(things) ?? described, entry.body?.(things) ?? {});
      statuses.push(answer.status);
      if (route === 'DELETE /api/account/sessions' && actor !== 'nobody') people[actor] = await again(actor);
      expect([actor, ...api.faultsOf(route, answer)]).toEqual([actor]);
    }
    expect(statuses).toEqual(entry.expected);
  });

  it('shows a stranger nothing of another studio in any list', async () => {
    const things = await freshThings();
    for (const list of [
      'students',
      'tunes',
      'sheets',
      'put-away',
      'teachers',
      'invitations',
      'audit',
      'instruments',
      'models',
      'fingerings',
      'trials',
      'movements',
    ]) {
      const text = JSON.stringify((await people.stranger.get(`/api/${list}`).expect(200)).body);
      for (const id of [
        things.student,
        things.tune,
        things.sheet,
        things.teacher,
        things.invitation,
        things.instrument,
        things.model,
        things.fingering,
        things.trial,
        things.movement,
      ])
        expect(text).not.toContain(id);
    }
  });

  it('shows a student nothing of another student', async () => {
    const { spare, tune } = await freshThings();
    const { body } = await people.owner.post('/api/sheets', newSheet({ student: spare, tune })).expect(201);
    const other = body as { id: string; lines: { code: string }[] };
    await people.student.get(`/api/sheets/${other.id}`).expect(404);
    await people.student.get(`/api/sheets/${other.id}/lines.abc`).expect(404);
    await people.student.get(`/api/lines/${other.lines[0].code}`).expect(404);
    const { items } = (await people.student.get('/api/sheets').expect(200)).body as { items: { student: { id: string } }[] };
    expect(new Set(items.map((sheet) => sheet.student.id))).toEqual(new Set([student]));
    expect((await people.student.get(`/api/sheets?student=${spare}`).expect(200)).body).toEqual({ items: [], next: null });
  });

  it('needs the token of the session for every write', async () => {
    const things = await freshThings();
    for (const [route, entry] of Object.entries(matrix)) {
      const [method, described] = route.split(' ');
      if (method === 'GET') continue;
      const call = people.owner.agent[method.toLowerCase() as 'post' | 'put' | 'delete'](entry.path?.(things) ?? described);
      const body = entry.body?.(things) ?? {};
      expect([route, (await (Buffer.isBuffer(body) ? call.type('application/zip').send(body) : call.send(body))).status]).toEqual([route, 403]);
    }
  });
});
