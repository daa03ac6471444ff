import { codeSchema, hasMusic, type SheetDetail } from '@zelpit/contract';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;
let bo: Visitor;
let studentId: string;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  await addStudio(server.dataSource, 'bo@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  bo = await visit(server.app, 'bo@studio.example');
  studentId = (await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body.id as string;
});
afterAll(() => server.close());

const line = (home: string, other: string, more: object = {}) => ({ home, other, repetitions: 8, tempo: null, point: '', ...more });
const newSheet = async (lines = [line('c', 'e'), line('low-a', 'c')]): Promise<SheetDetail> =>
  (await ada.post('/api/sheets', { studentId, tuneId: null, instrument: 'practice-chanter', title: 'Ten minutes', note: '', lines }).expect(201))
    .body as SheetDetail;
const save = (sheet: SheetDetail, change: object) =>
  ada.put(`/api/sheets/${sheet.id}`, {
    title: sheet.title,
    note: sheet.note,
    version: sheet.version,
    lines: sheet.lines.map(({ code: _, ...rest }) => rest),
    ...change,
  });

describe('a sheet', () => {
  it('keeps its lines in order, each with a short code', async () => {
    const sheet = await newSheet();
    expect(sheet.lines.filter(hasMusic).map((each) => `${each.home}-${each.other}`)).toEqual(['c-e', 'low-a-c']);
    sheet.lines.forEach((each) => expect(codeSchema.safeParse(each.code).success).toBe(true));
    expect((await ada.get(`/api/sheets/${sheet.id}`)).body).toEqual(sheet);
    expect((await ada.get('/api/sheets')).body.items).toContainEqual(
      expect.objectContaining({ id: sheet.id, lineCount: 2, student: { id: studentId, alias: 'Pim' } }),
    );
  });

  it('keeps codes when lines are reordered, changed, added and left out', async () => {
    const sheet = await newSheet();
    const [first, second] = sheet.lines.map(({ code: _, ...rest }) => rest);
    const saved = (await save(sheet, { title: 'Week 2', lines: [{ ...second, tempo: 60, point: 'little finger waits' }, line('b', 'e'), first] }).expect(200))
      .body as SheetDetail;
    expect(saved.title).toBe('Week 2');
    expect(saved.version).toBe(2);
    expect(saved.lines[0]).toEqual({ ...sheet.lines[1], tempo: 60, point: 'little finger waits' });
    expect(saved.lines[2].code).toBe(sheet.lines[0].code);
    expect((await save(saved, { lines: [] }).expect(200)).body.lines).toEqual([]);
  });

  it('keeps the fingers in which a line is practised, through its code and a later save', async () => {
    const fingering = [{ note: 'high-g', pattern: [1, 0, 0, 0, 1, 1, 0, 0] }];
    const sheet = await newSheet([line('e', 'high-g', { fingering }), line('e', 'high-g')]);
    expect(sheet.lines.filter(hasMusic).map((each) => each.fingering)).toEqual([fingering, null]);
    expect((await ada.get(`/api/lines/${sheet.lines[0].code}`)).body.line.fingering).toEqual(fingering);
    const saved = (await save(sheet, {}).expect(200)).body as SheetDetail;
    expect(saved.lines).toEqual(sheet.lines);
    const answer = await ada.get(`/api/sheets/${sheet.id}/lines.abc`).expect(200);
    expect(answer.text ?? String(answer.body)).toMatch(/T:E to high G \(fingering 2\)[\s\S]*T:E to high G/);
  });

  it('keeps the speeds of a drill as one line with one code; speeds that are none are refused', async () => {
    const sheet = await newSheet([line('e', 'c', { repetitions: 1, tempo: 40, speeds: [40, 50, 60] }), line('b', 'e')]);
    expect(sheet.lines.map((each) => each.speeds)).toEqual([[40, 50, 60], null]);
    expect((await ada.get(`/api/lines/${sheet.lines[0].code}`)).body.line.speeds).toEqual([40, 50, 60]);
    expect(((await save(sheet, {}).expect(200)).body as SheetDetail).lines).toEqual(sheet.lines);
    for (const speeds of [[40], [], [40, 301], [40, 50.5], Array.from({ length: 13 }, (_, index) => 40 + index), 'fast'])
      await save(sheet, { lines: [line('e', 'c', { speeds })] }).expect(400);
    expect((await ada.get(`/api/sheets/${sheet.id}/lines.abc`)).text).toContain('N:40, 50, 60 beats a minute, until the first slip');
  });

  it('is not saved over a later version', async () => {
    const sheet = await newSheet();
    await save(sheet, { title: 'Mine' }).expect(200);
    const answer = await save(sheet, { title: 'Late' }).expect(409);
    expect(answer.body.detail).toMatch(/changed somewhere else/);
    expect((await ada.get(`/api/sheets/${sheet.id}`)).body.title).toBe('Mine');
  });

  it.each([
    ['a note that the chanter lacks', { lines: [line('c', 'h')] }, 422, /not “h”/],
    ['a line from a note to itself', { lines: [line('c', 'c')] }, 422, /here both are C/],
    ['fingers for other holes', { lines: [line('c', 'e', { fingering: [{ note: 'e', pattern: [1, 1] }] })] }, 422, /has 8 holes; a fingering of E with 2 came/],
    [
      'fingers of a note that the line does not play',
      { lines: [line('c', 'e', { fingering: [{ note: 'f', pattern: Array(8).fill(1) }] })] },
      422,
      /does not play it/,
    ],
    ['a hole that is more than covered', { lines: [line('c', 'e', { fingering: [{ note: 'e', pattern: Array(8).fill(2) }] })] }, 400, /./],
    ['a tempo out of range', { lines: [line('c', 'e', { tempo: 5 })] }, 400, /At least 20 beats/],
    ['an empty title', { title: ' ' }, 400, /Enter a title/],
    ['too many lines', { lines: Array(61).fill(line('c', 'e')) }, 400, /at most 60 lines/],
  ])('refuses %s and stays as it was', async (_, change, status, detail) => {
    const sheet = await newSheet();
    const answer = await save(sheet, change).expect(status);
    expect(answer.body.detail).toMatch(detail);
    expect((await ada.get(`/api/sheets/${sheet.id}`)).body).toEqual(sheet);
  });

  it('is nobody else’s, nor are its student and its lines', async () => {
    const sheet = await newSheet();
    await bo.get(`/api/sheets/${sheet.id}`).expect(404);
    await bo.put(`/api/sheets/${sheet.id}`, { title: 'x', note: '', version: 1, lines: [] }).expect(404);
    await bo.remove(`/api/sheets/${sheet.id}`).expect(404);
    await bo.get(`/api/sheets/${sheet.id}/lines.abc`).expect(404);
    await bo.get(`/api/lines/${sheet.lines[0].code}`).expect(404);
    await bo.put(`/api/students/${studentId}`, { alias: 'Mine now', version: 1 }).expect(404);
    await bo.post('/api/sheets', { studentId, tuneId: null, instrument: 'practice-chanter', title: 'x', note: '', lines: [] }).expect(404);
    expect((await bo.get('/api/sheets')).body.items).toEqual([]);
    expect((await bo.get('/api/students')).body.items).toEqual([]);
  });

  it('opens a line by its code, however it is typed', async () => {
    const sheet = await newSheet();
    const { body } = await ada.get(`/api/lines/${sheet.lines[0].code.toLowerCase()}`).expect(200);
    expect(body).toMatchObject({ line: { home: 'c', other: 'e' }, sheet: { id: sheet.id }, student: { id: studentId, alias: 'Pim' } });
    expect((await ada.get('/api/lines/00')).body.detail).toMatch(/No line in this studio has that code/);
  });

  it('gives its lines as ABC', async () => {
    const sheet = await newSheet();
    const answer = await ada.get(`/api/sheets/${sheet.id}/lines.abc`).expect(200);
    expect(answer.headers['content-disposition']).toContain('Ten minutes.abc');
    expect(answer.text ?? String(answer.body)).toMatch(/T:C to E[\s\S]*K:HP\nc e c e/);
  });

  it('comes back after it was put away', async () => {
    const sheet = await newSheet();
    await ada.remove(`/api/sheets/${sheet.id}`).expect(204);
    await ada.get(`/api/sheets/${sheet.id}`).expect(404);
    await ada.get(`/api/lines/${sheet.lines[0].code}`).expect(404);
    await ada.post(`/api/sheets/${sheet.id}/restore`).expect(204);
    expect((await ada.get(`/api/sheets/${sheet.id}`)).body.lines).toEqual(sheet.lines);
  });
});

describe('students', () => {
  it('are added, renamed, put away and brought back; sheets keep their name', async () => {
    const id = (await ada.post('/api/students', { alias: ' Oda ' }).expect(201)).body.id as string;
    await ada.put(`/api/students/${id}`, { alias: 'Oda B', version: 1 }).expect(200);
    await ada.remove(`/api/students/${id}`).expect(204);
    expect((await ada.get('/api/students')).body.items).not.toContainEqual(expect.objectContaining({ id }));
    await ada.post(`/api/students/${id}/restore`).expect(204);
    expect((await ada.get('/api/students')).body.items).toContainEqual(
      expect.objectContaining({ id, alias: 'Oda B', consent: null, movements: [], version: 2 }),
    );
    await ada.post('/api/students', { alias: '' }).expect(400);
  });
});
