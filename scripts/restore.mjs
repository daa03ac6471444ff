import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { isRunning, withDatabase } from './lib/dump.mjs';
import { endWith, say, Sentence } from './lib/run.mjs';

/** Drops every table and every function of Zelpit. */
const clearing = `SET client_min_messages = warning;
DO $$ DECLARE thing record; BEGIN
  FOR thing IN SELECT c.oid::regclass AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p') AND NOT c.relispartition
  LOOP EXECUTE 'DROP TABLE IF EXISTS ' || thing.name || ' CASCADE'; END LOOP;
  FOR thing IN SELECT p.oid::regprocedure AS name FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
    WHERE n.nspname = 'public' AND NOT EXISTS (SELECT 1 FROM pg_depend d WHERE d.objid = p.oid AND d.deptype = 'e')
  LOOP EXECUTE 'DROP FUNCTION IF EXISTS ' || thing.name || ' CASCADE'; END LOOP;
END $$;
DROP SCHEMA IF EXISTS job_queue CASCADE;
`;

/** Puts everything back as it was in a backup: `npm run restore -- FILE`. All of it or nothing. */
async function main() {
  const [, , name] = process.argv;
  if (name === undefined) throw new Sentence('Say which file: npm run restore -- FILE');
  const file = resolve(name);
  if (!existsSync(file)) throw new Sentence(`There is no file ${file}.`);
  if (isRunning()) throw new Sentence('Zelpit runs in this clone. Stop it first, then restore.');
  await withDatabase((run, database) => {
    const list = run('pg_restore', ['--list', file]);
    if (list.status !== 0) throw new Sentence(`${file} is no backup of Zelpit, or it was cut short. Nothing was changed.`);
    if (!/TABLE DATA public studio /.test(list.stdout)) throw new Sentence(`${file} is a backup, but not one of Zelpit. Nothing was changed.`);
    // As a script, so that what is there now goes in the same transaction: pg_restore's own cleaning stumbles over partitions.
    const folder = mkdtempSync(join(tmpdir(), 'zelpit-restore-'));
    const [clear, content] = ['clear.sql', 'content.sql'].map((each) => join(folder, each));
    let restored;
    try {
      writeFileSync(clear, clearing, { mode: 0o600 });
      restored = run('pg_restore', ['--no-owner', '--no-privileges', `--file=${content}`, file]);
      if (restored.status === 0)
        restored = run('psql', ['--quiet', '--no-psqlrc', '--single-transaction', '--set=ON_ERROR_STOP=1', `--file=${clear}`, `--file=${content}`, database]);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
    if (restored.status !== 0) throw new Sentence(`The backup could not be put back; nothing was changed: ${restored.stderr.trim()}`);
  });
  say('Everything is as it was in the backup.');
}

main().catch(endWith);
