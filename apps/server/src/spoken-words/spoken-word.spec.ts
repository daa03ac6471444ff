import { wordDays, type Lesson, type SpokenWord } from '@zelpit/contract';
import { BlobRepository } from '../blobs/blob.repository';
import { Database } from '../database/database';
import { newLesson } from '../lessons/lesson.matrix.spec-support';
import { consent, wave } from '../takes/take.matrix.spec-support';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { upload, type Answered } from '../things/matrix.spec-support';
import { SpokenWordRepository } from './spoken-word.repository';

let server: TestServer;
let ada: Visitor;
let [studioId, pim, held] = ['', '', ''];

const say = (lesson = held, query = '?title=B%20to%20E&seconds=4', sound = wave()): Promise<Answered> =>
  upload(ada, `/api/lessons/${lesson}/words${query}`, sound);
const said = async (): Promise<SpokenWord> => {
  const { status, body } = await say();
  expect(status).toBe(201);
  return body as SpokenWord;
};
const words = async (): Promise<readonly SpokenWord[]> => (await ada.get(`/api/lessons/${held}/words`).expect(200)).body as SpokenWord[];
const blobs = async (): Promise<number> => ((await server.dataSource.query('SELECT count(*)::int AS n FROM blob')) as { n: number }[])[0].n;
const sentenceOf = ({ status, body }: Answered): unknown => [status, (body as { detail: string }).detail];
const setLesson = async (): Promise<Lesson> => (await ada.post('/api/lessons', newLesson({ student: pim })).expect(201)).body as Lesson;
const hold = async (id: string, on: string): Promise<Lesson> => (await ada.post(`/api/lessons/${id}/begin`, { on }).expect(200)).body as Lesson;

beforeAll(async () => {
  server = await startTestServer();
  studioId = await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  pim = ((await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body as { id: string }).id;
  await consent(ada, pim, true);
  held = (await hold((await setLesson()).id, '2026-12-01')).id;
});
afterAll(() => server.close());
beforeEach(() => server.dataSource.query('DELETE FROM blob'));

describe('a spoken word', () => {
  it('stands with its lesson in the order in which it was said, is heard, and goes by itself', async () => {
    const [first, second] = [await said(), await said()];
    expect(await words()).toEqual([first, second]);
    expect(first).toMatchObject({ lessonId: held, title: 'B to E', seconds: 4 });
    expect(Math.round((Date.parse(first.keptUntil) - Date.parse(first.at)) / 86_400_000)).toBe(wordDays);
    const { headers } = await ada.get(`/api/spoken-words/${first.id}/sound`).expect(200);
    expect([headers['content-type'], headers['content-disposition']]).toEqual(['audio/wav', 'attachment; filename="B to E.wav"']);
    const database = new Database(server.dataSource);
    await server.dataSource.query(`UPDATE spoken_word SET kept_until = now() - interval '1 minute' WHERE id = '${first.id}'`);
    await database.inStudio(studioId, () => new SpokenWordRepository(database).clear());
    expect([(await words()).map(({ id }) => id), await blobs()]).toEqual([[second.id], 1]);
  });

  it('keeps its sound where what nothing names is cleared, and loses it with its word or its lesson', async () => {
    const { id } = await said();
    const database = new Database(server.dataSource);
    const clear = async (): Promise<void> => {
      await server.dataSource.query(`UPDATE blob SET created_at = now() - interval '2 days'`);
      await database.inStudio(studioId, () => new BlobRepository(database).clear());
    };
    await clear();
    expect(await blobs()).toBe(1);
    await ada.remove(`/api/spoken-words/${id}`).expect(204);
    await ada.remove(`/api/spoken-words/${id}`).expect(404);
    expect(await blobs()).toBe(0);
    const other = await hold((await setLesson()).id, '2026-12-08');
    expect((await say(other.id)).status).toBe(201);
    await ada.remove(`/api/lessons/${other.id}`).expect(204);
    await clear();
    expect(await blobs()).toBe(0);
  });

  it('is neither kept nor heard where no guardian agrees, and can be deleted then', async () => {
    const { id } = await said();
    await consent(ada, pim, false);
    const sentence = 'No guardian has agreed that Pim is recorded. Nothing is kept, and what was kept before is not played: it can only be deleted.';
    expect(sentenceOf(await say())).toEqual([403, sentence]);
    await ada.get(`/api/spoken-words/${id}/sound`).expect(403);
    await ada.remove(`/api/spoken-words/${id}`).expect(204);
    await consent(ada, pim, true);
    expect(await blobs()).toBe(0);
  });
});

describe('bad input', () => {
  it('is refused with a sentence, and leaves nothing', async () => {
    expect(sentenceOf(await say(held, undefined, Buffer.from('this is no sound')))).toEqual([
      415,
      'This is no sound that can be kept: it has to be a WAV file.',
    ]);
    expect((await say(held, undefined, wave(70))).status).toBe(413);
    for (const query of ['', '?title=%20&seconds=4', '?title=B', '?title=B&seconds=61', '?title=B&seconds=0', `?title=${'x'.repeat(201)}&seconds=4`])
      expect([query, (await say(held, query)).status]).toEqual([query, 400]);
    expect(sentenceOf(await say((await setLesson()).id))).toEqual([422, 'This lesson has not begun yet: begin it, then say what is to be kept.']);
    expect((await say('6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10')).status).toBe(404);
    expect(await blobs()).toBe(0);
  });

  it('more words than a lesson holds are refused before their sound is sent', async () => {
    await server.dataSource.query(`
      WITH sound AS (INSERT INTO blob (studio_id, id, bytes) SELECT '${studioId}', gen_random_uuid(), 0 FROM generate_series(1, 60) RETURNING id)
      INSERT INTO spoken_word (studio_id, id, lesson_id, blob_id, title, seconds, at, kept_until)
      SELECT '${studioId}', gen_random_uuid(), '${held}', id, 'B to E', 3, now(), now() + interval '1 day' FROM sound`);
    expect(sentenceOf(await say())).toEqual([422, 'A lesson holds at most 60 spoken words. Delete one first.']);
    expect(await blobs()).toBe(60);
  });
});
