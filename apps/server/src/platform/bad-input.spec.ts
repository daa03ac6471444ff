import { tokenHeader, type Page, type Session, type SheetDetail, type Student } from '@zelpit/contract';
import { createServer, request as httpRequest, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { addStudio, password, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;
let listening: Server;
let port: number;
beforeAll(async () => {
  server = await startTestServer();
  await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  listening = createServer(server.app);
  await new Promise<void>((resolve) => listening.listen(0, '127.0.0.1', resolve));
  ({ port } = listening.address() as AddressInfo);
});
afterAll(async () => {
  await new Promise((resolve) => listening.close(resolve));
  await server.close();
});

/** A session of Ada's with its cookie and token in the hand. */
async function session(): Promise<{ cookie: string; token: string }> {
  const cookieOf = (response: Response): string => response.headers.getSetCookie()[0].split(';')[0];
  const first = await fetch(`http://127.0.0.1:${port}/api/session`);
  const headers = { cookie: cookieOf(first), [tokenHeader]: ((await first.json()) as Session).token, 'content-type': 'application/json' };
  const body = JSON.stringify({ email: 'ada@studio.example', password });
  const signedIn = await fetch(`http://127.0.0.1:${port}/api/session`, { method: 'POST', headers, body });
  return { cookie: cookieOf(signedIn), token: ((await signedIn.json()) as Session).token };
}

/** Sends bytes as they are and gives what comes back. */
const raw = (bytes: string): Promise<string> =>
  new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1', () => socket.end(bytes));
    let answer = '';
    socket.setEncoding('utf8').on('data', (part: string) => (answer += part));
    socket.on('close', () => resolve(answer)).on('error', reject);
  });

const statusOf = (answer: string): number => Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1]);
const isAlive = async (): Promise<void> => void (await ada.get('/api/ready').expect(200));

/** Pushes a body of so many bytes at an address and gives the status, and how much was taken before it was refused. */
function push(path: string, type: string, bytes: number, { cookie, token }: { cookie: string; token: string }): Promise<{ status: number; sent: number }> {
  return new Promise((resolve, reject) => {
    const headers = { cookie, [tokenHeader]: token, 'content-type': type, 'content-length': String(bytes) };
    let sent = 0;
    const pushing = httpRequest({ port, path, method: 'POST', headers }, (response) => {
      response.resume();
      pushing.destroy();
      resolve({ status: response.statusCode ?? 0, sent });
    });
    pushing.on('error', (error: NodeJS.ErrnoException) => (error.code === 'ECONNRESET' || error.code === 'EPIPE' ? undefined : reject(error)));
    const part = Buffer.alloc(100_000, 'x');
    const more = (): void => {
      while (sent < bytes && !pushing.destroyed) {
        sent += part.length;
        if (!pushing.write(part)) {
          pushing.once('drain', more);
          return;
        }
      }
    };
    more();
  });
}

describe('a body that is too large', () => {
  it.each([
    ['/api/students', 'application/json', 100_000_000],
    ['/api/tunes/import', 'text/plain', 100_000_000],
    ['/api/jobs/tunes', 'text/plain', 100_000_000],
    ['/api/jobs/restore', 'application/zip', 2_000_000_000],
  ])('is refused at %s before it has come in', async (path, type, bytes) => {
    const { status, sent } = await push(path, type, bytes, await session());
    expect(status).toBe(413);
    expect(sent).toBeLessThan(50_000_000);
    await isAlive();
  });
});

describe('JSON', () => {
  const post = (body: string) => ada.agent.post('/api/students').set(tokenHeader, ada.token).set('content-type', 'application/json').send(body);

  it('nested 10 000 deep is refused with a sentence', async () => {
    for (const deep of [
      `${'['.repeat(10_000)}${']'.repeat(10_000)}`,
      `${'{"alias":'.repeat(10_000)}1${'}'.repeat(10_000)}`,
      `{"alias":"x","consent":${'['.repeat(10_000)}${']'.repeat(10_000)}}`,
    ]) {
      const { body } = await post(deep).expect(400);
      expect((body as { detail: string }).detail).toMatch(/\w/);
    }
    await isAlive();
  });

  it.each(['{"alias":"Pim","__proto__":{"role":"owner"}}', '{"alias":"Pim","constructor":1}', '{"alias":["Pim"]}', '{"alias":null}', '"Pim"', '[]', '1e999'])(
    '%s is refused',
    async (body) => {
      await post(body).expect(400);
    },
  );
});

describe('content types', () => {
  it.each(['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data; boundary=x', 'text/html', ''])('%s is refused for JSON', async (type) => {
    await ada.agent.post('/api/students').set(tokenHeader, ada.token).set('content-type', type).send('alias=Pim').expect(415);
  });
});

