import { tokenHeader, type HeldInstrument, type ImportResult, type OwnModel, type Page, type PutAway, type StudioFingering } from '@zelpit/contract';
import { instrumentById, practiceChanter } from '@zelpit/core';
import { addStudio, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';

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

const chart = { kind: 'chart' };
const settings = {
  name: 'Pim’s recorder',
  model: 'recorder-soprano-german',
  hands: 'left-on-top',
  tuning: chart,
  schools: {},
  referenceHertz: null,
  knownNotes: ['b5'],
  note: '',
};
const add = async (change: object = {}): Promise<HeldInstrument> =>
  (await ada.post('/api/instruments', { ...settings, studentId: pim, ...change }).expect(201)).body as HeldInstrument;
const detailOf = (body: unknown): string => (body as { detail: string }).detail;

describe('an instrument that somebody plays', () => {
  it('belongs to a student, or to the teacher who adds it', async () => {
    expect((await add()).owner).toEqual({ kind: 'student', id: pim, name: 'Pim' });
    expect((await add({ studentId: null, name: 'Mine' })).owner.kind).toBe('teacher');
    const { items } = (await ada.get(`/api/instruments?student=${pim}`).expect(200)).body as Page<HeldInstrument>;
    expect(items.map(({ name }) => name)).toEqual(['Pim’s recorder']);
  });

  it('keeps its known notes, and a save that comes too late is refused', async () => {
    const { id, version, owner: _, ...rest } = await add({ name: 'Known' });
    const saved = await ada.put(`/api/instruments/${id}`, { ...rest, knownNotes: ['b5', 'a5', 'g5'], version }).expect(200);
    expect((saved.body as HeldInstrument).knownNotes).toEqual(['b5', 'a5', 'g5']);
    await ada.put(`/api/instruments/${id}`, { ...rest, knownNotes: [], version }).expect(409);
    const { items } = (await ada.get('/api/instruments').expect(200)).body as Page<HeldInstrument>;
    expect(items.find((each) => each.id === id)?.knownNotes).toEqual(['b5', 'a5', 'g5']);
  });

  it.each([
    ['a right hand on top on a recorder', { hands: 'right-on-top' }, 'cut for the left hand on top'],
    ['an instrument that nobody knows', { model: 'saw' }, 'has no such instrument'],
    ['a model of no studio', { model: '7b1f3c9e-0000-4000-8000-000000000000' }, 'has no such instrument'],
    ['a note that it does not have', { knownNotes: ['h9'] }, 'not “h9”'],
    ['a school of another family', { schools: { 'd-throw': 'heavy' } }, 'has no choice'],
    ['a pitch of another instrument', { referenceHertz: 300 }, 'can be tuned between'],
    ['a fraction that is none', { tuning: { kind: 'ratios', ratios: { b5: 'x' } } }, 'Write a ratio as a fraction'],
  ])('is not saved with %s', async (_, change, text) => {
    const before = (await ada.get('/api/instruments').expect(200)).text;
    const { status, body } = await ada.post('/api/instruments', { ...settings, studentId: pim, ...change });
    expect([422, 400]).toContain(status);
    expect(detailOf(body)).toContain(text);
    expect((await ada.get('/api/instruments').expect(200)).text).toBe(before);
  });

  it('is put away, named there, and comes back', async () => {
    const { id } = await add({ name: 'Away' });
    await ada.remove(`/api/instruments/${id}`).expect(204);
    const { items } = (await ada.get('/api/put-away').expect(200)).body as Page<PutAway>;
    expect(items[0]).toMatchObject({ kind: 'instrument', name: 'Away' });
    await ada.post(`/api/instruments/${id}/restore`).expect(204);
    expect((await ada.get('/api/instruments').expect(200)).text).toContain('Away');
  });

  it('is seen by its student and by no other', async () => {
    const oda = ((await ada.post('/api/students', { alias: 'Oda' }).expect(201)).body as { id: string }).id;
    await add({ studentId: oda, name: 'Oda’s own' });
    const { address } = (await ada.post(`/api/students/${oda}/link`).expect(201)).body as { address: string };
    const tablet = await visitByLink(server.app, address);
    const names = async (path: string): Promise<string[]> => ((await tablet.get(path).expect(200)).body as Page<HeldInstrument>).items.map(({ name }) => name);
    expect(await names('/api/instruments')).toEqual(['Oda’s own']);
    expect(await names(`/api/instruments?student=${pim}`)).toEqual([]);
  });

  it('goes with its student, in every table', async () => {
    const fen = ((await ada.post('/api/students', { alias: 'Fen' }).expect(201)).body as { id: string }).id;
    await add({ studentId: fen, name: 'Whistle of Fennimore' });
    await ada.remove(`/api/put-away/students/${fen}`).expect(204);
    for (const table of ['instrument', 'audit_entry', 'kept_answer']) {
      const rows = await server.dataSource.query<unknown[]>(`SELECT 1 FROM ${table} t WHERE t::text LIKE '%Fennimore%'`);
      expect([table, rows]).toEqual([table, []]);
    }
  });
});

describe('a model of the studio', () => {
  const own = { instrument: { ...practiceChanter, name: 'Tarn chanter', madeFrom: 'practice-chanter' } };

  it('has tunes and sheets of its own, and is kept while they are', async () => {
    const model = (await ada.post('/api/models', own).expect(201)).body as OwnModel;
    const abc = 'X:1\nT:Hers\nM:4/4\nL:1/4\nK:HP\nA c e a|\n';
    const sent = ada.agent.post(`/api/tunes/import?instrument=${model.id}`).set(tokenHeader, ada.token).set('content-type', 'text/plain').send(abc);
    const [tune] = ((await sent.expect(201)).body as ImportResult).saved;
    expect(tune.instrument).toBe(model.id);
    const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };
    const sheet = { studentId: pim, tuneId: tune.id, instrument: model.id, title: 'On Tarn', note: '', lines: [line] };
    const { id } = (await ada.post('/api/sheets', sheet).expect(201)).body as { id: string };
    expect((await ada.get(`/api/sheets/${id}/lines.abc`).expect(200)).text).toContain('c e c e');
    expect(detailOf((await ada.remove(`/api/models/${model.id}`).expect(409)).body)).toContain('in use (tunes and sheets: 2)');
  });

  it('can be played, and is kept while somebody does', async () => {
    const model = (await ada.post('/api/models', own).expect(201)).body as OwnModel;
    expect(model.instrument.id).toBe(model.id);
    const held = await add({ model: model.id, name: 'On Tarn', knownNotes: ['low-a'] });
    expect(detailOf((await ada.remove(`/api/models/${model.id}`).expect(409)).body)).toContain('One instrument is of this model');
    await ada.remove(`/api/instruments/${held.id}`).expect(204);
    await ada.remove(`/api/models/${model.id}`).expect(204);
    await ada.post(`/api/models/${model.id}/restore`).expect(204);
  });

  it.each([
    [
      'two notes with one pattern',
      { fingerings: practiceChanter.fingerings.map((each) => ({ ...each, pattern: practiceChanter.fingerings[0].pattern })) },
      'have the same fingering',
    ],
    ['a finger that is not there', { holes: practiceChanter.holes.map((hole) => ({ ...hole, finger: 'L9' })) }, 'L9, which does not exist'],
  ])('is refused with %s', async (_, change, text) => {
    const { body } = await ada.post('/api/models', { instrument: { ...practiceChanter, ...change } }).expect(422);
    expect(detailOf(body)).toContain(text);
  });

  it.each([
    ['200 holes', { holes: Array.from({ length: 200 }, (_, index) => ({ id: `h${index}`, finger: 'T' })) }],
    ['an unknown field', { colour: 'red' }],
    ['HTML in a remark', { checks: ['<script>alert(1)</script>'] }],
    ['a negative frequency', { reference: { ...practiceChanter.reference, hertz: -3 } }],
  ])('is refused with %s, in a sentence', async (_, change) => {
    const { body } = await ada.post('/api/models', { instrument: { ...practiceChanter, ...change } }).expect(400);
    expect(detailOf(body).length).toBeGreaterThan(20);
  });
});

