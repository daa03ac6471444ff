import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres } from './postgres.mjs';

/** Starts a PostgreSQL that is thrown away afterwards, and hands its settings to `use` as environment variables. */
export async function withTestDatabase(use) {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-test-'));
  chmodSync(folder, 0o755);
  const postgres = await startPostgres(folder, { isThrowaway: true });
  try {
    return await use({ ZELPIT_TEST_DATABASE_URL: postgres.url, ZELPIT_TEST_ROWS_URL: postgres.rowsUrl, ZELPIT_TEST_PG_DATA: postgres.folder });
  } finally {
    postgres.stop();
    rmSync(folder, { recursive: true, force: true });
    rmSync(postgres.folder, { recursive: true, force: true });
  }
}
