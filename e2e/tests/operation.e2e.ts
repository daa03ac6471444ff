import { expect, test } from '@playwright/test';
import { createServer, request as proxyRequest, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import { signInToDemo } from '../api-visitor';
import { freshDatabase, isFree, startServer } from '../server.mjs';

interface Sheet {
  readonly id: string;
  readonly title: string;
  readonly note: string;
  readonly version: number;
  readonly lines: readonly { readonly code: string }[];
}

/** A reverse proxy that sends each request to the next server. */
function roundRobin(addresses: readonly string[]): Promise<{ server: Server; address: string }> {
  let next = 0;
  const server = createServer((request, response) => {
    const target = new URL(request.url ?? '/', addresses[next++ % addresses.length]);
    const onward = proxyRequest(target, { method: request.method, headers: request.headers }, (answer) => {
      response.writeHead(answer.statusCode ?? 502, answer.headers);
      answer.pipe(response);
    });
    onward.on('error', () => response.writeHead(502).end());
    request.pipe(onward);
  });
  return new Promise((resolve) =>
    server.listen(0, '127.0.0.1', () => resolve({ server, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}` })),
  );
}

/** A free port below those that the system hands out by itself, so that nobody else is given it meanwhile. */
async function quietPort(): Promise<number> {
  for (;;) {
    const port = 20_000 + Math.floor(Math.random() * 10_000);
    if (await isFree(port)) return port;
  }
}

const save = (sheet: Sheet, title: string) => ({ title, note: sheet.note, version: sheet.version, lines: sheet.lines.map(({ code: _, ...line }) => line) });

test('two servers on one database behind a proxy: one session, one order of saves', async () => {
  const secret = 's'.repeat(40);
  const one = await startServer({ sessionSecret: secret });
  const other = await startServer({ sessionSecret: secret, databaseUrl: one.databaseUrl });
  const proxy = await roundRobin([one.address, other.address]);
  try {
    const visitor = await signInToDemo(proxy.address);
    const [{ id }] = await visitor.list<Sheet>('/api/sheets');
    let sheet = await visitor.get<Sheet>(`/api/sheets/${id}`);
    for (let round = 1; round <= 6; round += 1) {
      const answer = await visitor.send('PUT', `/api/sheets/${id}`, save(sheet, `Round ${round}`));
      expect(answer.status).toBe(200);
      sheet = (await answer.json()) as Sheet;
      expect(await visitor.get(`/api/sheets/${id}`)).toEqual(sheet);
    }
    const stale = { ...sheet, version: sheet.version - 1 };
    for (const at of [one.address, other.address]) expect((await visitor.send('PUT', `/api/sheets/${id}`, save(stale, 'Late'), at)).status).toBe(409);
    const race = await Promise.all([one, other].map(({ address }, index) => visitor.send('PUT', `/api/sheets/${id}`, save(sheet, `Racer ${index}`), address)));
    expect(race.map((answer) => answer.status).sort()).toEqual([200, 409]);
    expect((await visitor.send('DELETE', '/api/session')).status).toBe(200);
    for (const at of [one.address, other.address]) expect((await visitor.send('GET', '/api/sheets', undefined, at)).status).toBe(401);
  } finally {
    proxy.server.close();
    await Promise.all([one.stop(), other.stop()]);
  }
});

test('told to stop, the server finishes what runs and ends cleanly', async () => {
  const server = await startServer();
  const visitor = await signInToDemo(server.address);
  const book = Array.from({ length: 1500 }, (_, index) => `X:${index + 1}\nT:Tune ${index + 1}\nM:2/4\nL:1/8\nK:HP\nA>c c>e|d>B d>f|\n`).join('\n');
  const bringing = proxyRequest(`${server.address}/api/tunes/import`, {
    method: 'POST',
    headers: { ...visitor.headers, 'content-type': 'application/octet-stream', 'content-length': Buffer.byteLength(book), expect: '100-continue' },
  });
  const answered = new Promise<{ status: number; body: string }>((resolve, reject) => {
    bringing.on('error', reject);
    bringing.on('response', (response) => {
      let body = '';
      response.on('data', (chunk: Buffer) => (body += chunk.toString()));
      response.on('end', () => resolve({ status: response.statusCode ?? 0, body }));
    });
  });
  // The server has the request in hand; only then it is told to stop, and only then the file is sent.
  bringing.flushHeaders();
  await new Promise((resolve) => bringing.once('continue', resolve));
  server.child.kill('SIGTERM');
  await expect
    .poll(() =>
      fetch(`${server.address}/api/health`).then(
        () => 'answers',
        () => 'refuses',
      ),
    )
    .toBe('refuses');
  bringing.end(book);
  const { status, body } = await answered;
  expect(status).toBe(201);
  expect((JSON.parse(body) as { saved: unknown[] }).saved).toHaveLength(1500);
  expect(await server.ended).toBe(0);
  const client = new pg.Client({ connectionString: server.databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ count: number }>("SELECT count(*)::int FROM tune WHERE title LIKE 'Tune %'");
  await client.end();
  expect(rows[0].count).toBe(1500);
});

test('started before its database, the server lives, says that it is not ready, and is so when the database comes', async () => {
  const url = new URL(await freshDatabase());
  const [port, gatePort] = [await quietPort(), await quietPort()];
  const dead = new URL(url);
  dead.port = String(gatePort);
  const starting = startServer({ databaseUrl: dead.toString(), env: { ZELPIT_PORT: String(port), ZELPIT_LOG: 'silent' } });
  const status = (path: string): Promise<number> =>
    fetch(`http://127.0.0.1:${port}${path}`).then(
      (answer) => answer.status,
      () => 0,
    );
  await expect.poll(() => status('/api/health'), { timeout: 15_000 }).toBe(200);
  expect(await status('/api/ready')).toBe(503);
  expect(await status('/api/tunes')).toBe(503);
  const { createServer: createTcp, connect } = await import('node:net');
  const relay = createTcp((socket) => {
    const onward = connect(Number(url.port), '127.0.0.1');
    socket.pipe(onward).pipe(socket);
    socket.on('error', () => onward.destroy());
    onward.on('error', () => socket.destroy());
  });
  await new Promise<void>((resolve) => relay.listen(gatePort, '127.0.0.1', () => resolve()));
  const server = await starting;
  expect(await status('/api/ready')).toBe(200);
  await server.stop();
  relay.close();
});

test('figures for machines are served on loopback, by route and without names', async () => {
  const port = await quietPort();
  const server = await startServer({ env: { ZELPIT_METRICS_PORT: String(port) } });
  try {
    const visitor = await signInToDemo(server.address);
    const [{ id }] = await visitor.list<Sheet>('/api/sheets');
    await visitor.get(`/api/sheets/${id}`);
    const text = await (await fetch(`http://127.0.0.1:${port}/metrics`)).text();
    expect(text).toMatch(/zelpit_request_seconds_count\{method="GET",route="\/api\/sheets\/:id",status="200"\} 1/);
    expect(text).toContain('process_cpu_seconds_total');
    expect(text).not.toContain(id);
    expect((await fetch(`${server.address}/metrics`)).headers.get('content-type')).toContain('text/html');
    expect((await fetch(`http://127.0.0.1:${port}/else`)).status).toBe(404);
  } finally {
    await server.stop();
  }
});
