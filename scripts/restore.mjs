import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { isRunning, withDatabase } from './lib/dump.mjs';
import { endWith, say, Sentence } from './lib/run.mjs';

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
    const restored = run('pg_restore', [
      '--clean',
      '--if-exists',
      '--single-transaction',
      '--no-owner',
      '--no-privileges',
      '--exit-on-error',
      '--dbname',
      database,
      file,
    ]);
    if (restored.status !== 0) throw new Sentence(`The backup could not be put back; nothing was changed: ${restored.stderr.trim()}`);
  });
  say('Everything is as it was in the backup.');
}

main().catch(endWith);
