import { hasMusic, type SheetDetail } from '@zelpit/contract';
import { chunkOf, excerptOf, lineAbc, practiceChanter, readTune } from '@zelpit/core';
import { bring, take } from '../testing/archive-visits';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;
let studentId: string;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  studentId = (await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body.id as string;
});
afterAll(() => server.close());

const tune = readTune(practiceChanter, 'X:1\nT:Spare Buttons\nM:6/8\nL:1/8\nK:HP\n{g}e|{ag}a3 f2a|{gef}e2c {GdG}A3|]\n');
const found = chunkOf(practiceChanter, tune, { kind: 'bars', from: 2, to: 2 });
if (found.kind === 'none') throw new Error(found.reason);
const excerpt = { ...excerptOf('Spare Buttons', 'Bar 2', found.chunk.tune), rows: ['bare', 'one', 'full', 'count'], script: 'C to low A: a cross.' };
const chunk = { kind: 'chunk', home: 'c', other: 'low-a', repetitions: 4, tempo: 40, point: '', excerpt };
const words = { kind: 'words', text: 'Clap the tune, then sing it', repetitions: 2, tempo: null, point: 'steady' };
const add = (lines: readonly object[]) =>
  ada.post('/api/sheets', { studentId, tuneId: null, instrument: 'practice-chanter', title: 'Week 3', note: '', lines });

describe('items of a sheet', () => {
  it('are lines, pieces of a tune and words, each as it was sent, each with a code', async () => {
    const { body } = await add([{ home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' }, chunk, words]).expect(201);
    const sheet = body as SheetDetail;
    expect(sheet.lines.map(({ kind }) => kind)).toEqual(['line', 'chunk', 'words']);
    expect(sheet.lines[1]).toMatchObject(chunk);
    expect(sheet.lines[2]).toEqual({ ...words, speeds: null, details: null, id: expect.any(String) as string, code: expect.any(String) as string });
    for (const line of sheet.lines) expect((await ada.get(`/api/lines/${line.code}`).expect(200)).body.line).toEqual(line);
    const saved = await ada.put(`/api/sheets/${sheet.id}`, {
      title: 'Week 3',
      note: '',
      version: 1,
      lines: sheet.lines.map(({ code: _, ...line }) => line).reverse(),
    });
    expect((saved.body as SheetDetail).lines).toEqual([...sheet.lines].reverse());
  });

  it('go out as ABC in their own meter; words do not', async () => {
    const { id } = (await add([words, chunk]).expect(201)).body as SheetDetail;
    const { text } = await ada.get(`/api/sheets/${id}/lines.abc`).expect(200);
    expect(text).toContain('T:Bar 2 of Spare Buttons');
    expect(text).toContain('M:6/8');
    expect(text).toContain('a|{gef}e2c {GdG}A3|]');
    expect(text).not.toContain('Clap');
  });

  it('come back out of a backup', async () => {
    const { id } = (await add([chunk, words]).expect(201)).body as SheetDetail;
    const archive = await take(ada);
    await addStudio(server.dataSource, 'cy@studio.example');
    const cy = await visit(server.app, 'cy@studio.example');
    await bring(cy, archive);
    const sheets = (await cy.get('/api/sheets')).body.items as { id: string; title: string; lineCount: number }[];
    const details = await Promise.all(sheets.map(async (each) => (await cy.get(`/api/sheets/${each.id}`)).body as SheetDetail));
    const original = ((await ada.get(`/api/sheets/${id}`)).body as SheetDetail).lines.map(({ id: _, code: __, ...line }) => line);
    expect(details.map(({ lines }) => lines.map(({ id: _, code: __, ...line }) => line))).toContainEqual(original);
    const piece = details.flatMap(({ lines }) => lines.filter(hasMusic)).find(({ kind }) => kind === 'chunk');
    expect(piece === undefined ? '' : lineAbc(practiceChanter, piece)).toContain('{GdG}A3');
  });

  it.each([
    ['a chunk without a piece', { ...chunk, excerpt: null }, 400, /A chunk, a part and a tune have a piece of a tune/],
    ['a line with a piece', { ...chunk, kind: 'line' }, 400, /other lines have none/],
    ['a kind that nobody knows', { ...chunk, kind: 'dance' }, 400, /./],
    [
      'music that cannot be read',
      { ...chunk, excerpt: { ...excerpt, abc: 'X:1\nT:x\nK:HP\nA$$ ]( c"' } },
      422,
      /The music of “Bar 2 of Spare Buttons” cannot be read/,
    ],
    ['music without notes', { ...chunk, excerpt: { ...excerpt, abc: 'X:1\nT:x\nM:2/4\nK:HP\n' } }, 422, /has no notes|cannot be read/],
    ['a layer for a note that is not there', { ...chunk, excerpt: { ...excerpt, layers: { '99': 'bare' } } }, 422, /there is no note 100/],
    ['a note that the instrument lacks as its hardest', { ...chunk, home: 'h' }, 422, /not “h”/],
    ['words that are empty', { ...words, text: '  ' }, 400, /Write what is to be done/],
    ['words with notes', { ...words, home: 'c' }, 400, /./],
    ['music longer than a sheet holds', { ...chunk, excerpt: { ...excerpt, abc: `${excerpt.abc}${'A2 '.repeat(5001)}` } }, 400, /at most 15000 characters/],
  ])('refuse %s', async (_, item, status, detail) => {
    const answer = await add([item]).expect(status);
    expect(answer.body.detail).toMatch(detail);
  });
});
