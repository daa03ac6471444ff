import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../scripts/lib/ports.mjs';
import { startPostgres } from '../scripts/lib/postgres.mjs';

/** A PostgreSQL apart from that of the other tests, safe against kills, with an empty database; to be killed and started again. */
export async function ownPostgres() {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-kill-'));
  chmodSync(folder, 0o755);
  const port = await freePort(0);
  let running = await startPostgres(folder, { port });
  return {
    databaseUrl: running.url,
    rowsUrl: running.rowsUrl,
    kill: () => running.kill(),
    start: async () => {
      running = await startPostgres(folder, { port });
    },
    end: () => {
      running.stop();
      rmSync(folder, { recursive: true, force: true });
      rmSync(running.folder, { recursive: true, force: true });
    },
  };
}
