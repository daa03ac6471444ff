import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import { fillStudio } from '../apps/server/src/testing/large-studio';
import { createStudio, type ApiVisitor } from '../e2e/api-visitor';
import { startServer, type RunningServer } from '../e2e/server.mjs';
import { startBare } from './bare';
import { benchCommand, percentile, type Figure } from './measure';

const students = 10_000;
const attempts = 5_000_000;
const batch = 500_000;
const users = 20;
const seconds = 20;
/** Somebody reads for so long before asking again, in ms. */
const reading = { least: 300, most: 900 };
const connections = 25;
const rateSeconds = 6;
const mostMs = 100;
const fewRows = 1000;
const day = '2026-12-01';

interface Crowd {
  readonly server: RunningServer;
  readonly visitor: ApiVisitor;
  readonly client: pg.Client;
  readonly studioId: string;
  readonly ids: readonly string[];
}

/** A studio with half a thousand tries of each of ten thousand students over two years, and a weekly lesson each. */
async function crowd(): Promise<Crowd> {
  const server = await startServer();
  const visitor = await createStudio(server.address, 'Fell Row');
  const { signedIn } = await visitor.get<{ signedIn: { studio: { id: string } } }>('/api/session');
  const studioId = signedIn.studio.id;
  const client = new pg.Client({ connectionString: server.databaseUrl });
  await client.connect();
  await fillStudio({ query: (sql: string) => client.query(sql) } as never, studioId, { students, tunes: 500, sheets: students, trials: 1000 });
  const rows = await client.query<{ id: string }>('SELECT id FROM student WHERE studio_id = $1 AND deleted_at IS NULL ORDER BY id', [studioId]);
  await client.query(`CREATE TEMPORARY TABLE place AS SELECT id, (row_number() OVER () - 1)::int AS place FROM student WHERE studio_id = '${studioId}'`);
  for (let first = 0; first < attempts; first += batch)
    await client.query(`INSERT INTO attempt (studio_id, id, student_id, title, kind, model, tempo, count, rating, seconds, device, note, by, at)
      SELECT '${studioId}', gen_random_uuid(), p.id, 'Line ' || (n / ${students}) % 12, 'line', 'practice-chanter', 40 + (n * 7) % 60, 8,
        (ARRAY['clean', 'nearly', 'not-yet', 'unjudged'])[1 + n % 4], 60, 'tablet', '', 'student', now() - (n % 731) * interval '1 day'
      FROM generate_series(${first}, ${first + batch - 1}) n JOIN place p ON p.place = n % ${students}`);
  await client.query(`INSERT INTO lesson (studio_id, id, student_id, day, time, minutes, repeats, note, plan, version)
    SELECT '${studioId}', gen_random_uuid(), id, date '${day}' - 7 * 20 + place % 7, lpad((9 + place % 10)::text, 2, '0') || ':00', 30, 'weekly', '', '[]', 1
    FROM place WHERE place < 1400`);
  await client.query('VACUUM ANALYZE');
  return { server, visitor, client, studioId, ids: rows.rows.map(({ id }) => id) };
}

/** Times of answers in ms, with so many users at once who read between two questions. */
async function times(ask: (user: number) => Promise<Response>): Promise<readonly number[]> {
  const all: number[] = [];
  const end = performance.now() + seconds * 1000;
  const use = async (user: number): Promise<void> => {
    await pause(Math.random() * reading.most);
    while (performance.now() < end) {
      const start = performance.now();
      const answer = await ask(user);
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`It was answered by ${answer.status}.`);
      all.push(performance.now() - start);
      await pause(reading.least + Math.random() * (reading.most - reading.least));
    }
  };
  await Promise.all(Array.from({ length: users }, (_, user) => use(user)));
  return all;
}

