import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { root } from './lib/paths.mjs';
import { endWith, exitCode } from './lib/run.mjs';
import { withTestDatabase } from './lib/test-database.mjs';

/** Bundled as the server is, so that what is measured is the code that ships. */
async function bundled() {
  const { build } = await import('esbuild');
  const outfile = join(root, 'bench', 'run.built.mjs');
  await build({
    entryPoints: [join(root, 'bench', 'run.ts')],
    outfile,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    logLevel: 'warning',
    external: [
      'abcjs',
      '@playwright/test',
      'pg',
      'fast-check',
      'fast-xml-parser',
      'midi-file',
      'musicxml-io',
      'verovio',
      'verovio/wasm',
      'verovio/esm',
      '../e2e/server.mjs',
      '../e2e/own-postgres.mjs',
    ],
  });
  return outfile;
}

/** Measures and writes bench/RESULTS.md and bench/results.json; `--quick` leaves out what takes minutes. */
async function main() {
  await ensurePackages();
  await ensureChromium();
  await ensureBuilt();
  const bundle = await bundled();
  process.exitCode = await withTestDatabase(async (env) => ((await exitCode('node', [bundle, ...process.argv.slice(2)], { env })) === 0 ? 0 : 1));
}

main().catch(endWith);
