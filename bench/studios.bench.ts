import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import { fillStudio, largeStudio, type StudioSize } from '../apps/server/src/testing/large-studio';
import { createStudio, type ApiVisitor } from '../e2e/api-visitor';
import { startServer, type RunningServer } from '../e2e/server.mjs';
import { startBare } from './bare';
import { benchCommand, medianOf, percentile, type Figure } from './measure';

const connections = 25;
/** Ours and the bare route by turns, so that a machine that is slower for a while is slower for both. */
const [rounds, readSeconds] = [5, 3];

/** Answers a second of one address, asked over so many connections. */
async function rateOf(url: string, headers: Record<string, string> = {}): Promise<number> {
  let answers = 0;
  const end = performance.now() + readSeconds * 1000;
  const ask = async (): Promise<void> => {
    while (performance.now() < end) {
      const answer = await fetch(url, { headers });
      if (answer.status !== 200) throw new Error(`${url} was answered by ${answer.status}.`);
      await answer.arrayBuffer();
      answers += 1;
    }
  };
  await Promise.all(Array.from({ length: connections }, ask));
  return answers / readSeconds;
}

/** A server with a studio of 10 000 students, or so many times as large, and a second one beside it. */
async function crowded(times = 1): Promise<{ readonly server: RunningServer; readonly large: ApiVisitor; readonly other: ApiVisitor }> {
  const server = await startServer();
  const large = await createStudio(server.address, 'Fell Row');
  const { signedIn } = await large.get<{ signedIn: { studio: { id: string } } }>('/api/session');
  const client = new pg.Client({ connectionString: server.databaseUrl });
  await client.connect();
  const size = Object.fromEntries(Object.entries(largeStudio).map(([of, count]) => [of, count * times]));
  await fillStudio({ query: (sql: string) => client.query(sql) } as never, signedIn.studio.id, size as unknown as StudioSize);
  await client.end();
  return { server, large, other: await createStudio(server.address, 'Tarn End') };
}

async function readFigures(server: RunningServer, { headers, list }: ApiVisitor): Promise<readonly Figure[]> {
  const [{ id: sheet }] = await list<{ id: string }>('/api/sheets');
  const [{ id: student }] = await list<{ id: string }>('/api/students');
  const reads = {
    'a sheet': `/api/sheets/${sheet}`,
    'a page of students': '/api/students?limit=20',
    'a page of trials': `/api/trials?student=${student}&limit=20`,
  };
  const bare = await startBare();
  const figures: Figure[] = [];
  for (const [name, path] of Object.entries(reads)) {
    const turns: { readonly rate: number; readonly inStudio: number; readonly alone: number }[] = [];
    for (let round = 0; round < rounds; round += 1)
      turns.push({
        rate: await rateOf(`${server.address}${path}`, headers),
        inStudio: await rateOf(`${bare.address}/bare-in-studio/7`),
        alone: await rateOf(`${bare.address}/bare/7`),
      });
    const [rate, inStudio, alone] = (['rate', 'inStudio', 'alone'] as const).map((of) => medianOf(turns.map((turn) => turn[of])));
    const ratios = { inStudio: medianOf(turns.map((turn) => turn.rate / turn.inStudio)), alone: medianOf(turns.map((turn) => turn.rate / turn.alone)) };
    const measured = { median: rate, unit: 'a second', better: 'higher', command: benchCommand } as const;
    figures.push(
      {
        ...measured,
        name: `reads of ${name}, 10 000 students, ${connections} connections`,
        goal: 'at least 0.5 of a bare route that also names its studio',
        isMet: ratios.inStudio >= 0.5,
        baseline: { name: 'bare route, one select in a transaction that names its studio', median: inStudio },
        ratio: ratios.inStudio,
      },
      {
        ...measured,
        name: `reads of ${name}, the same beside a bare route without a transaction`,
        goal: 'none set',
        isMet: true,
        baseline: { name: 'bare route, one select', median: alone },
        ratio: ratios.alone,
      },
    );
  }
  bare.stop();
  return figures;
}

const tune = (number: number, music: string): string => `X:${number}\nT:Tune ${number}\nM:4/4\nL:1/8\nK:HP\n${music}\n`;

