import { randomUUID } from 'node:crypto';
import type { AuditEntry, Invitation, Link, Mail, NewInvitation, OwnStudio, Page, Problem, Session, Student, StudentLink, Teacher } from '@zelpit/contract';
import { demoSignIn } from '../demo/demo-studio.data';
import { loadDemo } from '../demo/load-demo';
import { addStudio, password as theirs, startTestServer, visit, visitByLink, visitorOf, type TestServer, type Visitor } from '../testing/test-server';

const password = 'reeds in the rain';
let server: TestServer;
beforeEach(async () => {
  server = await startTestServer();
});
afterEach(() => server.close());

async function found(email = 'ada@fell-row.example'): Promise<Visitor> {
  const visitor = await visit(server.app);
  const { body } = await visitor.post('/api/studios', { studio: 'Fell Row', name: 'Ada Quill', email, password }).expect(201);
  return visitorOf(visitor.agent, (body as Session).token);
}

const mails = async (visitor: Visitor): Promise<Mail[]> => ((await visitor.get('/api/outbox').expect(200)).body as Page<Mail>).items;
const linkIn = ({ body }: Mail): string => /http\S+/.exec(body)?.[0] ?? '';
const deeds = async (owner: Visitor): Promise<string[]> =>
  ((await owner.get('/api/audit').expect(200)).body as Page<AuditEntry>).items.map(({ who, did, kind, thing }) => `${who} ${did} ${kind} ${thing}`);

async function invited(owner: Visitor): Promise<{ teacher: Visitor; link: string }> {
  await owner.post('/api/invitations', { name: 'Ben Sloe', email: 'ben@fell-row.example' }).expect(201);
  const link = linkIn((await mails(owner))[0]);
  return { link, teacher: await visitByLink(server.app, link, { name: 'Ben Sloe', password }) };
}

describe('creating a studio', () => {
  it('is what a server without one asks for first, and signs its owner in', async () => {
    const visitor = await visit(server.app);
    expect((await visitor.get('/api/session')).body).toMatchObject({ isNew: true, canCreateStudio: true, signedIn: null });
    const owner = await found();
    expect((await owner.get('/api/session')).body).toMatchObject({
      isNew: false,
      signedIn: { role: 'owner', person: { name: 'Ada Quill' }, studio: { name: 'Fell Row' } },
    });
  });

  it('takes each address once', async () => {
    await found();
    const visitor = await visit(server.app);
    const again = { studio: 'Other', name: 'Other', email: 'ADA@fell-row.example', password };
    await visitor.post('/api/studios', again).expect(422);
  });

  it('is refused to other computers once there is one, and what they say of themselves does not help', async () => {
    await found();
    const visitor = await visit(server.app);
    const sent = visitor.post('/api/studios', { studio: 'Far', name: 'Far', email: 'far@away.example', password }).set('x-forwarded-for', '203.0.113.9');
    await sent.expect(403);
    await visitor.get('/api/outbox').set('x-forwarded-for', '203.0.113.9').expect(403);
  });
});

