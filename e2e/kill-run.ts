import { seededRandom } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import { signInToDemo, type ApiVisitor } from './api-visitor';
import type { RunningServer, ServerSettings } from './server.mjs';

export interface KillSettings {
  readonly kills: number;
  readonly writers: number;
  /** Fixes when the kills come. */
  readonly seed: number;
  /** Writes that are acknowledged between two kills, at least. */
  readonly writesBetween?: number;
  readonly startServer: (settings: ServerSettings) => Promise<RunningServer>;
  /** A PostgreSQL of its own, that can be killed and started again where it was. */
  readonly postgres: KillablePostgres;
}

export interface KillablePostgres {
  readonly databaseUrl: string;
  /** As the role that a server works as. */
  readonly rowsUrl: string;
  kill(): Promise<void>;
  start(): Promise<void>;
}

export interface KillResult {
  readonly kills: number;
  readonly acknowledged: number;
  /** Times that a write was sent again, because its answer was lost or said that the server is away. */
  readonly repeats: number;
  /** Writes that were acknowledged and are not there, as sentences. */
  readonly missing: readonly string[];
  /** Writes that are there twice, or that nobody acknowledged. */
  readonly doubled: readonly string[];
  /** Answers that no write should have got. */
  readonly strange: readonly string[];
  /** From each kill until a write was acknowledged again, in ms. */
  readonly recoveries: readonly number[];
}

interface Acknowledged {
  readonly at: number;
  readonly student?: { readonly id: string; readonly alias: string };
  readonly sheet?: { readonly id: string; readonly version: number; readonly title: string };
  /** A book handed over to be read afterwards, whose tunes all have this in their titles. */
  readonly book?: { readonly job: string; readonly mark: string };
}

/** Tunes of one book: long enough to be under way when a kill comes. */
const tunesInBook = 60;
const bookOf = (mark: string): string =>
  Array.from({ length: tunesInBook }, (_, index) => `X:1\nT:${mark} ${index}\nM:2/4\nL:1/8\nK:HP\n${'A c e a|'.repeat(24)}\n\n`).join('');

/**
 * Writers add students, save sheets and hand over books of tunes through the API, each write under a key of its own and again until it is
 * acknowledged, while the server and the database are killed by turns at random moments. Afterwards the ledger of what
 * was acknowledged is compared with the tables; a book is there whole and once, or it failed and nothing of it is there.
 */
export async function killRun({ kills, writers, seed, writesBetween = 1, startServer, postgres }: KillSettings): Promise<KillResult> {
  const random = seededRandom(seed);
  const { databaseUrl, rowsUrl } = postgres;
  const start = (): Promise<RunningServer> => startServer({ databaseUrl, rowsUrl, sessionSecret: 'k'.repeat(32) });
  let server = await start();
  const visitor = await signInToDemo(server.address);
  const ledger: Acknowledged[] = [];
  const strange: string[] = [];
  let [repeats, isOver] = [0, false];

  /** Sends one write until it is acknowledged. */
  const write = async (method: string, path: string, body: object | string): Promise<Record<string, unknown>> => {
    const key = randomUUID();
    for (;;) {
      const answer = await sendOnce(visitor, server.address, method, path, body, key);
      // An answer of which a part is lost acknowledges nothing.
      const text: unknown = await answer?.json().catch(() => undefined);
      if (answer !== undefined && answer.status < 300 && text !== undefined) return text as Record<string, unknown>;
      if (answer !== undefined && answer.status >= 300 && answer.status !== 503) strange.push(`${method} ${path}: ${answer.status} ${JSON.stringify(text)}`);
      if (strange.length > 20) throw new Error(strange.join('\n'));
      repeats += 1;
      await pause(20);
    }
  };

  const isEnded = (job: string): Promise<boolean> => isJobEnded(server.address, visitor, job);
  const writeOn = async (writer: number): Promise<void> => {
    const student = await write('POST', '/api/students', { alias: `Writer ${writer}` });
    ledger.push({ at: performance.now(), student: { id: String(student['id']), alias: `Writer ${writer}` } });
    const start = { studentId: student['id'], tuneId: null, instrument: 'practice-chanter', title: 'Start', note: '', lines: [] };
    const sheet = await write('POST', '/api/sheets', start);
    let version = 1;
    let book: string | undefined;
    for (let round = 1; !isOver; round += 1) {
      const title = `Round ${round}`;
      const saved = await write('PUT', `/api/sheets/${String(sheet['id'])}`, { title, note: '', lines: [], version });
      version = Number(saved['version']);
      ledger.push({ at: performance.now(), sheet: { id: String(sheet['id']), version, title } });
      const alias = `Writer ${writer} round ${round}`;
      const added = await write('POST', '/api/students', { alias });
      ledger.push({ at: performance.now(), student: { id: String(added['id']), alias } });
      if (book === undefined || (await isEnded(book))) {
        const mark = `Book ${writer} of round ${round}.`;
        book = String((await write('POST', '/api/jobs/tunes', bookOf(mark)))['id']);
        ledger.push({ at: performance.now(), book: { job: book, mark } });
      }
      await pause(10);
    }
  };
  const writing = Promise.all(Array.from({ length: writers }, (_, writer) => writeOn(writer)));

  const killedAt: number[] = [];
  for (let kill = 0; kill < kills; kill += 1) {
    const before = ledger.length;
    await until(() => ledger.length >= before + writesBetween || strange.length > 20);
    await pause(20 + random() * 280);
    killedAt.push(performance.now());
    if (kill % 2 === 0) {
      server.child.kill('SIGKILL');
      await server.ended;
      server = await start();
    } else {
      await postgres.kill();
      await postgres.start();
    }
  }
  const before = ledger.length;
  await until(() => ledger.length > before || strange.length > 20);
  isOver = true;
  await writing;
  // What a killed server left is taken up again after a while.
  for (const { book } of ledger) while (book !== undefined && !(await isEnded(book.job))) await pause(200);
  await server.stop();
  const recoveries = killedAt.map((at) => (ledger.find((each) => each.at > at)?.at ?? Number.NaN) - at);
  return { kills, acknowledged: ledger.length, repeats, strange, recoveries, ...(await compare(databaseUrl, ledger)) };
}

