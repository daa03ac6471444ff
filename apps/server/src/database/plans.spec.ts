import type { Page } from '@zelpit/contract';
import { fillStudio } from '../testing/large-studio';
import { onQueries } from '../testing/on-queries';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

/** Rows that may be read one after the other: more need an index. */
const fewRows = 1000;

interface Plan {
  readonly 'Node Type': string;
  readonly 'Relation Name'?: string;
  readonly 'Plan Rows': number;
  readonly Plans?: readonly Plan[];
}

let server: TestServer;
let ada: Visitor;
let studioId: string;
beforeAll(async () => {
  server = await startTestServer();
  studioId = await addStudio(server.dataSource, 'ada@studio.example');
  // Beside another of the same size, whose rows nobody here may meet.
  for (const id of [studioId, await addStudio(server.dataSource, 'bea@studio.example')]) await fillStudio(server.dataSource, id);
  ada = await visit(server.app, 'ada@studio.example');
}, 120_000);
afterAll(() => server.close());

const nodesOf = (plan: Plan): readonly Plan[] => [plan, ...(plan.Plans ?? []).flatMap(nodesOf)];

/** What is read from one end to the other for a list, as PostgreSQL plans it. */
async function scansFor(path: string): Promise<readonly string[]> {
  const statements: { readonly sql: string; readonly values: readonly unknown[] }[] = [];
  const restore = onQueries((sql, values) => {
    if (/^\s*(SELECT|WITH)/i.test(sql)) statements.push({ sql, values });
    return sql;
  });
  try {
    expect([path, (await ada.get(path)).status]).toEqual([path, 200]);
  } finally {
    restore();
  }
  const scans: string[] = [];
  const runner = server.rows.createQueryRunner();
  await runner.query(`BEGIN; SET LOCAL zelpit.studio = '${studioId}'`);
  for (const { sql, values } of statements) {
    const [row] = (await runner.query(`EXPLAIN (FORMAT JSON) ${sql}`, [...values])) as { 'QUERY PLAN': readonly [{ readonly Plan: Plan }] }[];
    for (const node of nodesOf(row['QUERY PLAN'][0].Plan)) {
      if (node['Node Type'] === 'Seq Scan' && node['Plan Rows'] > fewRows) scans.push(`${path}: ${node['Relation Name'] ?? ''} ${node['Plan Rows']}`);
    }
  }
  await runner.query('ROLLBACK');
  await runner.release();
  expect(statements.length).toBeGreaterThan(0);
  return scans;
}

const pagesOf = async (list: string): Promise<readonly string[]> => {
  const { next } = (await ada.get(list).expect(200)).body as Page<unknown>;
  return next === null ? [list] : [list, `${list}${list.includes('?') ? '&' : '?'}after=${encodeURIComponent(next)}`];
};

describe('in a studio of 10 000 students beside another', () => {
  it('no list, and no page of one, reads a table from one end to the other', async () => {
    const { items } = (await ada.get('/api/students').expect(200)).body as Page<{ id: string }>;
    const { items: sheets } = (await ada.get('/api/sheets').expect(200)).body as Page<{ id: string; lines: number }>;
    const student = items[7].id;
    const lists = [
      ...['students', 'tunes', 'sheets', 'instruments', 'trials', 'attempts', 'takes', 'models', 'fingerings', 'movements', 'audit', 'put-away'].map(
        (name) => `/api/${name}`,
      ),
      ...['sheets', 'instruments', 'trials', 'attempts', 'takes'].map((name) => `/api/${name}?student=${student}`),
      ...['students?find=ent 00', 'tunes?find=une 04', 'sheets?find=eet 19', 'audit?find=eet 19', 'tunes?rhythm=reel'].map((name) => `/api/${name}`),
    ];
    const paths = [
      ...(await Promise.all(lists.map(pagesOf))).flat(),
      `/api/sheets/${sheets[0].id}`,
      '/api/teachers',
      '/api/invitations',
      `/api/logbook?student=${student}`,
      '/api/lessons',
    ];
    expect(paths.length).toBeGreaterThan(24);
    const scans: string[] = [];
    for (const path of paths) scans.push(...(await scansFor(path)));
    expect(scans).toEqual([]);
  }, 60_000);
});