describe('an invitation', () => {
  it('lets one teacher in, once; the link is in no table', async () => {
    const owner = await found();
    const { link, teacher } = await invited(owner);
    expect((await teacher.get('/api/session')).body).toMatchObject({ signedIn: { role: 'teacher', studio: { name: 'Fell Row' } } });
    const late = await visit(server.app);
    await late.post('/api/links/look', { token: link.split('#')[1] }).expect(404);
    await late.post('/api/links/take', { token: link.split('#')[1], password }).expect(404);
    const rows = JSON.stringify(await server.dataSource.query('SELECT * FROM one_time_link'));
    expect(rows).not.toContain(link.split('#')[1]);
    expect((await owner.get('/api/invitations')).body).toEqual([]);
    expect(await deeds(owner)).toEqual(['Ben Sloe joined studio Fell Row', 'Ada Quill invited teacher Ben Sloe']);
  });

  it('says what it is for, wants a password that is long enough, and holds until it is used', async () => {
    const owner = await found();
    await owner.post('/api/invitations', { name: 'Ben Sloe', email: 'ben@fell-row.example' }).expect(201);
    const token = linkIn((await mails(owner))[0]).split('#')[1];
    const visitor = await visit(server.app);
    expect((await visitor.post('/api/links/look', { token }).expect(200)).body).toEqual({
      purpose: 'invitation',
      studio: 'Fell Row',
      name: 'Ben Sloe',
      email: 'ben@fell-row.example',
    } satisfies Link);
    await visitor.post('/api/links/take', { token, name: 'Ben', password: 'short' }).expect(400);
    await visitor.post('/api/links/take', { token, name: 'Ben' }).expect(400);
    await visitor.post('/api/links/take', { token, name: 'Ben', password }).expect(200);
  });

  it('lets only one in where two use it at once', async () => {
    const owner = await found();
    await owner.post('/api/invitations', { name: 'Ben Sloe', email: 'ben@fell-row.example' }).expect(201);
    const token = linkIn((await mails(owner))[0]).split('#')[1];
    const both = await Promise.all([visit(server.app), visit(server.app)]);
    const statuses = await Promise.all(both.map(async (visitor) => (await visitor.post('/api/links/take', { token, password })).status));
    expect(statuses.sort()).toEqual([200, 404]);
  });

  it('gives its link to whoever made it, once, and keeps it nowhere in clear', async () => {
    const owner = await found();
    const { address } = (
      await owner.post('/api/invitations', { name: 'Ben Sloe', email: 'ben@fell-row.example' }).set('idempotency-key', randomUUID()).expect(201)
    ).body as NewInvitation;
    expect((await mails(owner))[0].body).toContain(address);
    expect((await owner.get('/api/invitations')).text).not.toContain('link#');
    const token = address.split('#')[1];
    for (const table of ['mail', 'kept_answer', 'one_time_link', 'audit_entry', 'session'])
      expect([table, JSON.stringify(await server.dataSource.query(`SELECT * FROM ${table}`)).includes(token)]).toEqual([table, false]);
  });

  it('brings somebody who teaches elsewhere into a second studio by their own password, and tells nobody that they do', async () => {
    const owner = await found();
    await addStudio(server.dataSource, 'cass@tarn-end.example');
    const { address } = (await owner.post('/api/invitations', { name: 'Cass', email: 'cass@tarn-end.example' }).expect(201)).body as NewInvitation;
    const visitor = await visit(server.app);
    const take = (typed: string) => visitor.post('/api/links/take', { token: address.split('#')[1], password: typed });
    expect(((await take('not the password at all').expect(422)).body as Problem).detail).toContain('Enter its password');
    expect(((await take(theirs).expect(200)).body as Session).signedIn?.studio.name).toBe('Fell Row');
    const teachers = (await owner.get('/api/teachers').expect(200)).body as Teacher[];
    expect(teachers.map(({ name, email }) => [name, email])).toContainEqual(['A Teacher', 'cass@tarn-end.example']);
    await owner.post('/api/invitations', { name: 'Cass', email: 'cass@tarn-end.example' }).expect(422, /already teaches in this studio/);
    const both = (await visitor.get('/api/studios').expect(200)).body as OwnStudio[];
    expect(both.map(({ name, role }) => [name, role])).toEqual([
      ['Studio of cass@tarn-end.example', 'owner'],
      ['Fell Row', 'teacher'],
    ]);
    // One studio is open at a time, and what stands in the other is not there.
    const now = visitorOf(visitor.agent, ((await visitor.get('/api/session').expect(200)).body as Session).token);
    await now.post('/api/students', { alias: 'Of Fell Row' }).expect(201);
    await now.put('/api/session/studio', { id: both[0].id }).expect(204);
    const there = visitorOf(visitor.agent, ((await visitor.get('/api/session').expect(200)).body as Session).token);
    expect((await there.get('/api/students').expect(200)).body).toEqual({ items: [], next: null });
    await there.put('/api/studio', { name: 'Tarn End' }).expect(200);
    await there.put('/api/session/studio', { id: both[1].id }).expect(204);
    // Out of one studio, they stay in the other.
    const { id } = teachers.find(({ email }) => email === 'cass@tarn-end.example') as Teacher;
    await owner.remove(`/api/teachers/${id}`).expect(204);
    const cass = await visit(server.app, 'cass@tarn-end.example');
    expect(((await cass.get('/api/session').expect(200)).body as Session).signedIn?.studio.name).toBe('Tarn End');
  });

  it('lets the account of the demo, whose password everyone knows, into no studio', async () => {
    const owner = await found();
    await loadDemo(server.dataSource);
    const { address } = (await owner.post('/api/invitations', { name: 'Maren', email: demoSignIn.email }).expect(201)).body as NewInvitation;
    const visitor = await visit(server.app);
    await visitor.post('/api/links/take', { token: address.split('#')[1], password: demoSignIn.password }).expect(422, /cannot join a studio/);
    expect((await owner.get('/api/teachers').expect(200)).body).toHaveLength(1);
  });

  it('ends when it is withdrawn, when it is too old, and when a newer one is sent', async () => {
    const owner = await found();
    const invite = async (): Promise<{ id: string; token: string }> => {
      const { body } = await owner.post('/api/invitations', { name: 'Ben Sloe', email: 'ben@fell-row.example' }).expect(201);
      return { id: (body as Invitation).id, token: linkIn((await mails(owner))[0]).split('#')[1] };
    };
    const visitor = await visit(server.app);
    const isOpen = async (token: string): Promise<boolean> => (await visitor.post('/api/links/look', { token })).status === 200;
    const [first, second] = [await invite(), await invite()];
    expect([await isOpen(first.token), await isOpen(second.token)]).toEqual([false, true]);
    await owner.remove(`/api/invitations/${second.id}`).expect(204);
    expect(await isOpen(second.token)).toBe(false);
    const third = await invite();
    await server.dataSource.query("UPDATE one_time_link SET expires_at = now() - interval '1 second'");
    expect(await isOpen(third.token)).toBe(false);
  });

  it('names the server by its set address and never by what a request says', async () => {
    const owner = await found();
    await owner.post('/api/invitations', { name: 'Ben Sloe', email: 'ben@fell-row.example' }).set('x-forwarded-host', 'evil.example').expect(201);
    expect((await mails(owner))[0].body).not.toContain('evil');
  });
});