/** Whether a job has come to its end; where nobody answers, not yet. */
async function isJobEnded(address: string, visitor: ApiVisitor, job: string): Promise<boolean> {
  const answer = await fetch(`${address}/api/jobs/${job}`, { headers: visitor.headers }).catch(() => undefined);
  const found = (await answer?.json().catch(() => undefined)) as { endedAt?: string | null } | undefined;
  return answer?.status === 200 && found?.endedAt != null;
}

/** One try; undefined where no answer came. */
async function sendOnce(visitor: ApiVisitor, address: string, method: string, path: string, body: object | string, key: string): Promise<Response | undefined> {
  return fetch(`${address}${path}`, {
    method,
    headers: { ...visitor.headers, 'content-type': typeof body === 'string' ? 'application/octet-stream' : 'application/json', 'idempotency-key': key },
    body: typeof body === 'string' ? body : JSON.stringify(body),
    signal: AbortSignal.timeout(10_000),
  }).catch(() => undefined);
}

async function until(isSo: () => boolean): Promise<void> {
  while (!isSo()) await pause(5);
}

async function compare(databaseUrl: string, ledger: readonly Acknowledged[]): Promise<Pick<KillResult, 'missing' | 'doubled'>> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const rows = async <T extends object>(sql: string): Promise<T[]> => (await client.query<T>(sql)).rows;
  const students = await rows<{ id: string; alias: string }>("SELECT id, alias FROM student WHERE alias LIKE 'Writer %'");
  const deeds = await rows<{ thing_id: string; count: string }>(
    "SELECT thing_id, count(*) FROM audit_entry WHERE did = 'added' AND kind = 'student' GROUP BY thing_id",
  );
  const tunes = await rows<{ mark: string; count: string }>(
    "SELECT substring(title from '^Book .*\\.') AS mark, count(*) FROM tune WHERE title LIKE 'Book %' GROUP BY 1",
  );
  const jobs = await rows<{ id: string; state: string }>('SELECT id, state FROM job');
  const sheets = await rows<{ id: string; version: number; title: string }>('SELECT id, version, title FROM sheet');
  await client.end();
  const missing: string[] = [];
  const doubled: string[] = [];
  const acknowledged = ledger.flatMap(({ student }) => (student === undefined ? [] : [student]));
  for (const { id, alias } of acknowledged) {
    const found = students.filter((each) => each.alias === alias);
    if (!found.some((each) => each.id === id)) missing.push(`student ${alias}`);
    if (found.length > 1) doubled.push(`student ${alias}`);
    if (deeds.find((each) => each.thing_id === id)?.count !== '1') missing.push(`the deed of ${alias}`);
  }
  const known = new Set(acknowledged.map(({ alias }) => alias));
  doubled.push(...students.filter(({ alias }) => !known.has(alias)).map(({ alias }) => `student ${alias}, which nobody acknowledged`));
  const last = new Map(ledger.flatMap(({ sheet }) => (sheet === undefined ? [] : [[sheet.id, sheet] as const])));
  for (const [id, { version, title }] of last) {
    const saves = ledger.filter(({ sheet }) => sheet?.id === id).length;
    const found = sheets.find((each) => each.id === id);
    if (found?.title !== title || found.version !== version) missing.push(`save ${version} of sheet ${id}`);
    if (version !== saves + 1) doubled.push(`sheet ${id} is at version ${version} after ${saves} saves`);
  }
  for (const { book } of ledger) {
    if (book === undefined) continue;
    const count = Number(tunes.find(({ mark }) => mark === book.mark)?.count ?? 0);
    const state = jobs.find(({ id }) => id === book.job)?.state;
    const wanted = state === 'done' ? tunesInBook : 0;
    if (count < wanted || state === undefined) missing.push(`${wanted - count} tunes of ${book.mark} (${String(state)})`);
    if (count > wanted) doubled.push(`${count - wanted} tunes of ${book.mark} (${String(state)})`);
  }
  return { missing, doubled };
}
