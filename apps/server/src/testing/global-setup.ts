import 'reflect-metadata';
import { build } from 'esbuild';
import { join } from 'node:path';
import { makeTemplate } from './test-server';

/** A database with all tables to copy, and the reader of tunes as the server has it beside it. */
export default async function setUp(): Promise<void> {
  const outfile = join(__dirname, '../../node_modules/.cache/zelpit/reader.mjs');
  const entryPoints = [join(__dirname, '../tunes/reader.worker.ts')];
  await Promise.all([makeTemplate(), build({ entryPoints, outfile, bundle: true, platform: 'node', target: 'node20', format: 'esm', external: ['abcjs'] })]);
  process.env['ZELPIT_TEST_READER'] = outfile;
}
