import request from 'supertest';
import { startTestServer, type TestServer } from '../testing/test-server';
import { isServedAs } from './doors';

describe('isServedAs', () => {
  it.each([
    ['localhost:4280', true],
    ['127.0.0.1:4280', true],
    ['[::1]:4280', true],
    ['LOCALHOST', true],
    ['evil.example', false],
    ['localhost.evil.example', false],
    ['127.0.0.1.evil.example', false],
    ['192.168.1.9:4280', false],
    ['', false],
    [undefined, false],
  ])('on loopback, %s: %s', (asked, expected) => expect(isServedAs({ host: '127.0.0.1' }, asked)).toBe(expected));

  it('knows the address that was set, and addresses in figures where every interface is served', () => {
    const served = { address: 'https://studio.example', host: '0.0.0.0' };
    expect(['studio.example', 'studio.example:443', '192.168.1.9:4280', 'other.example'].map((asked) => isServedAs(served, asked))).toEqual([
      true,
      true,
      true,
      false,
    ]);
  });
});

describe('the doors', () => {
  let server: TestServer;
  beforeAll(async () => (server = await startTestServer()));
  afterAll(() => server.close());

  it('are closed to a name that was pointed here by somebody else', async () => {
    await request(server.app)
      .get('/api/session')
      .set('host', 'rebound.example')
      .expect(421, /does not answer under this address/);
    await request(server.app).get('/api/health').set('host', 'rebound.example').expect(421);
  });

  it('are closed to pages of other sites, of other ports and without an origin of their own', async () => {
    for (const origin of ['https://evil.example', 'http://127.0.0.1:1', 'null'])
      await request(server.app)
        .get('/api/session')
        .set('origin', origin)
        .expect(403, /another site/);
  });

  it('are open to the application itself', async () => {
    await request(server.app).get('/api/session').set('host', 'localhost:4280').set('origin', 'http://localhost:4280').expect(200);
  });

  it('believe no forwarding header where no proxy was named', async () => {
    await request(server.app).get('/api/outbox').expect(200);
    for (const [name, value] of [
      ['x-forwarded-for', '127.0.0.1'],
      ['x-real-ip', '203.0.113.9'],
      ['forwarded', 'for=127.0.0.1'],
    ])
      await request(server.app).get('/api/outbox').set(name, value).expect(403);
  });

  it('believe the proxy that was named', async () => {
    const behind = await startTestServer({ proxy: ['loopback'] });
    await request(behind.app).get('/api/outbox').set('x-forwarded-for', '203.0.113.9').expect(403);
    await request(behind.app).get('/api/outbox').set('x-forwarded-for', '127.0.0.1').expect(200);
    await behind.close();
  });
});
