import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { root } from './lib/paths.mjs';
import { endWith, exitCode } from './lib/run.mjs';
import { withTestDatabase } from './lib/test-database.mjs';

/** Takes the pictures of docs/screenshots anew, from the demo studio. */
async function main() {
  await ensurePackages();
  await ensureBuilt();
  mkdirSync(join(root, 'docs/screenshots'), { recursive: true });
  process.exitCode = await withTestDatabase(async (env) => ((await exitCode('node', ['e2e/screenshots.mjs'], { env })) === 0 ? 0 : 1));
}

main().catch(endWith);
