import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { stateFolder } from './paths.mjs';
import { ensureBinaries, startPostgres } from './postgres.mjs';

/** Whether Zelpit runs in this clone, as far as its lock says. */
export const isRunning = () => existsSync(join(stateFolder, 'start.lock'));

/**
 * Hands `use` a way to run PostgreSQL's programs on the studio's database: the clone's own, started for the time where it
 * does not run, or the one that ZELPIT_MIGRATIONS_URL names (the role of DATABASE_URL may not read it whole). Passwords go through the environment, never over the command line.
 */
export async function withDatabase(use) {
  const elsewhere = process.env.DATABASE_URL ? process.env.ZELPIT_MIGRATIONS_URL || process.env.DATABASE_URL : undefined;
  const wasRunning = isRunning();
  const postgres = elsewhere === undefined ? await startPostgres(stateFolder) : undefined;
  const url = new URL(elsewhere ?? postgres.url);
  const binaries = await ensureBinaries();
  const env = {
    ...process.env,
    PGHOST: url.hostname,
    PGPORT: url.port || '5432',
    PGUSER: decodeURIComponent(url.username),
    PGPASSWORD: decodeURIComponent(url.password),
    PGDATABASE: url.pathname.slice(1),
  };
  try {
    return await use((program, args) => spawnSync(join(binaries, program), args, { env, encoding: 'utf8', maxBuffer: 1 << 26 }), env.PGDATABASE);
  } finally {
    if (!wasRunning) postgres?.stop();
  }
}