describe('cookies and tokens', () => {
  it('that are forged, cut or of another session open nothing', async () => {
    const { cookie } = await session();
    const [name, value] = cookie.split('=');
    const other = await visit(server.app);
    for (const forged of [
      `${name}=s%3Aforged.signature`,
      `${name}=${value.slice(0, -3)}abc`,
      `${name}=`,
      `${name}=${'x'.repeat(5000)}`,
      'zelpit=s%3A..%2F..%2Fetc.x',
    ]) {
      const answer = await raw(`GET /api/students HTTP/1.1\r\nhost: localhost\r\ncookie: ${forged}\r\nconnection: close\r\n\r\n`);
      expect(statusOf(answer)).toBe(401);
    }
    await ada.agent.post('/api/students').send({ alias: 'Pim' }).expect(403);
    await ada.agent.post('/api/students').set(tokenHeader, other.token).send({ alias: 'Pim' }).expect(403);
    await ada.agent.post('/api/students').set(tokenHeader, '').send({ alias: 'Pim' }).expect(403);
    expect(((await ada.get('/api/students')).body as Page<Student>).items).toEqual([]);
  });

  it('live long enough for a browser whose clock is a day off', async () => {
    const visitor = await visit(server.app);
    const answer = await visitor.post('/api/session', { email: 'ada@studio.example', password }).expect(200);
    const cookies = answer.headers['set-cookie'] as unknown as string[];
    const until = new Date(/Expires=([^;]+)/.exec(cookies[0])?.[1] ?? 0).getTime();
    expect(until - Date.now()).toBeGreaterThan(2 * 24 * 3600 * 1000);
  });
});

describe('forty wrong passwords', () => {
  it('are cut off after five, cost little, and do not keep others of another computer out', async () => {
    const guarded = await startTestServer({ proxy: ['loopback'] });
    try {
      await addStudio(guarded.dataSource, 'bea@studio.example');
      const guesser = await visit(guarded.app);
      const counts = new Map<number, number>();
      for (let guess = 0; guess < 40; guess += 1) {
        const { status } = await guesser.post('/api/session', { email: 'bea@studio.example', password: `guess ${guess}` });
        counts.set(status, (counts.get(status) ?? 0) + 1);
      }
      expect([...counts]).toEqual([
        [401, 5],
        [429, 35],
      ]);
      const bea = await visit(guarded.app);
      await bea.post('/api/session', { email: 'bea@studio.example', password }).set('x-forwarded-for', '203.0.113.4').expect(200);
    } finally {
      await guarded.close();
    }
  }, 60_000);
});

describe('tricks with paths and headers', () => {
  it.each([
    '/../../etc/passwd',
    '/..%2f..%2fetc%2fpasswd',
    '/%2e%2e/%2e%2e/etc/passwd',
    '/api/../../package.json',
    '/api//students/../session/..;/students',
    '/api/sheets/%00',
    '/api/sheets/..%2f..%2fstudents',
    "/api/sheets/1' OR '1'='1",
    '/api/lines/%E0%A4%A',
    '/api/lines/%ff%fe',
    '/api/lines/AAAAAAAAAAAAAAAAAAAAAAAAAAAA',
    '//evil.example/api/students',
    '/api/STUDENTS/',
  ])('%s gives nothing away', async (path) => {
    const answer = await raw(`GET ${path.replaceAll(' ', '%20')} HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\n\r\n`);
    expect([400, 401, 404]).toContain(statusOf(answer));
    expect(answer).not.toMatch(/root:|"workspaces"|at .*\.js:\d/);
  });

  it('are answered or dropped, and the server lives on', async () => {
    const get = (headers: string): Promise<string> => raw(`GET /api/students HTTP/1.1\r\nhost: localhost\r\n${headers}connection: close\r\n\r\n`);
    expect(statusOf(await get(`x-long: ${'a'.repeat(20_000)}\r\n`))).toBe(431);
    expect(statusOf(await get('x-http-method-override: DELETE\r\n'))).toBe(401);
    expect(statusOf(await raw('GET /api/students HTTP/1.1\r\nconnection: close\r\n\r\n'))).toBe(400);
    expect(
      statusOf(
        await raw('POST /api/session HTTP/1.1\r\nhost: localhost\r\ncontent-length: 5\r\ntransfer-encoding: chunked\r\nconnection: close\r\n\r\n0\r\n\r\n'),
      ),
    ).toBe(400);
    expect(statusOf(await raw('nonsense\r\n\r\n'))).toBe(400);
    await ada.get('/api/students').set('accept', 'text/html').set('range', 'bytes=0-1').set('if-none-match', '*"').expect(200);
    await isAlive();
  });
});

describe('titles', () => {
  const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };
  let sheet: SheetDetail;
  beforeAll(async () => {
    const { body } = await ada.post('/api/students', { alias: 'מיה 🎶' }).expect(201);
    const input = { studentId: (body as Student).id, tuneId: null, instrument: 'practice-chanter', title: 'Week', note: '', lines: [line] };
    sheet = (await ada.post('/api/sheets', input).expect(201)).body as SheetDetail;
  });
  const save = (title: string, version: number) => ada.put(`/api/sheets/${sheet.id}`, { title, note: '', lines: [], version });

  it('of 10 000 characters are refused with the number that is taken, and the sheet stays as it was', async () => {
    const { body } = await save('a'.repeat(10_000), sheet.version).expect(400);
    expect((body as { detail: string }).detail).toContain('A title can have at most 120 characters.');
    expect(((await ada.get(`/api/sheets/${sheet.id}`)).body as SheetDetail).title).toBe('Week');
  });

  it.each([
    'תרגול שבוע ראשון',
    'تمرين ١',
    '👩‍👩‍👧‍👦🎵 Ż̴͓a̸l̷g̶o',
    '<img src=x onerror=alert(1)>',
    "Robert'); DROP TABLE sheet;--",
    '\u202Eright to left\u202C',
    '${7*7} {{7*7}}',
  ])('%s is kept as it is', async (title) => {
    const { version } = (await ada.get(`/api/sheets/${sheet.id}`)).body as SheetDetail;
    expect(((await save(title, version).expect(200)).body as SheetDetail).title).toBe(title);
  });
});
