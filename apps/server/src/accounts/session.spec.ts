import { tokenHeader, type Session } from '@zelpit/contract';
import request from 'supertest';
import { demoSignIn } from '../demo/demo-studio.data';
import { loadDemo, removeDemo } from '../demo/load-demo';
import { addStudio, password, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

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
    const [{ password_hash: stored }] = await server.dataSource.query<{ password_hash: string }[]>('SELECT password_hash FROM account');
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

  it('stores nothing of a browser that only looks', async () => {
    const looking = await startTestServer();
    try {
      const visitor = await visit(looking.app);
      for (const path of ['/api/session', '/api/students', '/api/session']) await visitor.get(path);
      await visitor.post('/api/session', { email: 'nobody@studio.example', password }).expect(401);
      expect(await looking.dataSource.query('SELECT sid FROM session')).toEqual([]);
    } finally {
      await looking.close();
    }
  });

  it('takes no token that belongs to another browser’s visit', async () => {
    const [one, other] = [await visit(server.app), await visit(server.app)];
    await one.agent.post('/api/session').set(tokenHeader, other.token).send({ email: 'ada@studio.example', password }).expect(403);
  });

  it('ends after its life, however much it is used', async () => {
    const visitor = await visit(server.app, 'ada@studio.example');
    await visitor.get('/api/students').expect(200);
    const age = (days: number): Promise<unknown> =>
      server.dataSource.query(
        "UPDATE session SET sess = jsonb_set(sess::jsonb, '{since}', to_jsonb((extract(epoch FROM now()) - $1::numeric * 86400) * 1000))",
        [days],
      );
    await age(29.9);
    await visitor.get('/api/students').expect(200);
    await age(30.1);
    await visitor.get('/api/students').expect(401);
  });

  it('gives a new id where rights have changed, and the page goes on with its token', async () => {
    const own = await startTestServer();
    try {
      await addStudio(own.dataSource, 'ada@studio.example');
      const visitor = await visit(own.app, 'ada@studio.example');
      const ids = async (): Promise<readonly string[]> => (await own.dataSource.query<{ sid: string }[]>('SELECT sid FROM session')).map(({ sid }) => sid);
      await visitor.get('/api/session').expect(200);
      const [before] = await ids();
      await visitor.get('/api/session').expect(200);
      expect(await ids()).toEqual([before]);
      await own.dataSource.query("UPDATE membership SET role = 'teacher'");
      await visitor.get('/api/session').expect(200);
      expect(await ids()).not.toContain(before);
      await visitor.post('/api/students', { alias: 'Pim' }).expect(201);
    } finally {
      await own.close();
    }
  });

  it('keeps its cookies to https where people come by https', async () => {
    const secure = await startTestServer({ address: 'https://studio.example', proxy: ['loopback'] });
    try {
      await addStudio(secure.dataSource, 'ada@studio.example');
      const ask = (call: request.Test): request.Test => call.set('host', 'studio.example').set('x-forwarded-proto', 'https');
      const first = await ask(request(secure.app).get('/api/session')).expect(200);
      const cookie = first.headers['set-cookie'][0];
      expect(cookie).toMatch(/^__Host-zelpit-visit=.*Path=\/; HttpOnly; Secure; SameSite=Lax$/);
      expect(first.headers['strict-transport-security']).toBe('max-age=15552000');
      const signedIn = await ask(request(secure.app).post('/api/session'))
        .set('cookie', cookie.split(';')[0])
        .set(tokenHeader, (first.body as Session).token)
        .send({ email: 'ada@studio.example', password })
        .expect(200);
      expect(signedIn.headers['set-cookie'].toString()).toMatch(/__Host-zelpit=[^;]+; Path=\/; .*HttpOnly; Secure/);
      expect((await request(server.app).get('/api/session')).headers['strict-transport-security']).toBeUndefined();
    } finally {
      await secure.close();
    }
  });

  it('ignores a forged cookie', async () => {
    await request(server.app).get('/api/students').set('cookie', 'zelpit=s%3Aforged.signature').expect(401);
  });

  it('ends with signing out', async () => {
    const visitor = await visit(server.app, 'ada@studio.example');
    await visitor.remove('/api/session').expect(200);
    await visitor.get('/api/students').expect(401);
  });

  describe('who guesses passwords', () => {
    let guarded: TestServer;
    beforeEach(async () => {
      guarded = await startTestServer();
      for (const name of ['ada', 'bea']) await addStudio(guarded.dataSource, `${name}@studio.example`);
    });
    afterEach(() => guarded.close());
    const guess = async (visitor: Visitor, email: string): Promise<number> => (await visitor.post('/api/session', { email, password: 'a guess' })).status;

    it.each(['ada@studio.example', 'nobody@studio.example'])('is slowed down for %s, whether somebody has this address or not', async (email) => {
      const visitor = await visit(guarded.app);
      const statuses: number[] = [];
      for (let attempt = 0; attempt < 7; attempt += 1) statuses.push(await guess(visitor, email));
      expect(statuses).toEqual([401, 401, 401, 401, 401, 429, 429]);
      const answer = await visitor.post('/api/session', { email, password: 'a guess' }).expect(429);
      expect(Number(answer.headers['retry-after'])).toBeGreaterThan(0);
      expect((answer.body as { detail: string }).detail).toMatch(/^Too many wrong passwords. Try again in (a second|2 seconds).$/);
    });

    it('gets no more tries by asking many times at once', async () => {
      const visitor = await visit(guarded.app);
      const statuses = await Promise.all(Array.from({ length: 20 }, () => guess(visitor, 'ada@studio.example')));
      expect(statuses.filter((status) => status === 401)).toHaveLength(5);
    });

    it('does not lock out others behind the same address, and a right password ends the counting', async () => {
      const visitor = await visit(guarded.app);
      for (let attempt = 0; attempt < 7; attempt += 1) await guess(visitor, 'ada@studio.example');
      await visit(guarded.app, 'bea@studio.example');
      await guarded.dataSource.query("UPDATE tries SET waits_until = now() - interval '1 second'");
      await visit(guarded.app, 'ada@studio.example');
      expect(await guess(visitor, 'ada@studio.example')).toBe(401);
      expect(await guess(visitor, 'ada@studio.example')).toBe(401);
    });

    it('waits twice as long each time, and never longer than a quarter of an hour', async () => {
      const visitor = await visit(guarded.app);
      const pauses: number[] = [];
      for (let attempt = 0; attempt < 20; attempt += 1) {
        await guarded.dataSource.query('UPDATE tries SET waits_until = last_at');
        await guess(visitor, 'ada@studio.example');
        const [{ seconds }] = await guarded.dataSource.query<{ seconds: string }[]>(
          "SELECT extract(epoch FROM waits_until - last_at) AS seconds FROM tries WHERE key LIKE 'password from there%'",
        );
        pauses.push(Number(seconds));
      }
      expect(pauses.slice(0, 8)).toEqual([0, 0, 0, 0, 2, 4, 8, 16]);
      expect(Math.max(...pauses)).toBe(900);
    });
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
      const tunes = (await agent.get('/api/tunes')).body.items as { title: string; outside: number; bars: number; rhythm: string }[];
      expect(tunes).toHaveLength(25);
      expect(tunes.every((tune) => tune.bars >= 8)).toBe(true);
      expect(tunes.filter((tune) => tune.outside > 0).map(({ title }) => title)).toEqual(['Hymn for the Lamplighter']);
      expect(new Set(tunes.map((tune) => tune.rhythm.split(' ').at(-1)))).toEqual(
        new Set(['march', 'strathspey', 'reel', 'jig', 'air', 'waltz', 'song', 'hymn', 'round']),
      );
      const students = (await agent.get('/api/students')).body.items as { alias: string }[];
      expect(students).toHaveLength(12);
      const sheets = (await agent.get('/api/sheets')).body.items as {
        student: { alias: string };
        isReview: boolean;
        sentAt: string | null;
        lineCount: number;
      }[];
      expect(new Set(sheets.map(({ student }) => student.alias))).toEqual(new Set(students.map(({ alias }) => alias)));
      expect(sheets.filter(({ isReview }) => isReview)).toMatchObject([{ student: { alias: 'Pim' }, sentAt: expect.any(String) as string }]);
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
