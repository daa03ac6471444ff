import { onceHeader, tokenHeader, type Page, type SheetDetail, type Student, type TuneSummary } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  await addStudio(server.dataSource, 'bea@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
});
afterAll(() => server.close());

const aliases = async (visitor: Visitor): Promise<string[]> => ((await visitor.get('/api/students')).body as Page<Student>).items.map(({ alias }) => alias);

describe('a write that comes again', () => {
  it('with the same key is done once and answered the same', async () => {
    const key = randomUUID();
    const first = await ada.post('/api/students', { alias: 'Pim' }).set(onceHeader, key).expect(201);
    const again = await ada.post('/api/students', { alias: 'Pim' }).set(onceHeader, key).expect(201);
    expect(again.body).toEqual(first.body);
    expect((await aliases(ada)).filter((alias) => alias === 'Pim')).toHaveLength(1);
  });

  it('ten times at once is done once, and all get the same answer', async () => {
    const key = randomUUID();
    const answers = await Promise.all(Array.from({ length: 10 }, () => ada.post('/api/students', { alias: 'Oda' }).set(onceHeader, key)));
    expect(new Set(answers.map(({ body }) => (body as Student).id)).size).toBe(1);
    expect(answers.map(({ status }) => status)).toEqual(Array(10).fill(201));
    expect((await aliases(ada)).filter((alias) => alias === 'Oda')).toHaveLength(1);
  });

  it('with another content under the same key is refused, and nothing is changed', async () => {
    const key = randomUUID();
    await ada.post('/api/students', { alias: 'Wren' }).set(onceHeader, key).expect(201);
    const refused = await ada.post('/api/students', { alias: 'Jorun' }).set(onceHeader, key).expect(422);
    expect((refused.body as { detail: string }).detail).toContain('This key belongs to another write.');
    expect(await aliases(ada)).not.toContain('Jorun');
  });

  it('was refused before is tried anew: a refusal changed nothing, so it is not kept', async () => {
    const { body } = await ada.post('/api/students', { alias: 'Sorrel' }).expect(201);
    const { id, version } = body as Student;
    await ada.put(`/api/students/${id}`, { alias: 'Sorrel B', version }).expect(200);
    const key = randomUUID();
    await ada.put(`/api/students/${id}`, { alias: 'Sorrel C', version }).set(onceHeader, key).expect(409);
    await ada
      .put(`/api/students/${id}`, { alias: 'Sorrel C', version: version + 1 })
      .set(onceHeader, key)
      .expect(200);
  });

  it('under a key of somebody else’s is a write of one’s own', async () => {
    const bea = await visit(server.app, 'bea@studio.example');
    const key = randomUUID();
    await ada.post('/api/students', { alias: 'Tarn' }).set(onceHeader, key).expect(201);
    await bea.post('/api/students', { alias: 'Tarn' }).set(onceHeader, key).expect(201);
    expect(await aliases(bea)).toEqual(['Tarn']);
  });

  it('needs a UUID as its key', async () => {
    await ada.post('/api/students', { alias: 'X' }).set(onceHeader, 'my key').expect(400);
  });
});

