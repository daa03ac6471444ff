import { readerVersion } from '@zelpit/core';
import type { ImportResult, TuneDetail } from '@zelpit/contract';
import { Database } from '../database/database';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { upload } from '../things/matrix.spec-support';
import { readAgain } from './read-again';
import { Readers } from './readers';

const abc = 'X:1\nT:Kept\nM:4/4\nL:1/4\nK:HP\nA c e a|a3|\n';

describe('tunes that an older version read', () => {
  let server: TestServer;
  let ada: Visitor;
  let studioId: string;
  let readers: Readers;
  beforeAll(async () => {
    server = await startTestServer();
    studioId = await addStudio(server.dataSource, 'ada@studio.example');
    ada = await visit(server.app, 'ada@studio.example');
    readers = new Readers({ path: process.env['ZELPIT_TEST_READER'] ?? '' });
  });
  afterAll(async () => {
    await readers.close();
    await server.close();
  });

  it('are read again, their texts and versions left as they are', async () => {
    const added = (await upload(ada, '/api/tunes/import', Buffer.from(abc))).body as ImportResult;
    const [{ id }] = added.saved;
    const database = new Database(server.dataSource);
    await database.inStudio(studioId, () =>
      database.query(`UPDATE tune SET reader = 1, facts = '{}', bars = 0, title = 'wrong' WHERE studio_id = $1`, [studioId]),
    );
    expect(((await ada.get(`/api/tunes/${id}`)).body as TuneDetail).notes).toEqual([]);
    expect(await readAgain(database, readers, studioId)).toBe(1);
    const tune = (await ada.get(`/api/tunes/${id}`)).body as TuneDetail;
    expect(tune).toMatchObject({ title: 'Kept', bars: 2, abc, version: 1, findings: 1, notes: ['low-a', 'c', 'e', 'high-a'] });
    expect(await readAgain(database, readers, studioId)).toBe(0);
    const [row] = await database.inStudio(studioId, () => database.query<{ reader: number }>('SELECT reader FROM tune WHERE studio_id = $1', [studioId]));
    expect(row.reader).toBe(readerVersion);
  });

  it('a voice is chosen with the text, kept with it, and read', async () => {
    const two = 'X:1\nT:Two\nM:4/4\nL:1/4\nK:HP\nV:1\nA4|\nV:2\ne4|a4|\n';
    const added = (await upload(ada, '/api/tunes/import', Buffer.from(two))).body as ImportResult;
    const [{ id, bars, look }] = added.saved;
    expect(bars).toBe(1);
    expect(look).toEqual([{ bar: 0, text: '2 voices: the first is read' }]);
    const saved = await ada.put(`/api/tunes/${id}`, { abc: two, voice: '2', version: 1 });
    expect(saved.body).toMatchObject({ kind: 'saved', tune: { voice: '2', bars: 2, notes: ['e', 'high-a'] } });
    const kept = await ada.put(`/api/tunes/${id}`, { abc: two.replace('T:Two', 'T:Three'), version: 2 });
    expect(kept.body).toMatchObject({ kind: 'saved', tune: { title: 'Three', voice: '2' } });
  });

  it('which note of a chord is played is kept with the text too, whatever else is saved', async () => {
    const chords = 'X:1\nT:Chords\nM:4/4\nL:1/4\nK:HP\n[Ae] [Ae] [Ae] [Ae]|\n';
    const { body } = await upload(ada, '/api/tunes/import', Buffer.from(chords));
    const [{ id, notes }] = (body as ImportResult).saved;
    expect(notes).toEqual(['e']);
    const saved = await ada.put(`/api/tunes/${id}`, { abc: chords, chordNote: 'lowest', version: 1 });
    expect(saved.body).toMatchObject({ kind: 'saved', tune: { chordNote: 'lowest', notes: ['low-a'] } });
    await ada.put(`/api/tunes/${id}`, { abc: chords, chordNote: 'loudest', version: 2 }).expect(400);
  });
});
