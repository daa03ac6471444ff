import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { addStudio, clusterUrl, onCluster, rowsClusterUrl, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { tables } from '../things/tables';
import { assertLeastRights, createDataSource, migrate } from './data-source';
import { Database } from './database';

/** What stands outside of studios, by name; everything else is a studio's own. */
const outside = ['account', 'session', 'studio', 'tries', 'migrations'];
/** Keys that do not lead with the studio, each with its reason. */
const otherKeys = [
  // A token is looked up before anybody knows whose studio it is for.
  'one_time_link UNIQUE (token_hash)',
  // An account belongs to several studios.
  'membership FOREIGN KEY (account_id) REFERENCES account(id) ON DELETE CASCADE',
];

let server: TestServer;
let ada: Visitor;
let studios: readonly string[];
beforeAll(async () => {
  server = await startTestServer();
  studios = [await addStudio(server.dataSource, 'ada@studio.example'), await addStudio(server.dataSource, 'bea@studio.example')];
  ada = await visit(server.app, 'ada@studio.example');
  await ada.post('/api/students', { alias: 'Pim' }).expect(201);
});
afterAll(() => server.close());

describe('the catalogue of the database', () => {
  it('knows every table as a studio’s own, with its rows shown by studio, or by name as outside of studios', async () => {
    const rows = await server.dataSource.query<{ name: string; shown: boolean; policies: string }[]>(
      `SELECT c.relname AS name, c.relrowsecurity AS shown, (SELECT count(*) FROM pg_policy p WHERE p.polrelid = c.oid) AS policies
       FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p') AND NOT c.relispartition`,
    );
    const own = rows.filter(({ name }) => !outside.includes(name));
    expect(own.length).toBeGreaterThanOrEqual(14);
    expect(own.filter(({ shown, policies }) => !shown || policies !== '1').map(({ name }) => name)).toEqual([]);
    expect(outside.filter((name) => !rows.some((row) => row.name === name))).toEqual([]);
  });

  it('has the studio first in every key of a studio’s things', async () => {
    const found = await server.dataSource.query<{ name: string; key: string }[]>(
      `SELECT c.relname AS name, pg_get_constraintdef(k.oid) AS key FROM pg_constraint k JOIN pg_class c ON c.oid = k.conrelid
       JOIN pg_namespace n ON n.oid = c.relnamespace
       WHERE n.nspname = 'public' AND k.contype IN ('p', 'u', 'f') AND NOT c.relispartition AND NOT c.relname = ANY ($1)`,
      [outside],
    );
    expect(found.length).toBeGreaterThan(30);
    const wrong = found.map(({ name, key }) => `${name} ${key}`).filter((key) => !/^\w+ (PRIMARY KEY|UNIQUE|FOREIGN KEY) \(studio_id\b/.test(key));
    expect(wrong.sort()).toEqual([...otherKeys].sort());
  });

  it.each(['trial', 'attempt'])('holds the log %s in one partition for each year, with one for all the rest', async (log) => {
    const parts = await server.dataSource.query<{ name: string }[]>('SELECT inhrelid::regclass::text AS name FROM pg_inherits WHERE inhparent = $1::regclass', [
      log,
    ]);
    expect(parts.map(({ name }) => name)).toEqual(expect.arrayContaining([`${log}_${new Date().getFullYear()}`, `${log}_other`]));
  });
});

describe('the role that the server works as', () => {
  const tries = (sql: string): Promise<unknown> => server.rows.query(sql);

  it('reads and writes rows and may do nothing else', async () => {
    const forbidden = [
      'SELECT * FROM account',
      'SELECT * FROM session',
      'SELECT * FROM migrations',
      'SELECT * FROM trial_2026',
      "INSERT INTO studio (id, name) VALUES (gen_random_uuid(), 'x'); INSERT INTO account VALUES (gen_random_uuid(), 'x', 'x', 'x')",
      'CREATE TABLE mine (id int)',
      'DROP TABLE student',
      'ALTER TABLE student DISABLE ROW LEVEL SECURITY',
      'TRUNCATE student',
      'CREATE ROLE friend',
      "COPY student TO PROGRAM 'cat'",
    ];
    for (const sql of forbidden)
      await expect([
        sql,
        await tries(sql).then(
          () => 'done',
          (error: Error) => error.message,
        ),
      ]).toEqual([sql, expect.stringMatching(/permission denied|must be owner|row-level security|must be superuser/)]);
    await expect(assertLeastRights(server.rows)).resolves.toBeUndefined();
    await expect(assertLeastRights(server.dataSource)).rejects.toThrow('may do more than read and write rows');
  });

  it('sees no row of any studio where none was named, and cannot write into another', async () => {
    const database = new Database(server.rows);
    expect(await database.query('SELECT * FROM student')).toEqual([]);
    expect(await database.query('SELECT * FROM studio')).toEqual([]);
    expect(await database.inStudio(studios[1], () => database.query('SELECT * FROM student'))).toEqual([]);
    expect(await database.inStudio(studios[0], () => database.query('SELECT alias FROM student'))).toEqual([{ alias: 'Pim' }]);
    const intrude = database.inStudio(studios[1], () =>
      database.query("INSERT INTO student (studio_id, id, alias) VALUES ($1, $2, 'Not here')", [studios[0], randomUUID()]),
    );
    await expect(intrude).rejects.toThrow('row-level security');
  });

  it('writes nothing while it reads', async () => {
    const database = new Database(server.rows);
    const write = (): Promise<unknown> => database.query("INSERT INTO student (studio_id, id, alias) VALUES ($1, $2, 'Not here')", [studios[0], randomUUID()]);
    await expect(database.inStudio(studios[0], write, 'READ COMMITTED', 'READ ONLY')).rejects.toThrow('read-only transaction');
  });

  it('is in one studio at a time, and in none once the transaction is over', async () => {
    const database = new Database(server.rows);
    await expect(database.inStudio(studios[0], () => database.inStudio(studios[1], async () => undefined))).rejects.toThrow('cannot reach into another');
    await expect(database.inStudio("x'; DROP TABLE student; --", async () => undefined)).rejects.toThrow('no studio');
    const named = (): Promise<{ name: string | null }[]> => database.query("SELECT current_setting('zelpit.studio', true) AS name");
    await Promise.all(Array.from({ length: 20 }, () => database.inStudio(studios[0], named)));
    const after = await Promise.all(Array.from({ length: 20 }, named));
    expect(after.every(([{ name }]) => name === null || name === '')).toBe(true);
  });
});

/** The migrations before studios were set apart. */
async function olderDatabase(name: string): Promise<string> {
  await onCluster(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await onCluster(`CREATE DATABASE ${name}`);
  const url = Object.assign(new URL(clusterUrl()), { pathname: `/${name}` }).toString();
  const source = createDataSource(url, tables, () => undefined);
  await source.initialize();
  source.migrations.splice(source.migrations.findIndex(({ name: each }) => each?.startsWith('StudiosApart')));
  await source.runMigrations({ transaction: 'each' });
  await source.destroy();
  return url;
}

describe('a database of before', () => {
  it('comes over with everything in it: who teaches where, sheets with their lines, results, links, sessions', async () => {
    const url = await olderDatabase('before_apart');
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const [studio, other, teacher, student, tune, sheet, line] = Array.from({ length: 7 }, () => randomUUID());
    await client.query(`
      INSERT INTO studio (id, name) VALUES ('${studio}', 'Fell Row'), ('${other}', 'Tarn End');
      INSERT INTO teacher (id, studio_id, name, email, password_hash, role) VALUES ('${teacher}', '${studio}', 'Ada', 'ada@fell.example', 'hash', 'owner');
      INSERT INTO student (id, studio_id, alias) VALUES ('${student}', '${studio}', 'Pim');
      INSERT INTO tune (id, studio_id, title, rhythm, meter, music_key, bars, outside, instrument, abc)
        VALUES ('${tune}', '${studio}', 'T', '', '4/4', 'HP', 1, 0, 'practice-chanter', 'X:1');
      INSERT INTO sheet (id, studio_id, student_id, tune_id, instrument, title, note, version)
        VALUES ('${sheet}', '${studio}', '${student}', '${tune}', 'practice-chanter', 'Week', '', 1);
      INSERT INTO sheet_line (id, sheet_id, position, code, home, other, repetitions, point) VALUES ('${line}', '${sheet}', 0, 'T54F', 'c', 'e', 8, '');
      INSERT INTO trial (id, studio_id, student_id, model, kind, result, created_at) VALUES
        (gen_random_uuid(), '${studio}', '${student}', 'practice-chanter', 'ear', '{}', '2024-02-03'),
        (gen_random_uuid(), '${studio}', NULL, 'practice-chanter', 'ear', '{}', '2026-02-03');
      INSERT INTO instrument (id, studio_id, teacher_id, name, model, hands, tuning, schools, known_notes, note, version)
        VALUES (gen_random_uuid(), '${studio}', '${teacher}', 'Mine', 'practice-chanter', 'left-on-top', '{}', '{}', '[]', '', 1);
      INSERT INTO audit_entry (id, studio_id, teacher_id, who, did, kind, thing) VALUES (gen_random_uuid(), '${studio}', '${teacher}', 'Ada', 'added', 'sheet', 'Week');
      INSERT INTO session (sid, sess, expire) VALUES ('s1', '{"cookie":{},"teacherId":"${teacher}"}', now() + interval '1 day');
    `);
    await migrate(url, rowsClusterUrl());
    const rows = async (sql: string): Promise<unknown[]> => (await client.query(sql)).rows;
    expect(await rows('SELECT a.email, m.studio_id, m.role FROM account a JOIN membership m ON m.account_id = a.id')).toEqual([
      { email: 'ada@fell.example', studio_id: studio, role: 'owner' },
    ]);
    expect(await rows('SELECT studio_id, sheet_id, code FROM sheet_line')).toEqual([{ studio_id: studio, sheet_id: sheet, code: 'T54F' }]);
    expect(await rows('SELECT tableoid::regclass::text AS part FROM trial ORDER BY created_at')).toEqual([{ part: 'trial_other' }, { part: 'trial_2026' }]);
    expect(await rows("SELECT sess->>'studioId' AS studio FROM session")).toEqual([{ studio }]);
    expect(await rows('SELECT teacher_id FROM instrument UNION SELECT teacher_id FROM audit_entry')).toEqual([{ teacher_id: teacher }]);
    // A tune that goes leaves its sheet, a student takes everything along.
    await client.query(`DELETE FROM tune WHERE id = '${tune}'`);
    expect(await rows('SELECT studio_id, tune_id FROM sheet')).toEqual([{ studio_id: studio, tune_id: null }]);
    await client.query(`DELETE FROM student WHERE id = '${student}'`);
    expect(await rows('SELECT 1 FROM sheet UNION ALL SELECT 1 FROM sheet_line')).toEqual([]);
    await client.end();
    await onCluster('DROP DATABASE before_apart WITH (FORCE)');
  });
});