/** Texts that are meant to stop a server: the worst known first, then two thousand of every bad kind. */
function hostileTexts(): readonly string[] {
  const worst = ['{'.repeat(100_000), '{'.repeat(16_000), '&A'.repeat(2500), '&A'.repeat(4000), '[V:2]'.repeat(20_000), '(3'.repeat(60_000)].map((music) =>
    tune(1, music),
  );
  const kinds: readonly ((number: number) => string)[] = [
    (number) => tune(number, '{'.repeat(50 + number)),
    (number) => tune(number, '(3'.repeat(number)),
    (number) => tune(number, `|:${'A'.repeat(number * 20)}:|`),
    (number) => `X:${number}\nT:${'x'.repeat(10_000)}\nK:HP\nA|\n`,
    (number) => `K:${'exp ^c '.repeat(number)}\nA|`,
    () => '<html><body>no tune</body></html>',
    (number) => randomBytes(200 + number).toString('latin1'),
    (number) => Array.from({ length: 40 }, (_, index) => tune(index, '"'.repeat(number % 90))).join('\n'),
    (number) => `X:${number}\n`.repeat(200),
    (number) => tune(number, '[1,3 A '.repeat(number % 300)),
  ];
  return [...worst, ...Array.from({ length: 2000 - worst.length }, (_, index) => kinds[index % kinds.length](1 + (index % 400)))];
}

const memoryOf = ({ child }: RunningServer): number =>
  Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${child.pid ?? 0}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/** Watches a server while something is done to it: the longest wait for `/api/health`, and its largest memory in MB. */
async function watched(server: RunningServer, work: Promise<unknown>): Promise<{ readonly silence: number; readonly memory: number }> {
  let [silence, memory, isDone] = [0, 0, false];
  void work.finally(() => (isDone = true)).catch(() => undefined);
  while (!isDone) {
    const start = performance.now();
    await (await fetch(`${server.address}/api/health`)).arrayBuffer();
    silence = Math.max(silence, performance.now() - start);
    memory = Math.max(memory, memoryOf(server));
    await pause(10);
  }
  await work;
  return { silence, memory };
}

const importText = async ({ address, headers }: ApiVisitor, text: string): Promise<number> => {
  const answer = await fetch(`${address}/api/tunes/import`, { method: 'POST', headers: { ...headers, 'content-type': 'text/plain' }, body: text });
  await answer.arrayBuffer();
  return answer.status;
};

