import { tokenHeader } from '@zelpit/contract';
import request from 'supertest';
import { demoSignIn } from '../demo/demo-studio.data';
import { loadDemo, removeDemo } from '../demo/load-demo';
import { addStudio, password, startTestServer, visit, type TestServer } from '../testing/test-server';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
});
afterAll(() => server.close());

describe('signing in', () => {
  it('opens a session whose cookie scripts cannot read', async () => {
    const agent = request.agent(server.app);
    const { body } = await agent.get('/api/session');
    expect(body.signedIn).toBeNull();
    const answer = await agent.post('/api/session').set(tokenHeader, body.token).send({ email: 'Ada@Studio.example', password }).expect(200);
    expect(answer.body.signedIn.person.name).toBe('A Teacher');
    const [cookie] = answer.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/);
    expect((await agent.get('/api/session')).body.signedIn.studio.name).toBe('Studio of ada@studio.example');
  });

  it('keeps no password that could be read', async () => {
    const [{ password_hash: stored }] = await server.dataSource.query<{ password_hash: string }[]>('SELECT password_hash FROM teacher');
    expect(stored).toMatch(/^\$argon2id\$/);
    expect(stored).not.toContain(password);
  });

  it.each([
    [{ email: 'ada@studio.example', password: 'wrong' }, 401],
    [{ email: 'nobody@studio.example', password }, 401],
    [{ email: '', password: '' }, 400],
    [{ email: "' OR 1=1 --", password }, 401],
    [{ email: { $ne: 1 }, password }, 400],
  ])('refuses %j with %i', async (body, status) => {
    const visitor = await visit(server.app);
    await visitor.post('/api/session', body).expect(status);
  });

  it('refuses a write without the token of the session', async () => {
    const visitor = await visit(server.app, 'ada@studio.example');
    await visitor.agent.post('/api/students').send({ alias: 'Pim' }).expect(403);
    await visitor.agent.post('/api/students').set(tokenHeader, 'x'.repeat(visitor.token.length)).send({ alias: 'Pim' }).expect(403);
    expect((await visitor.get('/api/students')).body.items).toEqual([]);
  });

  it('ignores a forged cookie', async () => {
    await request(server.app).get('/api/students').set('cookie', 'zelpit=s%3Aforged.signature').expect(401);
  });

  it('ends with signing out', async () => {
    const visitor = await visit(server.app, 'ada@studio.example');
    await visitor.remove('/api/session').expect(200);
    await visitor.get('/api/students').expect(401);
  });

  it('slows down who guesses passwords', async () => {
    const guarded = await startTestServer();
    try {
      const visitor = await visit(guarded.app);
      const statuses: number[] = [];
      for (let attempt = 0; attempt < 12; attempt += 1)
        statuses.push((await visitor.post('/api/session', { email: 'ada@studio.example', password: `guess ${attempt}` })).status);
      expect(statuses).toEqual([...Array(10).fill(401), 429, 429]);
    } finally {
      await guarded.close();
    }
  });
});

describe('the demo studio', () => {
  it('is shown in demo mode only', async () => {
    const demo = await startTestServer({ isDemo: true });
    try {
      expect((await request(demo.app).get('/api/session')).body.demo).toBeNull();
      await loadDemo(demo.dataSource);
      expect((await request(demo.app).get('/api/session')).body.demo).toEqual(demoSignIn);
      expect((await request(server.app).get('/api/session')).body.demo).toBeNull();
    } finally {
      await demo.close();
    }
  });

  it('holds whole tunes for every family, students and a first sheet, and goes without touching other studios', async () => {
    const demo = await startTestServer({ isDemo: true });
    try {
      await addStudio(demo.dataSource, 'other@studio.example');
      await loadDemo(demo.dataSource);
      const agent = request.agent(demo.app);
      const { token } = (await agent.get('/api/session')).body;
      await agent.post('/api/session').set(tokenHeader, token).send(demoSignIn).expect(200);
      const tunes = (await agent.get('/api/tunes')).body.items as { outside: number; bars: number; rhythm: string }[];
      expect(tunes).toHaveLength(17);
      expect(tunes.every((tune) => tune.outside === 0 && tune.bars >= 16)).toBe(true);
      expect(new Set(tunes.map((tune) => tune.rhythm.split(' ').at(-1)))).toEqual(new Set(['march', 'strathspey', 'reel', 'jig', 'air', 'waltz']));
      expect((await agent.get('/api/sheets')).body.items).toMatchObject([{ lineCount: 5 }]);
      await removeDemo(demo.dataSource);
      await agent.get('/api/session').expect(200);
      await agent.get('/api/tunes').expect(401);
      const rest = await demo.dataSource.query<{ name: string }[]>('SELECT name FROM studio');
      expect(rest).toEqual([{ name: 'Studio of other@studio.example' }]);
    } finally {
      await demo.close();
    }
  });
});
