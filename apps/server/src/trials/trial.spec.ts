import { hasMusic, tokenHeader, type Page, type SheetDetail, type Trial, type TuneDetail } from '@zelpit/contract';
import { practiceChanter } from '@zelpit/core';
import { addStudio, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;
let pim: string;
let tablet: Visitor;

const ear = { kind: 'ear', from: 'b', to: 'e', thresholdMs: 18.2, lowMs: 15, highMs: 22, right: 33, asked: 41 };
const fingers = {
  kind: 'fingers',
  from: 'b',
  to: 'e',
  verdicts: { clean: 30, low: 8, run: 0, 'over-open': 2 },
  meanMs: 9.5,
  timing: { sigma: 14.2, sigmaOf: { R3: 19 }, biasOf: { R3: -6.5 }, rho: 0.5, lead: 3 },
  fingers: [{ finger: 'R3', bias: { value: -6.5, error: 2.1 }, sigma: { value: 19, error: 2.4 }, count: 40 }],
  isTaken: true,
};
const foretold = { kind: 'foretold', title: 'Evening over Skellow Tarn', bars: 2, broke: 1, others: 14, othersBroke: 2 };
const trial = (result: object, studentId: string | null = pim) => ({ studentId, model: 'practice-chanter', result });

beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  pim = ((await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body as { id: string }).id;
  const { body } = await ada.post(`/api/students/${pim}/link`).expect(201);
  tablet = await visitByLink(server.app, (body as { address: string }).address);
});
afterAll(() => server.close());

describe('results of trials', () => {
  it('are kept newest first, by kind, and a student keeps the own ones from the tablet', async () => {
    await ada.post('/api/trials', trial(ear)).expect(201);
    const kept = (await tablet.post('/api/trials', trial(fingers, null)).expect(201)).body as Trial;
    expect(kept).toMatchObject({ studentId: pim, result: fingers });
    const { items } = (await ada.get(`/api/trials?student=${pim}`).expect(200)).body as Page<Trial>;
    expect(items.map(({ result }) => result.kind)).toEqual(['fingers', 'ear']);
    expect(((await tablet.get('/api/trials?kind=ear').expect(200)).body as Page<Trial>).items).toHaveLength(1);
  });

  it('are asked for one student, and only those taken for the player', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Runa' }).expect(201)).body as { id: string };
    await ada.post('/api/trials', trial(ear, id)).expect(201);
    const { id: taken } = (await ada.post('/api/trials', trial(fingers, id)).expect(201)).body as Trial;
    await ada.post('/api/trials', trial({ ...fingers, isTaken: false }, id)).expect(201);
    const { items } = (await ada.get(`/api/trials?student=${id}&kind=fingers&taken=true&limit=1`).expect(200)).body as Page<Trial>;
    expect(items.map((each) => each.id)).toEqual([taken]);
    await ada.get('/api/trials?taken=perhaps').expect(400);
  });

  it('say how often it was right what was foretold of takes', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Sela' }).expect(201)).body as { id: string };
    await ada.post('/api/trials', trial(ear, id)).expect(201);
    await ada.post('/api/trials', trial(foretold, id)).expect(201);
    const { items } = (await ada.get(`/api/trials?student=${id}&kind=foretold`).expect(200)).body as Page<Trial>;
    expect(items.map(({ result }) => result)).toEqual([foretold]);
  });

  it('of another student are not for a student to keep or see', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Tove' }).expect(201)).body as { id: string };
    await ada.post('/api/trials', trial(ear, id)).expect(201);
    await tablet.post('/api/trials', trial(ear, id)).expect(403);
    expect(((await tablet.get(`/api/trials?student=${id}`).expect(200)).body as Page<Trial>).items).toEqual([]);
  });

  it.each([
    ['a note that the instrument does not have', { ...ear, to: 'z' }],
    ['a finger that it does not have', { ...fingers, fingers: [{ ...fingers.fingers[0], finger: 'L4' }] }],
    ['a deviation that nobody has', { ...fingers, timing: { ...fingers.timing, sigma: 9000 } }],
    ['more bars that broke than were foretold', { ...foretold, broke: 3 }],
    ['a kind that there is not', { kind: 'nose' }],
    ['more than is asked for', { ...ear, extra: 1 }],
  ])('%s is refused, and nothing is kept', async (_, result) => {
    const count = async (): Promise<number> => ((await ada.get('/api/trials').expect(200)).body as Page<Trial>).items.length;
    const before = await count();
    const { status } = await ada.post('/api/trials', trial(result));
    expect([400, 422]).toContain(status);
    expect(await count()).toBe(before);
  });

  it('go with the student who is deleted for good', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'Gone' }).expect(201)).body as { id: string };
    await ada.post('/api/trials', trial(ear, id)).expect(201);
    await ada.remove(`/api/students/${id}`).expect(204);
    await ada.remove(`/api/put-away/students/${id}`).expect(204);
    const { items } = (await ada.get('/api/trials').expect(200)).body as Page<Trial>;
    expect(items.filter(({ studentId }) => studentId === id)).toEqual([]);
  });
});

