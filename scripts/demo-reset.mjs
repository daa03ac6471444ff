import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { dist, stateFolder } from './lib/paths.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { endWith, run, say } from './lib/run.mjs';
import { existsSync } from 'node:fs';

/** Removes the demo studio and loads it anew; other studios stay. Works while Zelpit runs and while it does not. */
async function main() {
  await ensurePackages();
  await ensureBuilt();
  const isRunning = existsSync(join(stateFolder, 'start.lock'));
  const elsewhere = process.env.DATABASE_URL || undefined;
  const postgres = elsewhere === undefined ? await startPostgres(stateFolder) : undefined;
  const env = {
    DATABASE_URL: elsewhere ?? postgres.rowsUrl,
    ...(postgres !== undefined && { ZELPIT_MIGRATIONS_URL: postgres.url }),
    ZELPIT_SESSION_SECRET: 'not used, no session is opened here',
    ZELPIT_LOG: 'error',
  };
  try {
    await run('node', [join(dist, 'server', 'main.js'), '--demo-reset'], { env });
  } finally {
    if (!isRunning) postgres?.stop();
  }
  say('The demo studio is as new. Sign in again.');
}

main().catch(endWith);
