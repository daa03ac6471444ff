import { killRun } from '../e2e/kill-run';
import { ownPostgres } from '../e2e/own-postgres.mjs';
import { startServer } from '../e2e/server.mjs';
import { benchCommand, medianOf, type Figure } from './measure';

const kills = 200;
const writers = 6;
const seed = 20_261;

/** Acknowledged writes that are missing or doubled after many kills, and how long it takes until writes go on. */
export async function killFigures(): Promise<readonly Figure[]> {
  const postgres = await ownPostgres();
  try {
    const { missing, doubled, strange, acknowledged, repeats, recoveries } = await killRun({
      kills,
      writers,
      seed,
      startServer: (settings) => startServer({ ...settings, env: { ZELPIT_LOG: 'silent' } }),
      postgres,
    });
    for (const text of [...missing, ...doubled, ...strange].slice(0, 20)) process.stdout.write(`${text}\n`);
    const common = { better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
    const wrong = missing.length + doubled.length;
    return [
      {
        ...common,
        name: `of ${acknowledged} acknowledged writes, missing or doubled after ${kills} SIGKILLs of server and PostgreSQL by turns (${writers} writers, ${repeats} repeats)`,
        median: wrong,
        unit: 'writes',
        goal: 'none, and no answer but success or “away”',
        isMet: wrong === 0 && strange.length === 0,
      },
      { ...common, name: 'from a kill to the next acknowledged write', median: medianOf(recoveries), unit: 'ms', goal: 'none set', isMet: true },
    ];
  } finally {
    postgres.end();
  }
}
