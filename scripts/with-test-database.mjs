import { endWith, exitCode, Sentence } from './lib/run.mjs';
import { withTestDatabase } from './lib/test-database.mjs';

/** Runs a command with a PostgreSQL of its own that is thrown away afterwards: `node with-test-database.mjs command …`. */
async function main() {
  const [command, ...args] = process.argv.slice(2);
  if (command === undefined) throw new Sentence('Say which command to run.');
  process.exitCode = await withTestDatabase(async (env) => ((await exitCode(command, args, { cwd: process.cwd(), env })) === 0 ? 0 : 1));
}

main().catch(endWith);
