import type { Job, LongTakeAsked } from '@zelpit/contract';
import { playNotes, practiceChanter, renderTimeline, waveFile, type NoteId } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { ended } from '../testing/jobs';
import { addStudio, addTeacher, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { upload } from '../things/matrix.spec-support';
import { consent } from './take.matrix.spec-support';

let server: TestServer;
let ada: Visitor;
let pim: string;
let wren: string;
beforeAll(async () => {
  server = await startTestServer();
  const studio = await addStudio(server.dataSource, 'ada@studio.example');
  await addTeacher(server.dataSource, studio, 'cy@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  const added = async (alias: string): Promise<string> => ((await ada.post('/api/students', { alias }).expect(201)).body as { id: string }).id;
  [pim, wren] = [await added('Pim'), await added('Wren')];
  await consent(ada, pim, true);
});
afterAll(() => server.close());

const rate = 8000;

/** C and E by turns, the last third with a crossing noise. */
function rehearsal(changes = 60): Buffer {
  const settings = { tempo: 120, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
  const played = (count: number, fault?: { kind: 'worst'; ms: number }): readonly number[] => {
    const notes = Array.from({ length: count }, (_, index) => ({
      note: (index % 2 === 0 ? 'c' : 'e') as NoteId,
      graceNotes: [],
      beats: 1,
      index,
      isTied: false,
    }));
    return [...renderTimeline(practiceChanter, playNotes(practiceChanter, notes, { ...settings, ...(fault && { fault }) }), { sampleRate: rate })];
  };
  const clean = 2 * Math.round(changes / 3);
  return Buffer.from(waveFile(Float32Array.from([...played(clean), ...played(changes - clean, { kind: 'worst', ms: 30 })]), rate));
}

const asked: LongTakeAsked = { kind: 'changes', from: 'c', to: 'e' };
const takeOf = (soundId: string, more: object = {}): object => ({ studentId: null, soundId, name: 'Rehearsal.wav', model: 'practice-chanter', asked, ...more });
async function soundOf(file: Buffer, student?: string): Promise<string> {
  const { status, body } = await upload(ada, `/api/jobs/listen/sound${student === undefined ? '' : `?student=${student}`}`, file);
  expect(status).toBe(201);
  return (body as { id: string }).id;
}
const begun = async (file: Buffer, more: object = {}): Promise<Job> =>
  (await ada.post('/api/jobs/listen', takeOf(await soundOf(file), more)).expect(202)).body as Job;
const blobs = async (): Promise<number> => ((await server.dataSource.query('SELECT count(*)::int AS n FROM blob')) as { n: number }[])[0].n;

describe('a long take', () => {
  it('is listened to by the server: how much was as asked, and where it was worst; its sound is not kept', async () => {
    const done = await ended(ada, (await begun(rehearsal(), { studentId: pim })).id);
    expect(done).toMatchObject({ kind: 'listen', name: 'Rehearsal.wav', state: 'done', problem: '', done: 30, of: 30 });
    const result = done.kind === 'listen' ? done.result : null;
    expect(result?.places).toBeGreaterThan(55);
    expect(result?.faulty).toBeGreaterThan(12);
    expect(result?.worst.length).toBe(Math.min(20, (result?.faulty ?? 0) + (result?.unsure ?? 0)));
    expect(result?.worst[0]).toMatchObject({ text: expect.stringMatching(/^low G sounds for \d\d ms before [CE]$/) as string });
    expect(result?.worst[0].at).toBeGreaterThan(19_000);
    expect(Math.abs(result?.tuning ?? 99)).toBeLessThanOrEqual(5);
    expect(await blobs()).toBe(0);
  });

  it('is followed through notes that are played again and again', async () => {
    const notes = ['c', 'e'].map((note, index) => ({ note, graceNotes: [], beats: 1, isTied: false, bar: 1 + index }));
    const done = await ended(ada, (await begun(rehearsal(), { asked: { kind: 'piece', notes } })).id);
    expect(done.kind === 'listen' && done.result?.worst[0]?.text).toMatch(/^bar \d: /);
  });

  it.each([
    ['is too short to be judged', Buffer.from(waveFile(new Float32Array(100), rate)), /./],
    ['is silent', Buffer.from(waveFile(new Float32Array(rate), rate)), /./],
    ['has two channels', rehearsal(6).fill(2, 22, 23), /one channel/],
    ['has an hour in it', Buffer.from(waveFile(new Float32Array(4000 * 3600), 4000)), /at most 30 minutes/],
  ])('that %s fails with a sentence, and leaves no sound behind', async (_, file, problem) => {
    expect(await ended(ada, (await begun(file)).id)).toMatchObject({ state: 'failed', result: null, problem: expect.stringMatching(problem) as string });
    expect(await blobs()).toBe(0);
  });

  it('is refused where it is no sound, is not there, or asks for what nobody knows', async () => {
    expect((await upload(ada, '/api/jobs/listen/sound', Buffer.from('Dear teacher'))).status).toBe(415);
    await ada.post('/api/jobs/listen', takeOf(randomUUID())).expect(422);
    const sound = await soundOf(rehearsal(6));
    await ada.post('/api/jobs/listen', takeOf(sound, { model: 'bagpuss' })).expect(422);
    await ada.post('/api/jobs/listen', takeOf(sound, { asked: { kind: 'changes', from: 'c', to: 'z9' } })).expect(422);
    await ada.post('/api/jobs/listen', takeOf(sound, { asked: { kind: 'piece', notes: [] } })).expect(400);
    await ada.post('/api/jobs/listen', takeOf(sound, { name: ' ' })).expect(400);
    await server.dataSource.query('DELETE FROM blob');
  });

  it('of a student is taken only where a guardian agrees, also while it waits, and goes with the student', async () => {
    expect((await upload(ada, `/api/jobs/listen/sound?student=${wren}`, rehearsal(6))).status).toBe(403);
    await ada.post('/api/jobs/listen', takeOf(await soundOf(rehearsal(6)), { studentId: wren })).expect(403);
    const { id } = await begun(rehearsal(6), { studentId: pim, name: 'Pim on Friday.wav' });
    await ended(ada, id);
    await ada.agent.delete(`/api/students/${pim}`).set('x-zelpit-token', ada.token).expect(204);
    await ada.agent.delete(`/api/put-away/students/${pim}`).set('x-zelpit-token', ada.token).expect(204);
    await ada.get(`/api/jobs/${id}`).expect(404);
  });
});
