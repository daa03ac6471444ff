import type { MovementDefinition } from '@zelpit/core';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;

const own: MovementDefinition = {
  id: 'stair',
  names: ['stair'],
  parts: [{ part: 'opener' }, { part: 'grace', written: 'd' }],
  after: ['grace-note'],
  simpler: [],
};
const keep = (definition: object | null, movement = 'stair') => ada.post('/api/movements', { movement, definition });
const listed = async (): Promise<{ movement: string; definition: object | null; by: string; id: string }[]> =>
  ((await ada.get('/api/movements').expect(200)).body as { items: { movement: string; definition: object | null; by: string; id: string }[] }).items;

beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
});
afterAll(() => server.close());

describe('movements of a studio', () => {
  it('a built-in one is confirmed, an own one kept with its author; what was said before is replaced', async () => {
    await keep(null, 'grip').expect(201);
    await keep(own).expect(201);
    await keep({ ...own, names: ['stair step'] }).expect(201);
    expect(await listed()).toEqual([
      expect.objectContaining({ movement: 'grip', definition: null, by: 'A Teacher' }),
      expect.objectContaining({ movement: 'stair', definition: { ...own, names: ['stair step'] } }),
    ]);
  });

  it('a built-in one that the studio plays otherwise is taken back', async () => {
    const { body } = await keep({ ...own, id: 'doubling' }, 'doubling').expect(201);
    await ada.remove(`/api/movements/${(body as { id: string }).id}`).expect(204);
    expect((await listed()).map(({ movement }) => movement)).not.toContain('doubling');
    await ada.remove(`/api/movements/${(body as { id: string }).id}`).expect(404);
  });

  it.each([
    ['a built-in one that there is not', 'somersault', null, /no built-in movement/, 422],
    ['another id than its definition’s', 'grip', own, /differ/, 400],
    ['a note that the chanter has not', 'stair', { ...own, arrivals: ['h'] }, /names h, which the practice chanter does not have/, 422],
    ['no elements', 'stair', { ...own, parts: [] }, /at least one element/, 400],
    ['an unknown element', 'stair', { ...own, parts: [{ part: 'leap' }] }, /./, 400],
    ['a name that is empty', 'stair', { ...own, names: ['  '] }, /needs a name/, 400],
    ['thirteen elements', 'stair', { ...own, parts: Array.from({ length: 13 }, () => ({ part: 'theme' })) }, /at most 12/, 400],
  ])('%s is refused and nothing is changed', async (_, movement, definition, saidSo, status) => {
    const before = await listed();
    const { body } = await keep(definition, movement).expect(status);
    expect(JSON.stringify(body)).toMatch(saidSo);
    expect(await listed()).toEqual(before);
  });
});

describe('how a studio plays its movements', () => {
  it('is the usual way at first, is saved, and a stale save is refused', async () => {
    const { body } = await ada.get('/api/movement-choices').expect(200);
    expect(body).toMatchObject({ settings: { fromLowest: 'short', beat: 'first' }, syllables: {}, version: 1 });
    const sent = { settings: { fromLowest: 'full', lightTaps: ['d'] }, syllables: { c: { note: 'co', grace: '' } }, version: 1 };
    const saved = await ada.put('/api/movement-choices', sent).expect(200);
    expect(saved.body).toMatchObject({ settings: { fromLowest: 'full', lightTaps: ['d'], secondTap: 'tap' }, syllables: sent.syllables, version: 2 });
    await ada.put('/api/movement-choices', sent).expect(409);
  });

  it.each([
    [{ settings: { fromLowest: 'sideways' }, syllables: {}, version: 2 }],
    [{ settings: {}, syllables: { c: { note: 'far too long a syllable', grace: '' } }, version: 2 }],
    [{ settings: { twoFingers: ['h'] }, syllables: {}, version: 2 }],
    [{ settings: {}, syllables: {}, ornaments: { 'whistle-d': { cutOn: { zz: 'L3' } } }, version: 2 }],
    [{ settings: {}, syllables: {}, ornaments: { 'whistle-d': { cutOn: { c6: 'Q9' } } }, version: 2 }],
    [{ settings: {}, syllables: {}, ornaments: { 'no-such-whistle': {} }, version: 2 }],
    [{ settings: {}, syllables: {} }],
  ])('%j is refused', async (sent) => {
    const { status } = await ada.put('/api/movement-choices', sent);
    expect([400, 404, 422]).toContain(status);
  });
});

describe('ornaments', () => {
  it('are confirmed under their own sign, and their fingers chosen by instrument and note', async () => {
    await keep(null, 'ornament-long-roll').expect(201);
    await keep(null, 'trill-recorder-soprano-german-g5').expect(201);
    await keep(null, 'ornament-somersault').expect(422);
    const ornaments = { 'whistle-d': { cuts: 'fixed', cutOn: { c6: 'L3' }, cranOn: ['e5'] } };
    const { body } = await ada.get('/api/movement-choices').expect(200);
    const { version } = body as { version: number };
    const saved = await ada.put('/api/movement-choices', { settings: {}, syllables: {}, ornaments, version }).expect(200);
    expect(saved.body).toMatchObject({ ornaments: { 'whistle-d': { cuts: 'fixed', cutOn: { c6: 'L3' }, tapOn: {}, cranOn: ['e5'] } } });
  });
});

describe('what a student has', () => {
  it('is kept with the student, and stays where nothing is said of it', async () => {
    const { body } = await ada.post('/api/students', { alias: 'Pim', movements: ['grip'] }).expect(201);
    const { id } = body as { id: string };
    const saved = await ada.put(`/api/students/${id}`, { alias: 'Pimm', version: 1 }).expect(200);
    expect(saved.body).toMatchObject({ alias: 'Pimm', movements: ['grip'], version: 2 });
    await ada.put(`/api/students/${id}`, { alias: 'Pimm', movements: ['grip', 'stair'], version: 2 }).expect(200);
    await ada.put(`/api/students/${id}`, { alias: 'Pimm', movements: ['No Id'], version: 3 }).expect(400);
  });
});
