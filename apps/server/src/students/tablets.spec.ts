import type { Student, StudentLink, Tablet } from '@zelpit/contract';
import { addStudio, startTestServer, visit, visitByLink, type TestServer, type Visitor } from '../testing/test-server';

let server: TestServer;
let ada: Visitor;
let bea: Visitor;
let student: Student;
beforeAll(async () => {
  server = await startTestServer();
  for (const name of ['ada', 'bea']) await addStudio(server.dataSource, `${name}@studio.example`);
  ada = await visit(server.app, 'ada@studio.example');
  bea = await visit(server.app, 'bea@studio.example');
  student = (await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body as Student;
});
afterAll(() => server.close());

const signedIn = async (): Promise<Visitor> => {
  const { address } = (await ada.post(`/api/students/${student.id}/link`).expect(201)).body as StudentLink;
  return visitByLink(server.app, address);
};
const tablets = async (): Promise<Tablet[]> => (await ada.get(`/api/students/${student.id}/tablets`).expect(200)).body as Tablet[];

describe("a student's tablets", () => {
  it('are listed, newest first, and each is signed out alone', async () => {
    const [first, second] = [await signedIn(), await signedIn()];
    const [newest, oldest] = await tablets();
    expect(Date.parse(newest.since)).toBeGreaterThanOrEqual(Date.parse(oldest.since));
    await ada.remove(`/api/tablets/${oldest.id}`).expect(204);
    await first.get('/api/sheets').expect(401);
    await second.get('/api/sheets').expect(200);
    expect(await tablets()).toEqual([newest]);
    await ada.remove(`/api/tablets/${oldest.id}`).expect(404);
  });

  it('are nothing that another studio could sign out, or that shows the id of a session', async () => {
    const tablet = await signedIn();
    const [{ id }] = await tablets();
    await bea.remove(`/api/tablets/${id}`).expect(404);
    await bea.get(`/api/students/${student.id}/tablets`).expect(404);
    await tablet.get('/api/sheets').expect(200);
    const sids = await server.dataSource.query<{ sid: string }[]>('SELECT sid FROM session');
    expect(sids.map(({ sid }) => sid)).not.toContain(id);
  });
});