async function hostileFigures(server: RunningServer, attacker: ApiVisitor): Promise<readonly Figure[]> {
  const texts = [...hostileTexts()];
  const strange: number[] = [];
  const send = async (): Promise<void> => {
    for (let text = texts.shift(); text !== undefined; text = texts.shift()) {
      const status = await importText(attacker, text);
      if (status >= 500) strange.push(status);
    }
  };
  const { silence, memory } = await watched(server, Promise.all(Array.from({ length: 6 }, send)));
  const measured = { better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
  return [
    {
      ...measured,
      name: 'longest silence of /api/health while 2 000 hostile texts are imported',
      median: silence,
      unit: 'ms',
      goal: 'under 100 ms',
      isMet: silence < 100,
    },
    { ...measured, name: 'largest memory of the server during it', median: memory, unit: 'MB', goal: 'under 600 MB', isMet: memory < 600 },
    { ...measured, name: 'answers of 500 and more during it', median: strange.length, unit: 'answers', goal: 'none', isMet: strange.length === 0 },
  ];
}

const books = 12;
const tunesInBook = 4000;

/** A long book as a job, waited for to its end; gives how it was answered at first. */
async function importLater(visitor: ApiVisitor, text: string): Promise<number> {
  const begun = await visitor.send('POST', '/api/jobs/tunes', new TextEncoder().encode(text));
  await jobDone(visitor, begun);
  return begun.status;
}

async function neighbourFigures(importer: ApiVisitor, neighbour: ApiVisitor): Promise<readonly Figure[]> {
  const times = async (isOver: () => boolean): Promise<number[]> => {
    const all: number[] = [];
    while (!isOver()) {
      const start = performance.now();
      const answer = await neighbour.send('GET', '/api/tunes');
      await answer.arrayBuffer();
      if (answer.status !== 200) throw new Error(`The list was answered by ${answer.status}.`);
      all.push(performance.now() - start);
      await pause(20);
    }
    return all;
  };
  await importText(neighbour, Array.from({ length: 60 }, (_, index) => tune(index, 'ABcd efga|')).join('\n'));
  const end = performance.now() + 10_000;
  const quiet = percentile(await times(() => performance.now() > end), 0.95);
  const book = Array.from({ length: tunesInBook }, (_, index) => tune(index, 'ABcd efga|{g}A2 {g}c2 e4|')).join('\n');
  let isDone = false;
  const imports = Promise.all(Array.from({ length: books }, () => importLater(importer, book))).finally(() => (isDone = true));
  const busy = percentile(await times(() => isDone), 0.95);
  const statuses = new Set(await imports);
  return [
    {
      name: `another studio's list, 95th percentile, while one imports ${books} books of ${tunesInBook} tunes (answers: ${[...statuses].join(', ')})`,
      median: busy,
      unit: 'ms',
      goal: 'under 2 times its quiet one',
      isMet: busy < 2 * quiet,
      better: 'lower',
      baseline: { name: 'the same list while nothing is imported', median: quiet },
      ratio: busy / quiet,
      command: benchCommand,
    },
  ];
}

/** Waits for a job to come to its end, and gives its id. @throws Error where it was not done */
async function jobDone(visitor: ApiVisitor, begun: Response): Promise<string> {
  const { id } = (await begun.json()) as { id: string };
  for (;;) {
    const { state, problem } = (await (await visitor.send('GET', `/api/jobs/${id}`)).json()) as { state: string; problem: string };
    if (state === 'done') return id;
    if (state === 'failed') throw new Error(`The job failed: ${problem}`);
    await pause(100);
  }
}

/** A studio's backup out, and into another one. */
async function move(from: ApiVisitor, to: ApiVisitor): Promise<void> {
  const taken = await jobDone(from, await from.send('POST', '/api/jobs/backup'));
  const file = new Uint8Array(await (await from.send('GET', `/api/jobs/${taken}/file`)).arrayBuffer());
  await jobDone(to, await to.send('POST', '/api/jobs/restore?before=put-away', file));
}

/** How much a fresh server grows by while a studio so many times as large as the large one goes out and in, in MB. */
async function growthAt(times: number): Promise<number> {
  const { server, large, other } = await crowded(times);
  try {
    const before = memoryOf(server);
    return (await watched(server, move(large, other))).memory - before;
  } finally {
    await server.stop();
  }
}

const [smaller, larger] = [0.5, 2];

/** Flat is what grows no more with four times as much: what a heap takes before it is swept is the same for both. */
async function flatFigure(): Promise<Figure> {
  const [little, much] = [await growthAt(smaller), await growthAt(larger)];
  return {
    name: `memory that a fresh server grows by during a backup with ${larger * largeStudio.students} students, over that with ${smaller * largeStudio.students} (${Math.round(little)} MB)`,
    median: much,
    unit: 'MB',
    goal: 'flat: under 1.5 times for four times as much',
    isMet: much < 1.5 * little,
    better: 'lower',
    baseline: { name: `with ${smaller * largeStudio.students} students`, median: little },
    ratio: much / little,
    command: benchCommand,
  };
}

async function archiveFigures(server: RunningServer, from: ApiVisitor, to: ApiVisitor): Promise<readonly Figure[]> {
  const before = memoryOf(server);
  const start = performance.now();
  const { memory, silence } = await watched(server, move(from, to));
  const seconds = (performance.now() - start) / 1000;
  const measured = { better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
  const things = Object.values(largeStudio).reduce((sum, each) => sum + each, 0);
  return [
    {
      ...measured,
      name: `backup of a studio of 10 000 students (${things} things) out, and in elsewhere`,
      median: seconds,
      unit: 's',
      goal: 'under 60 s',
      isMet: seconds < 60,
    },
    { ...measured, name: 'memory that the server grows by during it', median: memory - before, unit: 'MB', goal: 'none set; see the next line', isMet: true },
    { ...measured, name: 'longest silence of /api/health during it', median: silence, unit: 'ms', goal: 'none set', isMet: true },
  ];
}

/** Studios beside each other on one server: reads, hostile texts, a neighbour's imports, backups. */
export async function studioFigures(): Promise<readonly Figure[]> {
  const figures: Figure[] = [];
  const { server, large, other } = await crowded();
  try {
    const reads = await readFigures(server, large);
    // Before books are imported: a backup of what it is named after, and of nothing else.
    const archive = await archiveFigures(server, large, await createStudio(server.address, 'Gable Yard'));
    const hostile = await hostileFigures(server, large);
    const neighbour = await neighbourFigures(large, other);
    figures.push(...reads, ...hostile, ...neighbour, ...archive);
  } finally {
    await server.stop();
  }
  return [...figures, await flatFigure()];
}
