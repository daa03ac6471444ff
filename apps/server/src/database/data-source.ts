import 'reflect-metadata';
import pg from 'pg';
import { DataSource, type EntityTarget, type ObjectLiteral } from 'typeorm';
import { FirstGround1764000000000 } from './migrations/1764000000000-first-ground';
import { WholeStudio1764060000000 } from './migrations/1764060000000-whole-studio';
import { Instruments1764115200000 } from './migrations/1764115200000-instruments';
import { ChangeBench1764201600000 } from './migrations/1764201600000-change-bench';
import { Movements1764288000000 } from './migrations/1764288000000-movements';
import { PinsVersion1764374400000 } from './migrations/1764374400000-pins-version';
import { LineFingering1764460800000 } from './migrations/1764460800000-line-fingering';
import { LineSpeeds1764547200000 } from './migrations/1764547200000-line-speeds';

/** A source of connections; errors of idle ones are reported, never thrown. */
export function createDataSource(databaseUrl: string, entities: readonly EntityTarget<ObjectLiteral>[], onPoolError: (error: unknown) => void): DataSource {
  return new DataSource({
    type: 'postgres',
    url: databaseUrl,
    entities: [...entities] as never[],
    migrations: [
      FirstGround1764000000000,
      WholeStudio1764060000000,
      Instruments1764115200000,
      ChangeBench1764201600000,
      Movements1764288000000,
      PinsVersion1764374400000,
      LineFingering1764460800000,
      LineSpeeds1764547200000,
    ],
    synchronize: false,
    extra: { max: 10, connectionTimeoutMillis: 3000 },
    poolErrorHandler: onPoolError,
  });
}

const migrationLock = 7_315_204;

/** Brings the tables up to date; a second process that does the same waits its turn. */
export async function migrate(dataSource: DataSource, databaseUrl: string): Promise<void> {
  const guard = new pg.Client({ connectionString: databaseUrl });
  await guard.connect();
  try {
    await guard.query('SELECT pg_advisory_lock($1)', [migrationLock]);
    await dataSource.runMigrations({ transaction: 'each' });
  } finally {
    await guard.end();
  }
}
