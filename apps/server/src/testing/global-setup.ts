import 'reflect-metadata';
import { build } from 'esbuild';
import { join } from 'node:path';
import { dependencies } from '../../package.json';
import { makeTemplate } from './test-server';

/** A database with all tables to copy, and the readers of tunes, backups and long takes as the server has them beside it. */
export default async function setUp(): Promise<void> {
  const outdir = join(__dirname, '../../node_modules/.cache/zelpit');
  const entryPoints = {
    reader: join(__dirname, '../tunes/reader.worker.ts'),
    archive: join(__dirname, '../archive/archive.worker.ts'),
    'long-take': join(__dirname, '../takes/long-take.worker.ts'),
  };
  const external = Object.keys(dependencies).filter((name) => !name.startsWith('@zelpit/'));
  const threads = { entryPoints, outdir, outExtension: { '.js': '.mjs' }, tsconfig: join(__dirname, '../../tsconfig.json'), external };
  await Promise.all([makeTemplate(), build({ ...threads, bundle: true, platform: 'node', target: 'node20', format: 'esm' })]);
  process.env['ZELPIT_TEST_READER'] = join(outdir, 'reader.mjs');
  process.env['ZELPIT_TEST_ARCHIVES'] = join(outdir, 'archive.mjs');
  process.env['ZELPIT_TEST_LONG_TAKES'] = join(outdir, 'long-take.mjs');
}