describe('a list', () => {
  beforeAll(async () => {
    const book = Array.from({ length: 25 }, (_, index) => `X:${index}\nT:Tune ${String(index).padStart(2, '0')} 100%\nM:4/4\nL:1/4\nK:HP\nA c e a|\n`).join(
      '\n',
    );
    await ada.agent.post('/api/tunes/import').set(tokenHeader, ada.token).set('content-type', 'text/plain').send(book).expect(201);
  });

  it('comes page after page, each thing once, also where things are added meanwhile', async () => {
    const seen: string[] = [];
    let after: string | null = null;
    do {
      const sign: string = after === null ? '' : `&after=${encodeURIComponent(after)}`;
      const { body } = await ada.get(`/api/tunes?limit=10${sign}`).expect(200);
      const page = body as Page<TuneSummary>;
      seen.push(...page.items.map(({ title }) => title));
      after = page.next;
      if (seen.length === 10) {
        const late = 'X:1\nT:A late tune\nM:4/4\nL:1/4\nK:HP\nA|\n';
        await ada.agent.post('/api/tunes/import').set(tokenHeader, ada.token).set('content-type', 'text/plain').send(late).expect(201);
      }
    } while (after !== null);
    expect(seen).toEqual(Array.from({ length: 25 }, (_, index) => `Tune ${String(index).padStart(2, '0')} 100%`));
  });

  it('is filtered by words, in which % and _ mean themselves', async () => {
    const find = async (words: string): Promise<number> =>
      ((await ada.get(`/api/tunes?find=${encodeURIComponent(words)}`)).body as Page<TuneSummary>).items.length;
    expect(await find('tune 1')).toBe(10);
    expect(await find('100%')).toBe(25);
    expect(await find('1_0')).toBe(0);
    expect(await find("'; DROP TABLE tune; --")).toBe(0);
  });

  it.each(['limit=0', 'limit=9999', 'limit=many', 'after=nonsense', `after=${Buffer.from('["a","b"]').toString('base64url')}`])(
    'refuses %s with a sentence',
    async (query) => {
      const { body, status } = await ada.get(`/api/tunes?${query}`);
      expect(status).toBe(400);
      expect((body as { detail: string }).detail).not.toBe('');
    },
  );
});

describe('what was read before', () => {
  it('is not sent again while it is the same, and is as soon as it changed', async () => {
    const { body } = await ada.post('/api/students', { alias: 'Etta' }).expect(201);
    const sheet = { studentId: (body as Student).id, tuneId: null, instrument: 'practice-chanter', title: 'Week', note: '', lines: [] };
    const made = (await ada.post('/api/sheets', sheet).expect(201)).body as SheetDetail;
    const path = `/api/sheets/${made.id}`;
    const { etag } = (await ada.get(path).expect(200)).headers as { etag: string };
    expect(etag).toMatch(/^W\/"/);
    await ada.get(path).set('if-none-match', etag).expect(304);
    await ada.put(path, { title: 'Week 2', note: '', lines: [], version: made.version }).expect(200);
    await ada.get(path).set('if-none-match', etag).expect(200);
  });
});

describe('lines with ids of their own', () => {
  const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };

  it('keep the id they were sent with, and never take a line of another sheet', async () => {
    const { body } = await ada.post('/api/students', { alias: 'Ivo' }).expect(201);
    const sheet = { studentId: (body as Student).id, tuneId: null, instrument: 'practice-chanter', title: 'One', note: '', lines: [] };
    const one = (await ada.post('/api/sheets', sheet).expect(201)).body as SheetDetail;
    const other = (await ada.post('/api/sheets', sheet).expect(201)).body as SheetDetail;
    const id = randomUUID();
    const save = async (of: SheetDetail, version: number): Promise<SheetDetail> =>
      (await ada.put(`/api/sheets/${of.id}`, { title: of.title, note: '', version, lines: [{ ...line, id, point: of.id }] }).expect(200)).body as SheetDetail;
    const [kept] = (await save(one, 1)).lines;
    expect(kept.id).toBe(id);
    const [strange] = (await save(other, 1)).lines;
    expect(strange.id).not.toBe(id);
    expect(((await ada.get(`/api/sheets/${one.id}`)).body as SheetDetail).lines).toEqual([kept]);
  });

  it('come back with their code after they were taken off', async () => {
    const { body } = await ada.post('/api/students', { alias: 'Una' }).expect(201);
    const sheet = { studentId: (body as Student).id, tuneId: null, instrument: 'practice-chanter', title: 'One', note: '', lines: [line] };
    const made = (await ada.post('/api/sheets', sheet).expect(201)).body as SheetDetail;
    const [first] = made.lines;
    await ada.put(`/api/sheets/${made.id}`, { title: 'One', note: '', version: 1, lines: [] }).expect(200);
    await ada.get(`/api/lines/${first.code}`).expect(404);
    const { code: _, ...back } = first;
    const again = (await ada.put(`/api/sheets/${made.id}`, { title: 'One', note: '', version: 2, lines: [back] }).expect(200)).body as SheetDetail;
    expect(again.lines).toEqual([first]);
  });
});
