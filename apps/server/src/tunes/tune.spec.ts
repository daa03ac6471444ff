import { changesOfTune, instrumentById, MovementReader, movementsOfTune, readBook, usualMovementSettings } from '@zelpit/core';
import { tokenHeader, type ImportResult } from '@zelpit/contract';
import { demoBooks } from '../demo/demo-tunes.data';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { decodeText } from './decode-text';

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

const bring = (visitor: Visitor, text: string | Buffer) =>
  visitor.agent
    .post('/api/tunes/import')
    .set(tokenHeader, visitor.token)
    .set('content-type', 'text/vnd.abc')
    .send(text as string);
const one = (title: string, music = 'ABcd|e4|') => `X:1\nT:${title}\nM:4/4\nL:1/8\nK:HP\n${music}\n`;

describe('bringing tunes in', () => {
  it('keeps the good ones and says of the bad one where and why', async () => {
    const { body } = await bring(ada, `${one('First')}\n${one('Broken', 'AB {g')}\n${one('Second')}`).expect(201);
    const result = body as ImportResult;
    expect(result.saved.map((tune) => tune.title)).toEqual(['First', 'Second']);
    expect(result.refused).toMatchObject([{ title: 'Broken', faults: [{ line: 13, column: 4, expected: '"}" after the last grace note' }] }]);
    expect((await ada.get('/api/tunes')).body.items).toHaveLength(2);
  });

  it.each([
    ['an empty file', '', 422, /empty/],
    ['a letter to parents', 'Dear parents,\nband practice is on Friday.', 422, /no line starts with X:/],
    ['random bytes', Buffer.from(Array.from({ length: 5_000_000 }, (_, index) => (index * 7919 + (index >> 3) * 31) % 256)), 422, /not a text file/],
    ['nine megabytes', 'X'.repeat(9_000_000), 413, /too large to send in one piece/],
  ])('refuses %s whole', async (_, text, status, detail) => {
    const before = ((await ada.get('/api/tunes')).body.items as unknown[]).length;
    const answer = await bring(ada, text as string).expect(status);
    expect(answer.body.detail).toMatch(detail);
    expect((await ada.get('/api/tunes')).body.items).toHaveLength(before);
  });

  it('reads Windows-1252 as well as UTF-8', async () => {
    expect(decodeText(Buffer.from('T:Caf\u00e9', 'latin1'))).toBe('T:Café');
    const { body } = await bring(bo, Buffer.from(one('Caf\u00e9 \u0096 late'), 'latin1')).expect(201);
    expect((body as ImportResult).saved[0].title).toBe('Café – late');
    expect(decodeText(Buffer.from('T:Café – 日本'))).toBe('T:Café – 日本');
    expect(decodeText(Buffer.from('\ufeffT:Café', 'utf16le'))).toContain('T:Café');
  });

  it('names notes outside the nine by count and keeps the tune', async () => {
    const { body } = await bring(bo, one('Too low', 'A,2 A2|')).expect(201);
    expect((body as ImportResult).saved[0].outside).toBe(1);
  });

  it('takes 2 000 tunes in one file while it still answers others', async () => {
    const book = Array.from({ length: 2000 }, (_, index) => one(`Tune ${index}`)).join('\n');
    const importing = bring(bo, book).then((answer) => answer);
    const health = await ada.get('/api/health').expect(200);
    expect(health.body).toEqual({ status: 'ok' });
    const answer = await importing;
    expect((answer.body as ImportResult).saved).toHaveLength(2000);
  });

  it('stores a title with script tags as text', async () => {
    const { body } = await bring(ada, one('<script>alert(1)</script>')).expect(201);
    expect((body as ImportResult).saved[0].title).toBe('<script>alert(1)</script>');
  });
});

describe('a tune', () => {
  const newTune = async (text = one('Mine')): Promise<string> => ((await bring(ada, text)).body as ImportResult).saved[0].id;

  it('is nobody else’s', async () => {
    const id = await newTune();
    await bo.get(`/api/tunes/${id}`).expect(404);
    await bo.put(`/api/tunes/${id}`, { abc: one('Stolen'), version: 1 }).expect(404);
    await bo.remove(`/api/tunes/${id}`).expect(404);
    await ada.get(`/api/tunes/${id}`).expect(200);
    await ada.get('/api/tunes/not-an-id').expect(404);
  });

  it('keeps its old text when the new one cannot be read', async () => {
    const id = await newTune();
    const answer = await ada.put(`/api/tunes/${id}`, { abc: one('Mine', 'A n|'), version: 1 }).expect(200);
    expect(answer.body).toMatchObject({ kind: 'refused', faults: [{ line: 6, column: 3 }] });
    expect((await ada.get(`/api/tunes/${id}`)).body.abc).toBe(one('Mine'));
    const saved = await ada.put(`/api/tunes/${id}`, { abc: one('Renamed', 'a4|'), version: 1 }).expect(200);
    expect(saved.body).toMatchObject({ kind: 'saved', tune: { title: 'Renamed' } });
    await ada.put(`/api/tunes/${id}`, { abc: `${one('One')}\n${one('Two')}`, version: 2 }).expect(422);
  });

  it('comes back after it was put away', async () => {
    const id = await newTune();
    await ada.remove(`/api/tunes/${id}`).expect(204);
    await ada.get(`/api/tunes/${id}`).expect(404);
    await ada.post(`/api/tunes/${id}/restore`).expect(204);
    await ada.get(`/api/tunes/${id}`).expect(200);
  });
});

