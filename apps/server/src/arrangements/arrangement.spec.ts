import { noArrangement, noTuneNotes, type TuneDetail } from '@zelpit/contract';
import { bring, take } from '../testing/archive-visits';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { upload } from '../things/matrix.spec-support';

const abc = 'X:1\nT:Spare Buttons\nM:2/4\nL:1/4\nK:HP\nA c|e a|]\n';
let server: TestServer;
let ada: Visitor;
let student: string;
let tune: string;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  student = (await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body.id as string;
  tune = ((await upload(ada, '/api/tunes/import', Buffer.from(abc))).body as { saved: { id: string }[] }).saved[0].id;
});
afterAll(() => server.close());

const place = (): string => `/api/tunes/${tune}/arrangement`;
const arrangement = { ...noArrangement, folds: [{ from: 1, to: 2, octaves: -1 }], layers: { '0': 'bare' }, instead: { '1': 'b' } };

describe('how a student plays a tune', () => {
  it('is nothing at first, then what was kept, and is not overwritten by an older version', async () => {
    expect((await ada.get(`${place()}?student=${student}`).expect(200)).body).toEqual({ arrangement: noArrangement, version: 0 });
    expect((await ada.put(place(), { student, arrangement, version: 0 }).expect(200)).body).toEqual({ arrangement, version: 1 });
    await ada.put(place(), { student, arrangement: {}, version: 0 }).expect(409);
    expect((await ada.put(place(), { student, arrangement: { semitones: 5 }, version: 1 }).expect(200)).body.version).toBe(2);
    await ada.put(place(), { student, arrangement: {}, version: 1 }).expect(409);
    expect((await ada.put(place(), { student, arrangement, version: 2 }).expect(200)).body.version).toBe(3);
  });

  it.each([
    ['a note that the tune’s instrument lacks', { instead: { '1': 'h' } }, 422, /not “h”/],
    ['a fold by two octaves', { folds: [{ from: 1, to: 2, octaves: 2 }] }, 400, /./],
    ['a key four octaves away', { semitones: 48 }, 400, /./],
    ['something that nobody knows', { swing: 3 }, 400, /./],
  ])('refuses %s', async (_, change, status, detail) => {
    const answer = await ada.put(place(), { student, arrangement: change, version: 3 }).expect(status);
    expect(answer.body.detail).toMatch(detail);
  });

  it('stands among the tunes of the student', async () => {
    expect((await ada.get(`/api/students/${student}/tunes`).expect(200)).body).toEqual([{ tune, title: 'Spare Buttons', arrangement }]);
    const other = (await ada.post('/api/students', { alias: 'Oda' }).expect(201)).body.id as string;
    expect((await ada.get(`/api/students/${other}/tunes`).expect(200)).body).toEqual([]);
    await ada.get(`/api/students/${tune}/tunes`).expect(404);
    await ada.remove(`/api/students/${other}`).expect(204);
  });

  it('asks for a student and a tune of the studio', async () => {
    await ada.get(`${place()}?student=${tune}`).expect(404);
    await ada.get(`/api/tunes/${student}/arrangement?student=${student}`).expect(404);
    await ada.put(place(), { student: tune, arrangement, version: 0 }).expect(404);
  });

  it('comes out of a backup with what is said of the tune, and goes with its student', async () => {
    const notes = { ...noTuneNotes, form: 'A2', uses: ['class'], scripts: { '1-1': 'Thumb first.' } };
    expect((await ada.put(`/api/tunes/${tune}/about`, { notes, version: 1 }).expect(200)).body).toMatchObject({ about: notes, aboutVersion: 2 });
    const archive = await take(ada);
    await addStudio(server.dataSource, 'cy@studio.example');
    const cy = await visit(server.app, 'cy@studio.example');
    await bring(cy, archive);
    const [pim] = (await cy.get('/api/students')).body.items as { id: string }[];
    const [copy] = (await cy.get('/api/tunes')).body.items as { id: string }[];
    expect((await cy.get(`/api/tunes/${copy.id}/arrangement?student=${pim.id}`)).body.arrangement).toEqual(arrangement);
    expect(((await cy.get(`/api/tunes/${copy.id}`)).body as TuneDetail).about).toEqual(notes);
    await ada.remove(`/api/put-away/students/${student}`).expect(204);
    const left = await server.dataSource.query('SELECT 1 FROM arrangement WHERE student_id = $1', [student]);
    expect(left).toEqual([]);
  });
});

describe('what is said of a tune', () => {
  it.each([
    ['a use that is none', { uses: ['circus'] }],
    ['a round of one voice', { round: { voices: 1, after: null } }],
    ['a script for no stretch', { scripts: { chorus: 'x' } }],
  ])('refuses %s', async (_, notes) => {
    await ada.put(`/api/tunes/${tune}/about`, { notes, version: 2 }).expect(400);
  });

  it('is not saved over a later version', async () => {
    await ada.put(`/api/tunes/${tune}/about`, { notes: {}, version: 1 }).expect(409);
  });
});
