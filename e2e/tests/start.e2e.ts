import { expect, test } from '@playwright/test';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { signInToDemo } from '../api-visitor';

const root = join(import.meta.dirname, '..', '..');

/** Where only root can read the clone, or run this Node, the server runs as root here: there is nobody else who could. */
const readsPackage = ['-e', `require('node:fs').readFileSync(${JSON.stringify(join(root, 'package.json'))})`];
const runsAsRoot = process.getuid?.() === 0 && spawnSync('runuser', ['-u', 'nobody', '--', process.execPath, ...readsPackage], { cwd: '/' }).status !== 0;

interface Started {
  readonly child: ChildProcess;
  readonly text: () => string;
  readonly ended: Promise<number | null>;
}

function start(state: string, env: Record<string, string> = {}): Started {
  const child = spawn('node', [join(root, 'scripts', 'start.mjs')], {
    env: { ...process.env, DATABASE_URL: '', ZELPIT_STATE: state, ZELPIT_PORT: '0', ...(runsAsRoot && { ZELPIT_AS_ROOT: '1' }), ...env },
  });
  let output = '';
  child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()));
  child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()));
  return { child, text: () => output, ended: new Promise((resolve) => child.on('exit', resolve)) };
}

async function addressOf(started: Started): Promise<string> {
  await expect.poll(started.text, { timeout: 90_000 }).toMatch(/Zelpit is ready: http:\/\/127\.0\.0\.1:\d+/);
  return /http:\/\/127\.0\.0\.1:\d+/.exec(started.text())?.[0] ?? '';
}

