import { fork } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensureBuilt } from './lib/build.mjs';
import { takeLock } from './lib/lock.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { dist, root, stateFolder } from './lib/paths.mjs';
import { isFree } from './lib/ports.mjs';
import { secretsOf, startPostgres } from './lib/postgres.mjs';
import { endWith, isRoot, output, say, Sentence } from './lib/run.mjs';

const usualPort = Number(process.env.ZELPIT_PORT ?? 4280);

/** Starts all parts, in the order in which they need each other, and returns what stops them. */
async function start(lock) {
  await ensurePackages();
  await ensureBuilt();
  const elsewhere = process.env.DATABASE_URL || undefined;
  const postgres = elsewhere === undefined ? await startPostgres(stateFolder) : undefined;
  const isUsualPortFree = usualPort !== 0 && (await isFree(usualPort));
  if (!isUsualPortFree && usualPort !== 0) say(`Port ${usualPort} is taken by another program; a free one is used.`);
  const servers = superviseServer((port) => ({
    ...process.env,
    NODE_ENV: 'production',
    DATABASE_URL: elsewhere ?? postgres.rowsUrl,
    ...(postgres !== undefined && { ZELPIT_MIGRATIONS_URL: postgres.url }),
    ZELPIT_PORT: String(port),
    ZELPIT_DEMO: process.env.ZELPIT_DEMO ?? '1',
    ZELPIT_SESSION_SECRET: process.env.ZELPIT_SESSION_SECRET || secretsOf(stateFolder).sessionSecret,
    ZELPIT_METRICS_PORT: process.env.ZELPIT_METRICS_PORT ?? '4281',
    ZELPIT_WEB_ROOT: join(dist, 'web'),
    ZELPIT_LOG: process.env.ZELPIT_LOG ?? 'warn',
  }));
  const stop = async () => {
    await servers.stop();
    postgres?.stop();
    lock.release();
  };
  try {
    const port = await servers.start(isUsualPortFree ? usualPort : 0);
    return { address: `http://127.0.0.1:${port}`, ended: servers.ended, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

/** A server that crashed is started again, where it was, but not for ever. */
const [mostCrashes, crashWindowMs, pauseMs] = [5, 600_000, 1000];

/** Keeps one server running until it is told to stop, or until it has crashed too often. */
function superviseServer(envFor) {
  const who = unprivileged();
  let [server, isStopping, over] = [undefined, false, undefined];
  const ended = new Promise((resolve) => (over = resolve));
  const launch = async (port) => {
    server = fork(join(dist, 'server', 'main.js'), { cwd: root, env: envFor(port), ...who });
    const exited = new Promise((resolve) => server.once('exit', resolve));
    const early = exited.then(() => Promise.reject(new Sentence('The server ended before it could listen. What it said stands above.')));
    return { port: await Promise.race([listening(server), early]), exited };
  };
  const keep = async ({ port, exited }) => {
    const crashes = [];
    for (let running = exited; ;) {
      const code = await running;
      if (isStopping) return code;
      crashes.push(Date.now());
      if (crashes.filter((at) => at > Date.now() - crashWindowMs).length > mostCrashes) return code;
      say(`The server ended by itself (${code}). It is started again; what was saved is safe.`);
      await pause(pauseMs);
      if (isStopping) return code;
      running = await launch(port).then(
        (next) => next.exited,
        () => Promise.resolve('before it could listen'),
      );
    }
  };
  return {
    ended,
    start: async (port) => {
      const first = await launch(port);
      void keep(first).then(over);
      return first.port;
    },
    stop: async () => {
      isStopping = true;
      if (server === undefined || server.exitCode !== null || server.signalCode !== null) return;
      const exited = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGTERM');
      await exited;
    },
  };
}

const nobody = 'nobody';

/** As whom the server runs: as whoever starts it, but never as root. */
function unprivileged() {
  if (!isRoot() || process.env.ZELPIT_AS_ROOT === '1') return {};
  const mayRead = output(
    'runuser',
    ['-u', nobody, '--', process.execPath, '-e', `require('node:fs').readFileSync(${JSON.stringify(join(dist, 'server', 'main.js'))})`],
    { cwd: '/' },
  );
  if (mayRead === undefined)
    throw new Sentence(
      `Zelpit does not run its server as root, and the account “${nobody}”, as which it would, cannot read ${root}. Put the clone where others can read it, or start it as another user.`,
    );
  const [uid, gid] = ['-u', '-g'].map((flag) => Number(output('id', [flag, nobody])));
  return { uid, gid };
}

function listening(server) {
  return new Promise((resolve) => server.on('message', (message) => message?.listening !== undefined && resolve(message.listening)));
}

async function main() {
  const lock = takeLock(join(stateFolder, 'start.lock'));
  if (lock.holder !== undefined) {
    say(lock.holder.address === undefined ? 'Zelpit is being started in this clone already.' : `Zelpit runs already: ${lock.holder.address}`);
    return;
  }
  let isStopping = false;
  let running;
  const onSignal = () => {
    if (isStopping) return;
    isStopping = true;
    if (running === undefined) return;
    say('\nStopping …');
    void running.stop().then(() => process.exit(0));
  };
  process.on('SIGINT', onSignal);
  process.on('SIGTERM', onSignal);
  try {
    running = await start(lock);
  } catch (error) {
    lock.release();
    throw error;
  }
  if (isStopping) {
    await running.stop();
    return;
  }
  lock.setAddress(running.address);
  say(`\nZelpit is ready: ${running.address}\nCtrl-C stops it.`);
  const code = await running.ended;
  if (isStopping) return;
  await running.stop();
  throw new Sentence(`The server ended by itself again and again (${code}). What it said stands above.`);
}

main().catch(endWith);