describe('teachers', () => {
  it('become owners and teachers again, but the last owner stays one', async () => {
    const owner = await found();
    const { teacher } = await invited(owner);
    const all = (await owner.get('/api/teachers')).body as Teacher[];
    const [ada, ben] = ['Ada Quill', 'Ben Sloe'].map((name) => all.find((each) => each.name === name) as Teacher);
    await owner.put(`/api/teachers/${ada.id}`, { role: 'teacher' }).expect(422);
    await owner.remove(`/api/teachers/${ada.id}`).expect(422);
    await teacher.get('/api/audit').expect(403);
    await owner.put(`/api/teachers/${ben.id}`, { role: 'owner' }).expect(200);
    await teacher.get('/api/audit').expect(200);
    await owner.put(`/api/teachers/${ada.id}`, { role: 'teacher' }).expect(200);
    await owner.get('/api/audit').expect(403);
  });

  it('never end without an owner, also where two owners leave at once', async () => {
    const owner = await found();
    const { teacher } = await invited(owner);
    const all = (await owner.get('/api/teachers')).body as Teacher[];
    await owner.put(`/api/teachers/${(all.find(({ role }) => role === 'teacher') as Teacher).id}`, { role: 'owner' }).expect(200);
    await Promise.all(all.map(({ id }, index) => (index === 0 ? owner : teacher).put(`/api/teachers/${id}`, { role: 'teacher' })));
    const [{ count }] = await server.dataSource.query<[{ count: string }]>("SELECT count(*) FROM membership WHERE role = 'owner'");
    expect(Number(count)).toBeGreaterThanOrEqual(1);
  });

  it('cannot go on once they were removed', async () => {
    const owner = await found();
    const { teacher } = await invited(owner);
    const all = (await owner.get('/api/teachers')).body as Teacher[];
    await owner.remove(`/api/teachers/${(all.find(({ role }) => role === 'teacher') as Teacher).id}`).expect(204);
    await teacher.get('/api/students').expect(401);
  });
});