/** The process that another one has started, by a word of its command. */
function childOf(parent: number, word: string): number {
  const found = readdirSync('/proc').find((pid) => {
    if (!/^\d+$/.test(pid)) return false;
    try {
      const isChild = /^\d+ \(.*\) \S+ (\d+)/s.exec(readFileSync(`/proc/${pid}/stat`, 'utf8'))?.[1] === String(parent);
      return isChild && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(word);
    } catch {
      return false;
    }
  });
  return Number(found);
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

/** Names of the students, asked of a Zelpit that is started for it. */
async function aliases(state: string): Promise<readonly string[]> {
  const started = start(state);
  const visitor = await signInToDemo(await addressOf(started));
  const students = await visitor.list<{ alias: string }>('/api/students');
  started.child.kill('SIGINT');
  await started.ended;
  return students.map(({ alias }) => alias);
}

/** Signs in to the demo and returns a way to ask. */
async function visitor(address: string): Promise<(path: string) => Promise<unknown>> {
  const signedIn = await signInToDemo(address);
  return (path) => signedIn.get(path);
}

test.describe('npm start', () => {
  test.describe.configure({ mode: 'serial', timeout: 240_000 });
  let state: string;
  test.beforeAll(() => {
    state = mkdtempSync(join(tmpdir(), 'zelpit-start-'));
    chmodSync(state, 0o755);
  });
  test.afterAll(() => rmSync(state, { recursive: true, force: true }));
  let sheets: unknown;

  test('prints an address, serves the demo, and stops all that it started on Ctrl-C; a second start is told so', async () => {
    const started = start(state);
    const address = await addressOf(started);
    const ask = await visitor(address);
    sheets = await ask('/api/sheets');
    // One sheet for each student, and the review of one.
    expect(sheets).toHaveProperty('items.length', 13);
    const second = start(state);
    expect(await second.ended).toBe(0);
    expect(second.text()).toContain(`Zelpit runs already: ${address}`);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
    await expect(fetch(`${address}/api/health`)).rejects.toThrow();
  });

  test('shows the same sheet after everything was restarted', async () => {
    const started = start(state);
    const ask = await visitor(await addressOf(started));
    expect(await ask('/api/sheets')).toEqual(sheets);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
  });

  test('starts again after it was killed, with a sentence about the stale lock', async () => {
    const killed = start(state);
    const address = await addressOf(killed);
    killed.child.kill('SIGKILL');
    await killed.ended;
    await expect
      .poll(() =>
        fetch(`${address}/api/health`).then(
          () => 'answers',
          () => 'gone',
        ),
      )
      .toBe('gone');
    const started = start(state);
    const ask = await visitor(await addressOf(started));
    expect(started.text()).toContain('An earlier start of this clone was killed; its stale lock is removed.');
    expect(await ask('/api/sheets')).toEqual(sheets);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
  });

  test('starts the server again where it crashed, at the same address, with a sentence', async () => {
    const started = start(state);
    const address = await addressOf(started);
    const server = childOf(started.child.pid ?? 0, 'main.js');
    process.kill(server, 'SIGKILL');
    await expect.poll(started.text).toContain('It is started again; what was saved is safe.');
    await expect
      .poll(
        () =>
          fetch(`${address}/api/ready`).then(
            ({ status }) => status,
            () => 0,
          ),
        { timeout: 20_000 },
      )
      .toBe(200);
    const ask = await visitor(address);
    expect(await ask('/api/sheets')).toEqual(sheets);
    if (process.getuid?.() === 0 && !runsAsRoot)
      expect(readFileSync(`/proc/${childOf(started.child.pid ?? 0, 'main.js')}/status`, 'utf8')).not.toMatch(/^Uid:\s+0\b/m);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
  });

  test('removes the stale pid file of a database that was killed, with a sentence', async () => {
    const first = start(state);
    await addressOf(first);
    const pidFile = join(state, 'postgres', 'postmaster.pid');
    const content = readFileSync(pidFile, 'utf8');
    process.kill(Number(content.split('\n')[0]), 'SIGKILL');
    await expect.poll(() => isAlive(Number(content.split('\n')[0]))).toBe(false);
    first.child.kill('SIGINT');
    await first.ended;
    writeFileSync(pidFile, content);
    const started = start(state);
    const ask = await visitor(await addressOf(started));
    expect(started.text()).toContain('A database of this clone was killed before; its stale pid file is removed.');
    expect(await ask('/api/sheets')).toEqual(sheets);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
  });

  test('backs everything up and puts it back; a broken file is refused and changes nothing', async () => {
    const run = async (script: string, ...args: string[]): Promise<{ code: number | null; text: string }> => {
      const child = spawn('node', [join(root, 'scripts', script), ...args], { env: { ...process.env, DATABASE_URL: '', ZELPIT_STATE: state } });
      let text = '';
      for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (text += chunk.toString()));
      return { code: await new Promise((resolve) => child.on('exit', resolve)), text };
    };
    const file = join(state, 'all.dump');
    expect(await run('backup.mjs', file)).toMatchObject({ code: 0, text: expect.stringContaining('Everything is in') });
    expect(await run('backup.mjs', file)).toMatchObject({ code: 1, text: expect.stringContaining('There is already a file') });

    const changed = start(state);
    const teacher = await signInToDemo(await addressOf(changed));
    expect((await teacher.send('POST', '/api/students', { alias: 'Came later' })).status).toBe(201);
    expect(await run('restore.mjs', file)).toMatchObject({ code: 1, text: expect.stringContaining('Stop it first') });
    changed.child.kill('SIGINT');
    await changed.ended;

    const cut = join(state, 'cut.dump');
    const whole = readFileSync(file);
    writeFileSync(cut, whole.subarray(0, 200));
    expect(await run('restore.mjs', cut)).toMatchObject({ code: 1, text: expect.stringContaining('Nothing was changed') });
    writeFileSync(cut, 'no dump at all');
    expect(await run('restore.mjs', cut)).toMatchObject({ code: 1, text: expect.stringContaining('Nothing was changed') });
    writeFileSync(cut, whole.subarray(0, whole.length - 900));
    const halfway = await run('restore.mjs', cut);
    expect(halfway.code).toBe(1);
    expect(halfway.text).toMatch(/[Nn]othing was changed/);
    expect(await aliases(state)).toContain('Came later');

    expect(await run('restore.mjs', file)).toMatchObject({ code: 0, text: expect.stringContaining('as it was in the backup') });
    const after = await aliases(state);
    expect(after).not.toContain('Came later');
    expect(after).toContain('Pim');
  });

  test('uses another PostgreSQL where DATABASE_URL names one, and leaves it running', async () => {
    const elsewhere = mkdtempSync(join(tmpdir(), 'zelpit-start-'));
    const [owner, rows] = ['ZELPIT_TEST_DATABASE_URL', 'ZELPIT_TEST_ROWS_URL'].map((name) => process.env[name] ?? '');
    // A server that may do everything does not start, and says what to do.
    const careless = start(elsewhere, { DATABASE_URL: owner });
    expect(await careless.ended).not.toBe(0);
    expect(careless.text()).toContain('may do more than read and write rows');
    const started = start(elsewhere, { DATABASE_URL: rows, ZELPIT_MIGRATIONS_URL: owner });
    const ask = await visitor(await addressOf(started));
    expect(await ask('/api/sheets')).toHaveProperty('items.length', 13);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
    expect(existsSync(join(elsewhere, 'postgres'))).toBe(false);
    rmSync(elsewhere, { recursive: true, force: true });
  });

  test('takes a free port where the usual one is taken, and says so', async () => {
    const holder = createServer();
    const port = await new Promise<number>((resolve) => {
      holder.listen(0, '127.0.0.1', () => {
        const address = holder.address();
        resolve(typeof address === 'object' && address !== null ? address.port : 0);
      });
    });
    const started = start(state, { ZELPIT_PORT: String(port) });
    const address = await addressOf(started);
    expect(started.text()).toContain(`Port ${port} is taken by another program; a free one is used.`);
    expect(address).not.toContain(`:${port}`);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
    holder.close();
  });
});
