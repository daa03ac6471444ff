import type { Lesson, OpenedLine, SentReview, SheetDetail } from '@zelpit/contract';
import { bring, take } from '../testing/archive-visits';
import { addStudio, addTeacher, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;
let pim: string;
let studioId: string;
beforeAll(async () => {
  server = await startTestServer({ hasOutbox: true });
  studioId = await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
});
beforeEach(async () => {
  pim = ((await ada.post('/api/students', { alias: 'Pim', dayMinutes: 12 }).expect(201)).body as { id: string }).id;
});
afterAll(() => server.close());

const line = (home: string, other: string) => ({ home, other, repetitions: 2, tempo: 60, point: '' });
const setLines = async (...lines: readonly object[]): Promise<SheetDetail> =>
  (await ada.post('/api/sheets', { studentId: pim, tuneId: null, instrument: 'practice-chanter', title: 'Week', note: '', lines }).expect(201))
    .body as SheetDetail;
const heldLesson = async (): Promise<Lesson> => {
  const lesson = { studentId: pim, on: '2026-12-01', time: '16:00', minutes: 30, repeats: 'once', until: null, note: '' };
  const { id } = (await ada.post('/api/lessons', lesson).expect(201)).body as { id: string };
  return (await ada.post(`/api/lessons/${id}/begin`, { on: '2026-12-01' }).expect(200)).body as Lesson;
};
const judge = (lesson: Lesson, title: string, rating: string, note = '') =>
  ada
    .post('/api/attempts', {
      ...{ studentId: pim, itemId: null, lessonId: lesson.id, title, kind: 'line', model: 'practice-chanter', tempo: 60, count: 1, rating, ladder: null },
      ...{ seconds: 0, device: 'desk', note, at: new Date().toISOString() },
    })
    .expect(201);
const propose = async (lessonId: string | null = null, status = 201): Promise<SheetDetail> =>
  (await ada.post('/api/reviews', { studentId: pim, lessonId, on: '2026-12-01' }).expect(status)).body as SheetDetail;
const send = async ({ id, version }: SheetDetail, mailTo: string | null = null): Promise<SentReview> =>
  (await ada.post(`/api/sheets/${id}/send`, { version, mailTo }).expect(200)).body as SentReview;
const save = ({ id, title, note, version, lines, review }: SheetDetail) =>
  ada.put(`/api/sheets/${id}`, { title, note, version, review, lines: lines.map(({ code: _, ...each }) => each) });
const read = async (visitor: Visitor, id: string): Promise<SheetDetail> => (await visitor.get(`/api/sheets/${id}`).expect(200)).body as SheetDetail;

describe('a review', () => {
  it('is proposed from plan, record and what was heard, within the day', async () => {
    await setLines(line('b', 'e'), line('c', 'e'));
    const lesson = await heldLesson();
    for (let count = 0; count < 4; count += 1) await judge(lesson, 'C to E', 'not-yet', 'Low G cuts in');
    await judge(lesson, 'B to E', 'clean');
    const review = await propose(lesson.id);
    expect(review).toMatchObject({ title: 'Review of 1 December', lessonId: lesson.id, isReview: true, sentAt: null });
    expect(review.review?.priority).toMatchObject({ text: 'No low G between C and E.', until: '2026-12-22', home: 'c', other: 'e' });
    expect(review.lines[0]).toMatchObject({ kind: 'line', home: 'c', other: 'e' });
    expect(review.review?.minutes).toBe(12);
    expect(review.review?.struck.map(({ reason }) => reason)).toEqual(['clean at 60 in the lesson']);
    expect(review.review?.proposed.map(({ id }) => id)).toEqual(review.lines.map(({ id }) => id));
  });

  it('is one and the same for two teachers who begin it, also at once', async () => {
    await addTeacher(server.dataSource, studioId, 'ben@studio.example').catch(() => undefined);
    const ben = await visit(server.app, 'ben@studio.example');
    const lesson = await heldLesson();
    const wish = { studentId: pim, lessonId: lesson.id, on: '2026-12-01' };
    const begun = await Promise.all([ada, ben, ada, ben].map((visitor) => visitor.post('/api/reviews', wish)));
    expect(new Set(begun.map(({ body }) => (body as SheetDetail).id)).size).toBe(1);
    expect(begun.map(({ status }) => status).sort()).toEqual([200, 200, 200, 201]);
    const [{ body }] = begun;
    const review = body as SheetDetail;
    await save(review).expect(200);
    const late = await ben.put(`/api/sheets/${review.id}`, { title: 'Mine', note: '', version: review.version, lines: [] });
    expect([late.status, (late.body as { type: string }).type]).toEqual([409, expect.stringContaining('changed-elsewhere')]);
  });

  it('reads the same on Friday as it was sent on Monday, for teacher and student', async () => {
    await setLines(line('c', 'e'));
    const review = await propose();
    const { sheet, link } = await send(review);
    expect(sheet.sentAt).not.toBeNull();
    const student = await visitByLink(server.app, link.address);
    const monday = await read(student, review.id);
    const refused = await save({ ...sheet, title: 'Otherwise' }).expect(422);
    expect(refused.body).toMatchObject({ detail: expect.stringMatching(/was sent, so it does not change any more/) as string });
    await ada.post(`/api/sheets/${review.id}/send`, { version: sheet.version, mailTo: null }).expect(422);
    const anew = (await ada.post(`/api/sheets/${review.id}/anew`).expect(201)).body as SheetDetail;
    expect((await ada.post(`/api/sheets/${review.id}/anew`).expect(200)).body).toMatchObject({ id: anew.id });
    await save({ ...anew, title: 'Another one', lines: [] }).expect(200);
    expect(await read(student, review.id)).toEqual(monday);
    // What is not sent is not there for the student.
    await student.get(`/api/sheets/${anew.id}`).expect(404);
    expect(((await student.get('/api/sheets').expect(200)).body as { items: { id: string }[] }).items.map(({ id }) => id)).toContain(review.id);
  });

  it('has its last sent version in the student’s list, the others stay as they are', async () => {
    await setLines(line('c', 'e'));
    const { sheet, link } = await send(await propose());
    const student = await visitByLink(server.app, link.address);
    const anew = (await ada.post(`/api/sheets/${sheet.id}/anew`).expect(201)).body as SheetDetail;
    const { sheet: second } = await send(anew);
    const shown = ((await student.get('/api/sheets').expect(200)).body as { items: { id: string }[] }).items.map(({ id }) => id);
    expect([shown.includes(sheet.id), shown.includes(second.id)]).toEqual([false, true]);
    expect(await read(student, sheet.id)).toMatchObject({ replacedBy: second.id });
    expect(second.replaces).toBe(sheet.id);
  });

  it('does not show its student what was struck out, and its codes open nothing before it is sent', async () => {
    await setLines(line('c', 'e'));
    const { link } = await send(await propose());
    const student = await visitByLink(server.app, link.address);
    const draft = await propose();
    const struck = [{ item: { ...line('b', 'e'), kind: 'line' }, reason: 'not this week' }];
    const saved = (await save({ ...draft, review: { ...(draft.review as object), struck } as never }).expect(200)).body as SheetDetail;
    expect(saved.review?.struck).toHaveLength(1);
    await student.get(`/api/lines/${saved.lines[0].code}`).expect(404);
    const { sheet } = await send(saved);
    expect((await read(student, sheet.id)).review).toMatchObject({ struck: [], proposed: [] });
    expect(((await student.get(`/api/lines/${sheet.lines[0].code}`).expect(200)).body as OpenedLine).sheet.id).toBe(sheet.id);
  });

  it('can be taken back for a minute, until somebody opens it', async () => {
    await setLines(line('c', 'e'));
    const first = await send(await propose());
    expect((await ada.post(`/api/sheets/${first.sheet.id}/take-back`).expect(200)).body).toMatchObject({ sentAt: null });
    const again = await send(await read(ada, first.sheet.id));
    const student = await visitByLink(server.app, again.link.address);
    await student.post(`/api/sheets/${again.sheet.id}/open`).expect(204);
    await student.post(`/api/sheets/${again.sheet.id}/open`).expect(204);
    expect((await read(ada, again.sheet.id)).openedAt).not.toBeNull();
    await ada.post(`/api/sheets/${again.sheet.id}/take-back`).expect(422);
    const late = await send(await propose());
    await server.dataSource.query("UPDATE sheet SET sent_at = sent_at - interval '61 seconds' WHERE id = $1", [late.sheet.id]);
    await ada.post(`/api/sheets/${late.sheet.id}/take-back`).expect(422);
  });

  it('goes out by mail, with a link that works once', async () => {
    await setLines(line('c', 'e'));
    const { link } = await send(await propose(), 'grown.up@example.org');
    const [mail] = ((await ada.get('/api/outbox').expect(200)).body as { items: { to: string; body: string }[] }).items;
    expect(mail.to).toBe('grown.up@example.org');
    expect(mail.body).toContain(link.address);
    await visitByLink(server.app, link.address);
    const token = link.address.split('#')[1];
    expect((await ada.post('/api/links/take', { token }).expect(404)).body).toMatchObject({ detail: expect.stringMatching(/already been used/) as string });
  });

  it('has items at the tempo that they have against the one before', async () => {
    await setLines(line('c', 'e'));
    const draft = await propose();
    const lines = [line('c', 'e'), { ...line('b', 'e'), tempo: null, details: { against: 'slower', tooFast: 'Play it alone.' } }].map((each) => ({
      ...each,
      kind: 'line',
    }));
    const saved = (await ada.put(`/api/sheets/${draft.id}`, { title: 'x', note: '', version: draft.version, lines, review: draft.review }).expect(200))
      .body as SheetDetail;
    expect(saved.lines.map(({ tempo }) => tempo)).toEqual([60, 54]);
    expect(saved.lines[1].details).toEqual({ against: 'slower', tooFast: 'Play it alone.' });
  });

  it('is not sent empty, unread, or where it is a sheet', async () => {
    const sheet = await setLines(line('c', 'e'));
    await ada.post(`/api/sheets/${sheet.id}/send`, { version: 1, mailTo: null }).expect(422);
    const asReview = {
      title: 'x',
      note: '',
      version: 1,
      lines: [],
      review: { on: '2026-12-01', until: '2026-12-08', priority: null, minutes: 20, struck: [], proposed: [] },
    };
    await ada.put(`/api/sheets/${sheet.id}`, asReview).expect(422);
    await ada.put(`/api/sheets/${sheet.id}`, { ...asReview, review: null }).expect(400);
    const draft = await propose();
    await ada.post(`/api/sheets/${draft.id}/send`, { version: draft.version + 1, mailTo: null }).expect(409);
    await ada.post(`/api/sheets/${draft.id}/send`, { version: draft.version, mailTo: 'nobody' }).expect(400);
    const empty = (await save({ ...draft, lines: [] }).expect(200)).body as SheetDetail;
    await ada.post(`/api/sheets/${draft.id}/send`, { version: empty.version, mailTo: null }).expect(422);
    await ada.post(`/api/sheets/${draft.id}/take-back`).expect(422);
    await ada.post(`/api/sheets/${draft.id}/anew`).expect(422);
  });

  it.each([
    ['a lesson that has not begun', 422],
    ['a lesson with somebody else', 422],
    ['a lesson that is not there', 404],
  ])('is not written after %s', async (what, status) => {
    const { id } = (await ada.post('/api/students', { alias: 'Oda' }).expect(201)).body as { id: string };
    const lesson = { studentId: what.includes('else') ? id : pim, on: '2026-12-01', time: '16:00', minutes: 30, repeats: 'once', until: null, note: '' };
    const made = (await ada.post('/api/lessons', lesson).expect(201)).body as { id: string };
    if (what.includes('else')) await ada.post(`/api/lessons/${made.id}/begin`, { on: '2026-12-01' }).expect(200);
    const lessonId = status === 404 ? '7f9d1f0c-8f63-4a7b-9c1d-1d2a3b4c5d6e' : made.id;
    await ada.post('/api/reviews', { studentId: pim, lessonId, on: '2026-12-01' }).expect(status);
  });

  it('stays whole where its lesson is deleted, and comes back after another took its place', async () => {
    const lesson = await heldLesson();
    const review = await propose(lesson.id);
    await ada.agent.delete(`/api/sheets/${review.id}`).set('x-zelpit-token', ada.token).expect(204);
    const second = await propose(lesson.id);
    expect(second.id).not.toBe(review.id);
    await ada.post(`/api/sheets/${review.id}/restore`).expect(204);
    expect(await read(ada, review.id)).toMatchObject({ lessonId: null });
    await ada.agent.delete(`/api/lessons/${lesson.id}`).set('x-zelpit-token', ada.token).expect(204);
    expect(await read(ada, second.id)).toMatchObject({ lessonId: null, title: 'Review of 1 December' });
  });

  it('of fifty items, in a name from right to left, and after its tune was put away, is kept whole', async () => {
    const { id } = (await ada.post('/api/students', { alias: 'נועה' }).expect(201)).body as { id: string };
    pim = id;
    const tune = (await ada.post('/api/tunes', { abc: 'X:1\nT:Spare Buttons\nM:4/4\nL:1/4\nK:HP\nA c e a|c e c e|\n', instrument: 'practice-chanter' }))
      .body as { id?: string };
    const many = Array.from({ length: 50 }, (_, index) => ({ ...line('c', 'e'), kind: 'line', point: `מספר ${index + 1}` }));
    await setLines(...many.slice(0, 3));
    const draft = await propose();
    const saved = (
      await ada.put(`/api/sheets/${draft.id}`, { title: 'Fifty', note: '', version: draft.version, lines: many, review: draft.review }).expect(200)
    ).body as SheetDetail;
    if (tune.id !== undefined) await ada.agent.delete(`/api/tunes/${tune.id}`).set('x-zelpit-token', ada.token).expect(204);
    const { sheet } = await send(saved);
    expect(sheet.lines.map(({ point }) => point)).toEqual(many.map(({ point }) => point));
    expect(sheet.student.alias).toBe('נועה');
  });

  it('comes back out of a backup with its priority, its versions and when it was sent', async () => {
    await setLines(line('c', 'e'));
    const { sheet } = await send(await propose());
    const anew = (await ada.post(`/api/sheets/${sheet.id}/anew`).expect(201)).body as SheetDetail;
    const archive = await take(ada);
    await addStudio(server.dataSource, 'cy@studio.example');
    const cy = await visit(server.app, 'cy@studio.example');
    await bring(cy, archive);
    const all = ((await cy.get('/api/sheets?limit=100').expect(200)).body as { items: { id: string; isReview: boolean }[] }).items.filter(
      ({ isReview }) => isReview,
    );
    const details = await Promise.all(all.map(({ id }) => read(cy, id)));
    const back = details.find(({ sentAt, replacedBy }) => sentAt === sheet.sentAt && replacedBy !== null);
    expect(back?.review?.priority).toEqual(sheet.review?.priority);
    expect(details.find(({ id }) => id === back?.replacedBy)).toMatchObject({ title: anew.title, sentAt: null, replaces: back?.id });
  });

  it('is nowhere in the database when its student is deleted', async () => {
    const alias = 'Quenby of the ferry';
    pim = ((await ada.post('/api/students', { alias }).expect(201)).body as { id: string }).id;
    await setLines(line('c', 'e'));
    const lesson = await heldLesson();
    await judge(lesson, 'C to E', 'not-yet', 'Low G cuts in');
    await send(await propose(lesson.id), 'grown.up@example.org');
    await ada.agent.delete(`/api/students/${pim}`).set('x-zelpit-token', ada.token).expect(204);
    await ada.agent.delete(`/api/put-away/students/${pim}`).set('x-zelpit-token', ada.token).expect(204);
    const tables = await server.dataSource.query<{ name: string }[]>(
      "SELECT c.table_name AS name FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name) WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' GROUP BY 1",
    );
    for (const { name } of tables) {
      const [{ found }] = await server.dataSource.query<{ found: string }[]>(
        `SELECT count(*) AS found FROM "${name}" row WHERE position($1 in row::text) > 0 OR position($2 in row::text) > 0`,
        [pim, alias],
      );
      expect([name, found]).toEqual([name, '0']);
    }
  });
});
