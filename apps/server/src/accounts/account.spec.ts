import { demoSignIn } from '../demo/demo-studio.data';
import { loadDemo } from '../demo/load-demo';
import { addStudio, password, startTestServer, visit, type TestServer } from '../testing/test-server';

let server: TestServer;
const next = 'a better password';
beforeAll(async () => {
  server = await startTestServer({ isDemo: true });
  await addStudio(server.dataSource, 'ada@studio.example');
  await addStudio(server.dataSource, 'bo@studio.example');
});
afterAll(() => server.close());

describe('changing a password', () => {
  it('needs the one that holds now, and a new one that is long enough', async () => {
    const ada = await visit(server.app, 'ada@studio.example');
    await ada.put('/api/account/password', { current: 'wrong', next }).expect(403, /not your current password/);
    await ada.put('/api/account/password', { current: password, next: 'short' }).expect(400, /at least 12 characters/);
    await ada.put('/api/account/password', { current: '', next }).expect(400);
    await (await visit(server.app)).post('/api/session', { email: 'ada@studio.example', password }).expect(200);
  });

  it("holds from then on and ends the sessions on other computers, not this one and nobody else's", async () => {
    const here = await visit(server.app, 'ada@studio.example');
    const elsewhere = await visit(server.app, 'ada@studio.example');
    const bo = await visit(server.app, 'bo@studio.example');
    const ids = async (): Promise<readonly string[]> =>
      (
        await server.dataSource.query<{ sid: string }[]>(
          "SELECT s.sid FROM session s JOIN account a ON a.id::text = s.sess->>'teacherId' WHERE a.email = 'ada@studio.example'",
        )
      ).map(({ sid }) => sid);
    const before = await ids();
    await here.put('/api/account/password', { current: password, next }).expect(204);
    // The session that stays has a new id: the one of before holds nothing any more, here either.
    const after = await ids();
    expect(after).toHaveLength(1);
    expect(before).not.toContain(after[0]);
    await here.get('/api/students').expect(200);
    await elsewhere.get('/api/students').expect(401);
    await bo.get('/api/students').expect(200);
    const fresh = await visit(server.app);
    await fresh.post('/api/session', { email: 'ada@studio.example', password }).expect(401);
    await fresh.post('/api/session', { email: 'ada@studio.example', password: next }).expect(200);
    await here.put('/api/account/password', { current: next, next: password }).expect(204);
  });

  it('is refused in the demo studio, whose password stands on the page', async () => {
    await loadDemo(server.dataSource);
    const demo = await visit(server.app);
    const { body } = await demo.post('/api/session', demoSignIn).expect(200);
    await demo.agent
      .put('/api/account/password')
      .set('x-zelpit-token', (body as { token: string }).token)
      .send({ current: demoSignIn.password, next })
      .expect(422, /password cannot be changed/);
  });
});

describe('signing out everywhere', () => {
  it('ends every session of this teacher and of nobody else', async () => {
    const all = await Promise.all([1, 2, 3].map(() => visit(server.app, 'ada@studio.example')));
    const bo = await visit(server.app, 'bo@studio.example');
    await all[0].remove('/api/account/sessions').expect(204);
    for (const visitor of all) await visitor.get('/api/students').expect(401);
    await bo.get('/api/students').expect(200);
    const [{ count }] = await server.dataSource.query<{ count: number }[]>(
      "SELECT count(*)::int AS count FROM session s JOIN account t ON t.id::text = s.sess->>'teacherId' WHERE t.email = 'ada@studio.example'",
    );
    expect(count).toBe(0);
  });
});
