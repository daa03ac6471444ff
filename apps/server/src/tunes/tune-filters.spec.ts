import { noTuneNotes, type Page, type TuneOpenings, type TuneSummary } from '@zelpit/contract';
import { instrumentById, readTune, splitBook } from '@zelpit/core';
import { demoBooks } from '../demo/demo-tunes.data';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { upload } from '../things/matrix.spec-support';

const recorder = 'recorder-soprano-german';
const book = `X:1\nT:Five Spoons\nR:song\nM:4/4\nL:1/4\nK:C\nG A B A|G4|]

X:2\nT:Snail on the Sill\nR:song\nM:3/4\nL:1/4\nK:C\nB A G|c2 B|]

X:3\nT:Crooked Ladder\nR:march\nM:2/4\nL:1/4\nK:C\nG A|B E|]

X:4\nT:Two Left Boots\nR:jig\nM:6/8\nL:1/8\nK:G\nFED GAB|]
`;
let server: TestServer;
let ada: Visitor;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  expect((await upload(ada, `/api/tunes/import?instrument=${recorder}`, Buffer.from(book))).status).toBe(201);
  for (const { instrument, abc } of demoBooks) await upload(ada, `/api/tunes/import?instrument=${instrument}`, Buffer.from(abc));
});
afterAll(() => server.close());

const titles = async (query: string): Promise<string[]> =>
  ((await ada.get(`/api/tunes?limit=100&${query}`).expect(200)).body as Page<TuneSummary>).items.map(({ title }) => title);
/** Of these, the ones of the little book above: the demo books hold others that fit as well. */
const ownTitles = async (query: string): Promise<string[]> => (await titles(query)).filter((title) => book.includes(`T:${title}\n`));
const known = 'g5,a5,b5,c6';

describe('tunes by what somebody knows', () => {
  it('are exactly those that ask for no other notes', async () => {
    expect(await ownTitles(`instrument=${recorder}&known=${known}&missing=0`)).toEqual(['Five Spoons', 'Snail on the Sill']);
    expect(await ownTitles(`instrument=${recorder}&known=${known}&missing=1`)).toEqual(['Crooked Ladder', 'Five Spoons', 'Snail on the Sill']);
  });

  it('give a class of few notes exactly the demo tunes that have no others', async () => {
    for (const { instrument: id, abc } of demoBooks) {
      const instrument = instrumentById(id);
      const four = instrument.notes.slice(1, 8).map((note) => note.id);
      const wanted = splitBook(abc).flatMap(({ abc: text }) => {
        const tune = readTune(instrument, text);
        const needs = tune.notes.flatMap(({ written }) => (written.kind === 'rest' ? [] : [written.kind === 'note' ? written.note : 'outside']));
        return needs.every((note) => four.includes(note)) ? [tune.title] : [];
      });
      const own = (await titles(`instrument=${id}&known=${four.join(',')}&missing=0`)).filter((title) => abc.includes(`T:${title}`));
      expect(own.sort()).toEqual(wanted.sort());
    }
  });

  it('say how many each new note opens', async () => {
    const { body } = await ada.get(`/api/tunes/openings?instrument=${recorder}&known=${known}`).expect(200);
    const { playable, opens, more } = body as TuneOpenings;
    expect(playable).toBe((await titles(`instrument=${recorder}&known=${known}&missing=0`)).length);
    expect(opens.length).toBeGreaterThan(0);
    for (const { note, tunes } of opens) expect((await titles(`instrument=${recorder}&known=${known},${note}&missing=0`)).length).toBe(playable + tunes);
    expect(playable + opens.reduce((sum, { tunes }) => sum + tunes, 0) + more).toBe((await titles(`instrument=${recorder}`)).length);
  });
});

describe('tunes by other things', () => {
  it('meter, kind, use and difficulty', async () => {
    expect(await titles(`instrument=${recorder}&meter=2/4`)).toContain('Crooked Ladder');
    expect(await ownTitles(`instrument=${recorder}&rhythm=SONG`)).toEqual(['Five Spoons', 'Snail on the Sill']);
    const { items } = (await ada.get('/api/tunes?find=Snail').expect(200)).body as Page<TuneSummary>;
    await ada.put(`/api/tunes/${items[0].id}/about`, { notes: { ...noTuneNotes, uses: ['church', 'class'] }, version: 1 }).expect(200);
    expect(await titles('use=church')).toEqual(['Snail on the Sill']);
    expect(await titles('use=session')).toEqual([]);
    await ada.put(`/api/tunes/${items[0].id}/about`, { notes: { ...noTuneNotes, uses: ['church'], after: 'The Nutmeg Gate' }, version: 2 }).expect(200);
    expect(await titles('find=nutmeg')).toEqual(['Snail on the Sill']);
    const all = (await ada.get(`/api/tunes?instrument=${recorder}&limit=100`)).body as Page<TuneSummary>;
    for (const hard of ['little', 'some', 'much'])
      expect(await titles(`instrument=${recorder}&hard=${hard}`)).toEqual(all.items.filter((tune) => tune.hard === hard).map(({ title }) => title));
  });

  it('movements that somebody has', async () => {
    const none = await titles('instrument=practice-chanter&movements=');
    const some = await titles('instrument=practice-chanter&movements=doubling|throw on D|grip');
    expect(some.length).toBeGreaterThan(none.length);
  });

  it('a phrase in their melody, tied notes once', async () => {
    expect(await ownTitles('phrase=b5,e5')).toEqual(['Crooked Ladder']);
    expect(await ownTitles(`instrument=${recorder}&phrase=a5,b5,a5,g5`)).toEqual(['Five Spoons']);
    expect(await ownTitles('phrase=e5,b5')).toEqual([]);
  });

  it('a range that they keep within', async () => {
    expect(await ownTitles('within=g5,a5,b5')).toEqual(['Five Spoons']);
    expect(await ownTitles('within=g5,a5,b5,c6')).toEqual(['Five Spoons', 'Snail on the Sill']);
    expect(await ownTitles('within=')).toEqual(await ownTitles(''));
  });

  it('what is played before and after another, whichever of the two says so', async () => {
    const { items } = (await ada.get('/api/tunes?find=Crooked').expect(200)).body as Page<TuneSummary>;
    await ada.put(`/api/tunes/${items[0].id}/about`, { notes: { ...noTuneNotes, before: 'Two Left Boots', after: 'Elsewhere' }, version: 1 }).expect(200);
    expect(await titles('beside=two%20left%20boots')).toEqual(['Crooked Ladder']);
    expect(await titles('beside=Crooked Ladder')).toEqual(['Two Left Boots']);
    expect(await titles('beside=Elsewhere')).toEqual(['Crooked Ladder']);
    expect(await titles('beside=Nowhere')).toEqual([]);
  });

  it.each(['use=circus', 'missing=-1', 'hard=very', `known=${'a5,'.repeat(90)}`])('refuse %s', async (query) => {
    await ada.get(`/api/tunes?${query}`).expect(400);
  });

  it('take signs that mean something to a database as what they are', async () => {
    expect(await titles('phrase=%25,_')).toEqual([]);
    expect(await titles("meter=4%2F4'--")).toEqual([]);
  });
});
