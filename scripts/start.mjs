import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { takeLock } from './lib/lock.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { dist, root, stateFolder } from './lib/paths.mjs';
import { isFree } from './lib/ports.mjs';
import { secretsOf, startPostgres } from './lib/postgres.mjs';
import { endWith, say, Sentence } from './lib/run.mjs';

const usualPort = Number(process.env.ZELPIT_PORT ?? 4280);

/** Starts all parts, in the order in which they need each other, and returns what stops them. */
async function start(lock) {
  await ensurePackages();
  await ensureBuilt();
  const elsewhere = process.env.DATABASE_URL || undefined;
  const postgres = elsewhere === undefined ? await startPostgres(stateFolder) : undefined;
  const isUsualPortFree = usualPort !== 0 && (await isFree(usualPort));
  if (!isUsualPortFree && usualPort !== 0) say(`Port ${usualPort} is taken by another program; a free one is used.`);
  const server = fork(join(dist, 'server', 'main.js'), {
    cwd: root,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: elsewhere ?? postgres.rowsUrl,
      ...(postgres !== undefined && { ZELPIT_MIGRATIONS_URL: postgres.url }),
      ZELPIT_PORT: String(isUsualPortFree ? usualPort : 0),
      ZELPIT_DEMO: process.env.ZELPIT_DEMO ?? '1',
      ZELPIT_SESSION_SECRET: process.env.ZELPIT_SESSION_SECRET || secretsOf(stateFolder).sessionSecret,
      ZELPIT_METRICS_PORT: process.env.ZELPIT_METRICS_PORT ?? '4281',
      ZELPIT_WEB_ROOT: join(dist, 'web'),
      ZELPIT_LOG: process.env.ZELPIT_LOG ?? 'warn',
    },
  });
  const ended = new Promise((resolve) => server.once('exit', (code) => resolve(code)));
  const stop = async () => {
    if (server.exitCode === null) server.kill('SIGTERM');
    await ended;
    postgres?.stop();
    lock.release();
  };
  try {
    const port = await Promise.race([
      listening(server),
      ended.then(() => Promise.reject(new Sentence('The server ended before it could listen. What it said stands above.'))),
    ]);
    return { address: `http://127.0.0.1:${port}`, ended, stop };
  } catch (error) {
    await stop();
    throw error;
  }
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
  throw new Sentence(`The server ended by itself (${code}). What it said stands above.`);
}

main().catch(endWith);