describe('a line with its own music', () => {
  const exercise = {
    title: 'B and E, tied',
    musical: 'Even.',
    physical: 'Close.',
    focus: 'timing',
    notes: [
      { note: 'b', twelfths: 24, isTied: true },
      { note: 'b', twelfths: 12 },
      { note: 'e', twelfths: 12, graceNotes: ['high-g'] },
    ],
  };
  const sheet = (own: object) => ({
    ...{ studentId: pim, tuneId: null, instrument: 'practice-chanter', title: 'Own', note: '' },
    lines: [{ home: 'b', other: 'e', repetitions: 4, tempo: 60, point: '', exercise: own }],
  });

  it('stands on a sheet as it was sent, and goes out as ABC', async () => {
    const { id, lines } = (await ada.post('/api/sheets', sheet(exercise)).expect(201)).body as SheetDetail;
    expect(lines.filter(hasMusic)[0].exercise).toEqual(exercise);
    const { text } = await ada.get(`/api/sheets/${id}/lines.abc`).expect(200);
    expect(text).toContain('T:B and E, tied');
    expect(text).toContain('B2- B {g}e |]');
  });

  it('is refused where its notes are not the instrument’s, or none', async () => {
    await ada
      .post(
        '/api/sheets',
        sheet({
          ...exercise,
          notes: [
            { note: 'q', twelfths: 12 },
            { note: 'b', twelfths: 12 },
          ],
        }),
      )
      .expect(422);
    await ada.post('/api/sheets', sheet({ ...exercise, notes: [] })).expect(400);
    await ada.post('/api/sheets', sheet({ ...exercise, focus: 'both' })).expect(400);
  });
});

describe('pinned fingerings', () => {
  it('are kept with the tune; what cannot be is refused with a sentence', async () => {
    await ada.agent
      .post('/api/tunes/import')
      .set(tokenHeader, ada.token)
      .set('content-type', 'text/vnd.abc')
      .send('X:1\nT:Pins\nM:4/4\nL:1/4\nK:HP\nA g a e|\n');
    const { items } = (await ada.get('/api/tunes?find=Pins').expect(200)).body as Page<{ id: string }>;
    const path = `/api/tunes/${items[0].id}/pins`;
    const pin = { note: 'high-g', pattern: practiceChanter.fingerings[0].pattern };
    expect((await ada.put(path, { pins: [pin], version: 1 }).expect(200)).body as TuneDetail).toMatchObject({ pins: [pin], pinsVersion: 2, version: 1 });
    const twice = await ada.put(path, { pins: [pin, pin], version: 2 }).expect(422);
    expect(twice.body).toMatchObject({ detail: expect.stringContaining('two fixed fingerings') });
    const short = await ada.put(path, { pins: [{ ...pin, pattern: [1] }], version: 2 }).expect(422);
    expect(short.body).toMatchObject({ detail: expect.stringContaining('8 holes') });
    expect(((await ada.get(`/api/tunes/${items[0].id}`).expect(200)).body as TuneDetail).pins).toEqual([pin]);
    // Issue 12: a second window that read them before does not write over them, and the text keeps its own version.
    const late = await ada.put(path, { pins: [], version: 1 }).expect(409);
    expect(late.body).toMatchObject({ type: 'urn:zelpit:problem:changed-elsewhere' });
    expect(((await ada.get(`/api/tunes/${items[0].id}`).expect(200)).body as TuneDetail).pins).toEqual([pin]);
  });
});