describe('a tune for another instrument', () => {
  const reel = 'X:1\nT:Her reel\nM:4/4\nL:1/4\nK:G\nD G B c|(d c) B A|G4|]\n';
  const bring = (instrument: string): Promise<{ status: number; body: unknown }> =>
    ada.agent.post(`/api/tunes/import?instrument=${instrument}`).set(tokenHeader, ada.token).set('content-type', 'text/plain').send(reel) as never;

  it('is read for that one, and knows it', async () => {
    const [tune] = ((await bring('whistle-d')).body as ImportResult).saved;
    expect(tune).toMatchObject({ instrument: 'whistle-d', outside: 0 });
    const listed = (await ada.get('/api/tunes?instrument=whistle-d').expect(200)).body as { items: { id: string }[] };
    expect(listed.items.map(({ id }) => id)).toEqual([tune.id]);
  });

  it('moves to another instrument when it is saved so, and counts what that one lacks', async () => {
    const [{ id }] = ((await bring('whistle-d')).body as ImportResult).saved;
    const saved = await ada.put(`/api/tunes/${id}`, { abc: reel, version: 1, instrument: 'practice-chanter' }).expect(200);
    expect(saved.body).toMatchObject({ tune: { instrument: 'practice-chanter', outside: 3 } });
    const kept = await ada.put(`/api/tunes/${id}`, { abc: reel, version: 2 }).expect(200);
    expect(kept.body).toMatchObject({ tune: { instrument: 'practice-chanter' } });
  });

  it('under the pipes’ own key is read for the pipes, whatever is in hand', async () => {
    const book = `${reel}\nX:2\nT:Hers too\nM:4/4\nL:1/4\nK:HP\nA c e a|\n`;
    const sent = ada.agent.post('/api/tunes/import?instrument=whistle-d').set(tokenHeader, ada.token).set('content-type', 'text/plain').send(book);
    const { saved } = (await sent.expect(201)).body as ImportResult;
    expect(saved.map(({ instrument }) => instrument)).toEqual(['whistle-d', 'practice-chanter']);
  });

  it('is refused for an instrument that nobody knows', async () => {
    const { status, body } = await bring('saw');
    expect([status, (body as { detail: string }).detail]).toEqual([422, 'There is no instrument "saw".']);
  });
});

describe('the demo tunes', () => {
  const readings = demoBooks.flatMap(({ instrument, abc }) =>
    [...readBook(instrumentById(instrument), abc)].map((reading) => ({ instrument: instrumentById(instrument), reading })),
  );

  // Written for singing: it lies too low for the whistle, and a teacher finds it a key.
  const tooLow = 'Hymn for the Lamplighter';

  it.each(readings.map((each) => [each.reading.entry.title, each] as const))(
    '%s has whole bars, known notes and trouble worth a sheet',
    (_, { instrument, reading }) => {
      expect(reading.kind).toBe('read');
      if (reading.kind !== 'read') return;
      const { tune } = reading.entry;
      expect(tune.notices.length > 0).toBe(tune.title === tooLow);
      const lengths = new Map<number, number>();
      for (const note of tune.notes) lengths.set(note.bar, (lengths.get(note.bar) ?? 0) + note.duration);
      for (const [bar, length] of lengths)
        if (bar > 0 && bar < lengths.size - 1) expect(`bar ${bar}: ${length.toFixed(3)}`).toBe(`bar ${bar}: ${tune.meter.bar.toFixed(3)}`);
      expect(changesOfTune(instrument, tune).open.length).toBeGreaterThan(3);
    },
  );

  it('for the chanter have every grace note as a piper plays it from the note before', () => {
    const chanter = instrumentById('practice-chanter');
    const reader = new MovementReader(chanter);
    for (const { instrument, reading } of readings) {
      if (reading.kind !== 'read' || instrument.id !== chanter.id) continue;
      const { tune } = reading.entry;
      const found = movementsOfTune(chanter, tune, reader, { tempo: tune.tempo, settings: usualMovementSettings });
      expect(found.length).toBeGreaterThan(0);
      expect(found.filter(({ right }) => right !== undefined).map(({ note, written }) => `${tune.title} ${note.bar} ${written}`)).toEqual([]);
    }
  });
});