describe('a confirmed fingering', () => {
  const cNatural = { model: 'whistle-d', note: 'c6', pattern: [0, 1, 1, 0, 1, 0], isFirst: false, isHidden: false, remark: '', forNow: null };

  it('has its author and day, and what is said again replaces what was said', async () => {
    const first = (await ada.post('/api/fingerings', cNatural).expect(201)).body as StudioFingering;
    expect(first).toMatchObject({ by: expect.any(String) as string, on: new Date().toISOString().slice(0, 10) });
    const forNow = { eventually: [0, 1, 1, 0, 0, 0], until: '2027-01-10' };
    await ada.post('/api/fingerings', { ...cNatural, remark: 'for the reel', forNow }).expect(201);
    const { items } = (await ada.get('/api/fingerings?model=whistle-d').expect(200)).body as Page<StudioFingering>;
    expect(items).toHaveLength(1);
    expect(items[0]).toMatchObject({ remark: 'for the reel', forNow });
    await ada.remove(`/api/fingerings/${items[0].id}`).expect(204);
    expect((await ada.get('/api/fingerings?model=whistle-d').expect(200)).body).toEqual({ items: [], next: null });
  });

  it('is not kept for the fingers of another note, too few holes, or an unknown instrument', async () => {
    const { pattern } = instrumentById('whistle-d').fingerings.find(({ note }) => note === 'g5') ?? { pattern: [] };
    expect(detailOf((await ada.post('/api/fingerings', { ...cNatural, pattern }).expect(422)).body)).toContain('These are the fingers of G');
    expect(detailOf((await ada.post('/api/fingerings', { ...cNatural, pattern: [0, 1] }).expect(422)).body)).toContain('has 6 holes');
    await ada.post('/api/fingerings', { ...cNatural, model: 'saw' }).expect(422);
    await ada.post('/api/fingerings', { ...cNatural, pattern: [0, 1, 7, 0, 1, 0] }).expect(400);
  });
});