async function rateOf(ask: () => Promise<Response>): Promise<number> {
  let answers = 0;
  const end = performance.now() + rateSeconds * 1000;
  const use = async (): Promise<void> => {
    while (performance.now() < end) {
      const answer = await ask();
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`It was answered by ${answer.status}.`);
      answers += 1;
    }
  };
  await Promise.all(Array.from({ length: connections }, use));
  return answers / rateSeconds;
}

/** What a plan reads from beginning to end though it is large. */
async function scansOf({ client, studioId, ids }: Crowd): Promise<readonly string[]> {
  const { rows } = await client.query<{ 'QUERY PLAN': string }>(
    `EXPLAIN SELECT kind, title, at, seconds, tempo, rating FROM attempt WHERE studio_id = '${studioId}' AND student_id = '${ids[0]}' AND at >= now() - interval '42 days' ORDER BY at DESC, id DESC`,
  );
  // A year without tries is read from end to end: there is nothing in it.
  return rows.map((row) => row['QUERY PLAN']).filter((text) => /Seq Scan on attempt_20/.test(text) && Number(/rows=(\d+)/.exec(text)?.[1] ?? 0) > fewRows);
}

/** Half a thousand tries a student: what a teacher sees of it, how fast, and how a year goes. */
export async function practiceFigures(): Promise<readonly Figure[]> {
  const all = await crowd();
  const { server, visitor, client, ids } = all;
  const some = (user: number): string => ids[(user * 457 + Math.floor(Math.random() * ids.length)) % ids.length];
  const since = new Date(Date.now() - 42 * 86_400_000).toISOString();
  const get = (path: string): Promise<Response> => visitor.send('GET', path);
  const pages: Readonly<Record<string, (user: number) => Promise<Response>>> = {
    'Today, the lessons of a day': () => get(`/api/lessons?from=${day}&to=${day}`),
    'Today, what one student did': (user) => get(`/api/logbook?student=${some(user)}&days=7&since=${encodeURIComponent(since)}`),
    'logbook charts of a student, all tries': (user) => get(`/api/logbook?student=${some(user)}`),
    'a student’s page, the last tries': (user) => get(`/api/attempts?student=${some(user)}&limit=12`),
    'a proposed review': (user) => visitor.send('POST', '/api/reviews', { studentId: some(user), lessonId: null, on: day }),
  };
  const figures: Figure[] = [];
  const measured = { better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
  for (const [name, ask] of Object.entries(pages)) {
    const p95 = percentile(await times(ask), 0.95);
    const what = `practice: ${name}, p95, 10 000 students, 5 million tries, ${users} users`;
    figures.push({ ...measured, name: what, median: p95, unit: 'ms', goal: `under ${mostMs} ms`, isMet: p95 < mostMs });
  }
  const bare = await startBare();
  const alone = await rateOf(() => fetch(`${bare.address}/bare-in-studio/7`));
  bare.stop();
  const rate = await rateOf(() => get(`/api/logbook?student=${some(1)}&days=7&since=${encodeURIComponent(since)}`));
  figures.push({
    ...{ name: `practice: what one student did, ${connections} connections`, median: rate, unit: 'a second', better: 'higher', command: benchCommand },
    ...{ goal: 'at least 0.5 of a bare route that also names its studio', isMet: rate >= alone / 2 },
    ...{ baseline: { name: 'bare route, one select in a transaction that names its studio', median: alone }, ratio: rate / alone },
  });
  const scans = (await scansOf(all)).length;
  figures.push({
    ...measured,
    name: 'practice: partitions of the log read from end to end for six weeks of one student',
    median: scans,
    unit: 'partitions',
    goal: 'none',
    isMet: scans === 0,
  });
  const start = performance.now();
  await client.query('DROP TABLE attempt_2025');
  const dropped = (performance.now() - start) / 1000;
  figures.push({
    ...measured,
    name: 'practice: a year of the log dropped (2.5 million tries)',
    median: dropped,
    unit: 's',
    goal: 'under 1 s',
    isMet: dropped < 1,
  });
  await client.end();
  await server.stop();
  return figures;
}
