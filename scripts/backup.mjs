import { existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { withDatabase } from './lib/dump.mjs';
import { stateFolder } from './lib/paths.mjs';
import { endWith, say, Sentence } from './lib/run.mjs';

/** Writes everything of all studios into one file: `npm run backup`, or `npm run backup -- FILE`. Works while Zelpit runs. */
async function main() {
  const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
  const file = resolve(process.argv[2] ?? join(stateFolder, 'backups', `zelpit-${stamp}.dump`));
  if (existsSync(file)) throw new Sentence(`There is already a file ${file}. Nothing was written over it.`);
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  // What this makes, and what pg_dump makes for it, is for its owner's eyes only.
  process.umask(0o077);
  const half = `${file}.half`;
  const dumped = await withDatabase((run) => run('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', `--file=${half}`]));
  if (dumped.status !== 0) {
    rmSync(half, { force: true });
    throw new Sentence(`The backup was not made: ${dumped.stderr.trim()}`);
  }
  renameSync(half, file);
  const beside = process.env.ZELPIT_FILES ? ' Recordings in the store of files are not in it: keep that store’s own copy with it.' : '';
  say(`Everything is in ${file} (${Math.ceil(statSync(file).size / 1024)} kB). It holds people's names: keep it as you keep the studio's papers.${beside}`);
}

main().catch(endWith);