describe('a forgotten password', () => {
  it('is set anew by a link, which ends every session and every other such link', async () => {
    const owner = await found();
    const visitor = await visit(server.app);
    await visitor.post('/api/account/reset', { email: 'ada@fell-row.example' }).expect(204);
    await visitor.post('/api/account/reset', { email: 'ada@fell-row.example' }).expect(204);
    const [newest, older] = (await mails(visitor)).map((mail) => linkIn(mail).split('#')[1]);
    const again = await visitByLink(server.app, `#${newest}`, { password: 'another long password' });
    expect((await again.get('/api/session')).body).toMatchObject({ signedIn: { role: 'owner' } });
    await owner.get('/api/students').expect(401);
    await visitor.post('/api/links/look', { token: older }).expect(404);
    await visitor.post('/api/session', { email: 'ada@fell-row.example', password }).expect(401);
    await visitor.post('/api/session', { email: 'ada@fell-row.example', password: 'another long password' }).expect(200);
  });

  it('tells nobody which addresses have an account', async () => {
    await found();
    const visitor = await visit(server.app);
    await visitor.post('/api/account/reset', { email: 'nobody@fell-row.example' }).expect(204);
    expect(await mails(visitor)).toEqual([]);
  });
});

describe('a student', () => {
  it('has a consent that is kept with who, when and to what, and is taken back', async () => {
    const owner = await found();
    const consent = { guardian: 'H. Lunn', on: '2026-03-09', covers: 'Takes recorded in the lesson' };
    const { body } = await owner.post('/api/students', { alias: 'Pim', consent }).expect(201);
    const { id, version } = body as Student;
    expect(body).toMatchObject({ consent });
    await owner.put(`/api/students/${id}`, { alias: 'Pim', consent: { ...consent, covers: '' }, version }).expect(400);
    // The student's own tablet knows that it may record, and nobody's words about it; it knows too when that was taken back.
    const { address } = (await owner.post(`/api/students/${id}/link`).expect(201)).body as StudentLink;
    const tablet = await visitByLink(server.app, address);
    const known = async (visitor: Visitor) => ((await visitor.get('/api/session').expect(200)).body as Session).signedIn?.consent;
    expect([await known(tablet), await known(owner)]).toEqual([{ guardian: 'H. Lunn', on: '2026-03-09' }, null]);
    expect((await owner.put(`/api/students/${id}`, { alias: 'Pim', consent: null, version }).expect(200)).body).toMatchObject({ consent: null });
    expect(await known(tablet)).toBeNull();
  });

  it('sees their own sheets by a link, until they are put away', async () => {
    const owner = await found();
    const { id } = (await owner.post('/api/students', { alias: 'Pim' }).expect(201)).body as Student;
    await owner.post('/api/sheets', { studentId: id, tuneId: null, instrument: 'practice-chanter', title: 'Week', note: '', lines: [] }).expect(201);
    const { address } = (await owner.post(`/api/students/${id}/link`).expect(201)).body as StudentLink;
    const pim = await visitByLink(server.app, address);
    expect(((await pim.get('/api/sheets').expect(200)).body as Page<{ title: string }>).items.map(({ title }) => title)).toEqual(['Week']);
    await owner.remove(`/api/students/${id}`).expect(204);
    await pim.get('/api/sheets').expect(401);
  });
});

describe('the list of who changed what', () => {
  it('joins changes of one thing within ten minutes, is found by words, and forgets a deleted student', async () => {
    const owner = await found();
    const { id } = (await owner.post('/api/students', { alias: 'Pim' }).expect(201)).body as Student;
    for (const version of [1, 2, 3]) await owner.put(`/api/students/${id}`, { alias: `Pim ${version}`, version }).expect(200);
    const { items } = (await owner.get('/api/audit?find=pim&kind=student')).body as Page<AuditEntry>;
    expect(items.map(({ did, thing, times }) => [did, thing, times])).toEqual([
      ['changed', 'Pim 3', 3],
      ['added', 'Pim', 1],
    ]);
    await owner.remove(`/api/students/${id}`).expect(204);
    await owner.remove(`/api/put-away/students/${id}`).expect(204);
    expect((await deeds(owner)).join('\n')).not.toContain('Pim');
  });

  it('has nothing of what was refused', async () => {
    const owner = await found();
    await owner.post('/api/students', { alias: '' }).expect(400);
    expect(await deeds(owner)).toEqual([]);
  });
});
