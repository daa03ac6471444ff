import { killRun } from '../kill-run';
import { ownPostgres } from '../own-postgres.mjs';
import { startServer, type RunningServer, type ServerSettings } from '../server.mjs';
import { expect, test } from './as-teacher';

/** What goes wrong while the database is away is wanted here. */
const quietly = (settings: ServerSettings): Promise<RunningServer> => startServer({ ...settings, env: { ZELPIT_LOG: 'silent' } });

test('server and database killed in turn under their writers: no acknowledged write is missing and none is doubled', async () => {
  test.setTimeout(120_000);
  const postgres = await ownPostgres();
  try {
    const { missing, doubled, strange, acknowledged } = await killRun({ kills: 2, writers: 3, seed: 1, writesBetween: 10, startServer: quietly, postgres });
    expect({ missing, doubled, strange }).toEqual({ missing: [], doubled: [], strange: [] });
    expect(acknowledged).toBeGreaterThan(20);
  } finally {
    postgres.end();
  }
});
