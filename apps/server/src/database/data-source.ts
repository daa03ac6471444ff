import 'reflect-metadata';
import pg from 'pg';
import { PlanKeepingClient } from './plan-keeping-client';
import { DataSource, type EntityTarget, type ObjectLiteral } from 'typeorm';
import { makeWorkQueue, queueGrants } from '../jobs/work-queue';
import { FirstGround1764000000000 } from './migrations/1764000000000-first-ground';
import { WholeStudio1764060000000 } from './migrations/1764060000000-whole-studio';
import { Instruments1764115200000 } from './migrations/1764115200000-instruments';
import { ChangeBench1764201600000 } from './migrations/1764201600000-change-bench';
import { Movements1764288000000 } from './migrations/1764288000000-movements';
import { PinsVersion1764374400000 } from './migrations/1764374400000-pins-version';
import { LineFingering1764460800000 } from './migrations/1764460800000-line-fingering';
import { LineSpeeds1764547200000 } from './migrations/1764547200000-line-speeds';
import { StudiosApart1764633600000 } from './migrations/1764633600000-studios-apart';
import { Doors1764720000000 } from './migrations/1764720000000-doors';
import { TuneFacts1764806400000 } from './migrations/1764806400000-tune-facts';
import { ChordNote1764979200000 } from './migrations/1764979200000-chord-note';
import { Arrangements1765152000000 } from './migrations/1765152000000-arrangements';
import { Attempts1765238400000 } from './migrations/1765238400000-attempts';
import { Jobs1765497600000 } from './migrations/1765497600000-jobs';
import { Takes1765670400000 } from './migrations/1765670400000-takes';
import { Foretold1765756800000 } from './migrations/1765756800000-foretold';
import { Demonstrations1765843200000 } from './migrations/1765843200000-demonstrations';
import { SpokenWords1765929600000 } from './migrations/1765929600000-spoken-words';
import { LongTakes1766102400000 } from './migrations/1766102400000-long-takes';
import { ObjectStoreFiles1766016000000 } from './migrations/1766016000000-object-store';
import { SessionPlan1765584000000 } from './migrations/1765584000000-session-plan';
import { Reviews1765324800000 } from './migrations/1765324800000-reviews';
import { FamilyAndSubstitutes1765411200000 } from './migrations/1765411200000-family-and-substitutes';
import { SheetItems1765065600000 } from './migrations/1765065600000-sheet-items';
import { WrittenOctave1764892800000 } from './migrations/1764892800000-written-octave';

/** A source of connections; errors of idle ones are reported, never thrown. */
export function createDataSource(
  databaseUrl: string,
  entities: readonly EntityTarget<ObjectLiteral>[],
  onPoolError: (error: unknown) => void,
  pool = 10,
): DataSource {
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
      StudiosApart1764633600000,
      Doors1764720000000,
      TuneFacts1764806400000,
      WrittenOctave1764892800000,
      ChordNote1764979200000,
      SheetItems1765065600000,
      Arrangements1765152000000,
      Attempts1765238400000,
      Reviews1765324800000,
      FamilyAndSubstitutes1765411200000,
      Jobs1765497600000,
      SessionPlan1765584000000,
      Takes1765670400000,
      Foretold1765756800000,
      Demonstrations1765843200000,
      SpokenWords1765929600000,
      ObjectStoreFiles1766016000000,
      LongTakes1766102400000,
    ],
    synchronize: false,
    // What is asked one after the other goes out at once, without waiting for the answer before.
    extra: { max: pool, connectionTimeoutMillis: 3000, Client: PlanKeepingClient, pipeline: true },
    poolErrorHandler: onPoolError,
  });
}

const migrationLock = 7_315_204;

/**
 * Brings the tables up to date, as the role that owns them; a second process that does the same waits its turn.
 * @param rowsUrl of the role that the server works as: it reads and writes rows of studios, calls functions, and may do nothing else
 */
export async function migrate(ownersUrl: string, rowsUrl: string): Promise<void> {
  const dataSource = createDataSource(ownersUrl, [], () => undefined);
  const guard = new pg.Client({ connectionString: ownersUrl });
  await guard.connect();
  try {
    await guard.query('SELECT pg_advisory_lock($1)', [migrationLock]);
    await dataSource.initialize();
    await dataSource.runMigrations({ transaction: 'each' });
    await makeWorkQueue(ownersUrl);
    const role = decodeURIComponent(new URL(rowsUrl).username);
    await guard.query(grantsFor(role));
    await guard.query(queueGrants(pg.escapeIdentifier(role)));
  } finally {
    if (dataSource.isInitialized) await dataSource.destroy();
    await guard.end();
  }
}

/** Rows of tables that PostgreSQL shows by studio, and functions. Partitions and what stands outside of studios are not among them. */
const grantsFor = (role: string): string => `
  DO $grants$
  DECLARE
    rows_role text := ${pg.escapeLiteral(role)};
    thing record;
  BEGIN
    EXECUTE format('REVOKE ALL ON ALL TABLES IN SCHEMA public FROM %I', rows_role);
    FOR thing IN SELECT c.oid::regclass AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p') AND c.relrowsecurity AND NOT c.relispartition
    LOOP
      EXECUTE format('GRANT SELECT, INSERT, UPDATE, DELETE ON %s TO %I', thing.name, rows_role);
    END LOOP;
    FOR thing IN SELECT p.oid::regprocedure AS name FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
      WHERE n.nspname = 'public' AND NOT EXISTS (SELECT 1 FROM pg_depend d WHERE d.objid = p.oid AND d.deptype = 'e')
    LOOP
      EXECUTE format('REVOKE ALL ON FUNCTION %s FROM PUBLIC', thing.name);
      EXECUTE format('GRANT EXECUTE ON FUNCTION %s TO %I', thing.name, rows_role);
    END LOOP;
  END
  $grants$`;

/**
 * Makes sure that the server works with no more rights than it needs.
 * @throws Error with a sentence where its role may do more, or where the tables are not those of this version
 */
export async function assertLeastRights(dataSource: DataSource): Promise<void> {
  const [role] = await dataSource.query<{ may: boolean; name: string }[]>(
    `SELECT current_user AS name, (rolsuper OR rolbypassrls OR EXISTS (SELECT 1 FROM pg_tables WHERE schemaname = 'public' AND tableowner = current_user)) AS may
     FROM pg_roles WHERE rolname = current_user`,
  );
  if (role.may)
    throw new Error(
      `The server works as the role “${role.name}”, which may do more than read and write rows. Give DATABASE_URL a role of its own (CREATE ROLE zelpit_rows LOGIN PASSWORD '…'), and name the role that owns the tables in ZELPIT_MIGRATIONS_URL.`,
    );
  const [{ known }] = await dataSource.query<{ known: boolean }[]>("SELECT to_regprocedure('public.current_studio()') IS NOT NULL AS known");
  if (!known)
    throw new Error('The tables of this database are older than this Zelpit. Start it once with ZELPIT_MIGRATIONS_URL, the role that owns the tables.');
}
