import express from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { problemHandler } from '../http/problem';
import { clusterUrl, rowsClusterUrl, onCluster, startTestServer, type TestServer } from '../testing/test-server';
import { createDataSource, migrate } from '../database/data-source';
import { readConfig } from './config';
import { tables } from '../things/tables';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

describe('the server', () => {
  it('says that it lives and that it is ready', async () => {
    await request(server.app).get('/api/health').expect(200, { status: 'ok' });
    await request(server.app).get('/api/ready').expect(200, { status: 'ready' });
  });

  it('answers an unknown address with a problem that people can read', async () => {
    const answer = await request(server.app).get('/api/session/none').expect(404);
    expect(answer.type).toBe('application/problem+json');
    expect(answer.body).toMatchObject({ type: 'urn:zelpit:problem:not-found', status: 404, detail: 'The server has nothing at this address.' });
    await request(server.app).get('/nowhere').expect(404);
  });

  it('allows nothing from elsewhere and no inline script', async () => {
    const answer = await request(server.app).get('/');
    const policy = answer.headers['content-security-policy'];
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self';");
    expect(policy).toMatch(/style-src 'self' 'sha256-[^']+' 'nonce-[^']+';/);
    expect(policy).not.toMatch(/https?:|unsafe-eval/);
    expect(answer.headers['x-powered-by']).toBeUndefined();
    expect(answer.headers['x-content-type-options']).toBe('nosniff');
  });

  it('lets two processes bring the tables up to date at once', async () => {
    await onCluster('DROP DATABASE IF EXISTS migrate_twice WITH (FORCE)');
    await onCluster('CREATE DATABASE migrate_twice');
    const url = new URL(clusterUrl());
    url.pathname = '/migrate_twice';
    await Promise.all([1, 2].map(() => migrate(url.toString(), rowsClusterUrl())));
    const source = createDataSource(url.toString(), tables, () => undefined);
    await source.initialize();
    const [{ count }] = await source.query<{ count: string }[]>('SELECT count(*) FROM migrations');
    expect(count).toBe(String(source.migrations.length));
    await source.destroy();
    await onCluster('DROP DATABASE migrate_twice WITH (FORCE)');
  });

  it('outlives a database that goes and comes back', async () => {
    await request(server.app).get('/api/ready').expect(200);
    await onCluster(`ALTER DATABASE ${server.databaseName} WITH ALLOW_CONNECTIONS false`);
    await onCluster(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${server.databaseName}'`);
    await request(server.app).get('/api/health').expect(200);
    await request(server.app).get('/api/ready').expect(503);
    await onCluster(`ALTER DATABASE ${server.databaseName} WITH ALLOW_CONNECTIONS true`);
    await request(server.app).get('/api/ready').expect(200);
    await request(server.app).get('/api/session').expect(200);
  });
});

describe('what comes in', () => {
  it('is JSON or a file; anything else is refused with a sentence', async () => {
    const answer = await request(server.app).get('/api/session');
    const token = (answer.body as { token: string }).token;
    const cookie = answer.headers['set-cookie'];
    const post = () => request(server.app).post('/api/session').set('cookie', cookie).set('x-zelpit-token', token);
    await post()
      .type('text/plain')
      .send('email=x')
      .expect(415, /content type application\/json/);
    await post()
      .type('application/json')
      .send('{"email":')
      .expect(400, /no valid JSON/);
    await post()
      .type('application/json')
      .send(`${'['.repeat(10_000)}${']'.repeat(10_000)}`)
      .expect(400);
    await post()
      .send({ email: 'a\u0000@b.example', password: 'x' })
      .expect(400, /characters that cannot be shown/);
    await post()
      .send({ email: 'x'.repeat(1_000_001), password: 'x' })
      .expect(413);
  });

  it('never gets into the log', async () => {
    const lines: string[] = [];
    const logger = pino({ level: 'debug' }, { write: (line: string) => void lines.push(line) });
    const app = express();
    app.get('/', () => {
      throw Object.assign(new Error('invalid byte sequence'), { code: '22021', parameters: ['a child’s name'], detail: 'Key (alias)=(a child’s name)' });
    });
    app.use(problemHandler(logger));
    await request(app).get('/').expect(500);
    expect(lines.join()).toContain('invalid byte sequence');
    expect(lines.join()).not.toContain('child');
  });
});

describe('readConfig', () => {
  it('says which settings are missing or wrong', () => {
    expect(() => readConfig({})).toThrow(/DATABASE_URL/);
    expect(() => readConfig({ DATABASE_URL: 'mysql://x', ZELPIT_SESSION_SECRET: 'short' })).toThrow(/postgresql:.*at least 32/s);
  });

  it('takes a store of files whole, or not at all', () => {
    const enough = { DATABASE_URL: 'postgresql://x@y/z', ZELPIT_SESSION_SECRET: 'x'.repeat(32) };
    expect(readConfig(enough).files).toBeUndefined();
    expect(() => readConfig({ ...enough, ZELPIT_FILES_BUCKET: 'takes' })).toThrow(/ZELPIT_FILES, ZELPIT_FILES_BUCKET, .* all four/);
    expect(() => readConfig({ ...enough, ZELPIT_FILES: 'store' })).toThrow(/must look like https/);
    const store = { ZELPIT_FILES: 'https://store.example', ZELPIT_FILES_BUCKET: 'takes', ZELPIT_FILES_KEY: 'k', ZELPIT_FILES_SECRET: 's' };
    expect(readConfig({ ...enough, ...store }).files).toEqual({
      address: 'https://store.example',
      bucket: 'takes',
      region: 'us-east-1',
      key: 'k',
      secret: 's',
    });
  });
});
