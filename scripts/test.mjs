import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { root } from './lib/paths.mjs';
import { endWith, exitCode, say, Sentence } from './lib/run.mjs';
import { withTestDatabase } from './lib/test-database.mjs';

const results = join(root, '.zelpit', 'test-results');
const jest = (config) => [
  'npx',
  ['jest', '--config', `${config}/jest.config.cjs`, '--json', '--outputFile', join(results, `${config.replaceAll('/', '-')}.json`)],
];

/** What can be checked without running anything; two at a time. */
const statics = [
  ['formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['lint', 'npx', ['eslint', '.']],
  ['directions of dependency', 'npx', ['depcruise', '--config', '.dependency-cruiser.cjs', 'packages', 'apps/server', 'apps/web/src']],
  ['types of core', 'npx', ['tsc', '-p', 'packages/core']],
  ['types of core without DOM and Node, tests', 'npx', ['tsc', '-p', 'packages/core/tsconfig.spec.json']],
  ['types of contract', 'npx', ['tsc', '-p', 'packages/contract']],
  ['types of server', 'npx', ['tsc', '-p', 'apps/server']],
  ['types of e2e', 'npx', ['tsc', '-p', 'e2e']],
  ['types of bench', 'npx', ['tsc', '-p', 'bench']],
  ['types of web', 'npx', ['ngc', '-p', 'apps/web/tsconfig.app.json', '--noEmit']],
];
const atOnce = 2;

async function step(name, command, args, env = {}) {
  const started = Date.now();
  const code = await exitCode(command, args, { env });
  say(`${code === 0 ? 'ok  ' : 'FAIL'} ${name} (${Math.round((Date.now() - started) / 100) / 10} s)`);
  return code === 0 ? [] : [name];
}

async function runStatics() {
  const waiting = [...statics];
  const failed = [];
  const worker = async () => {
    for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) failed.push(...(await step(...next)));
  };
  await Promise.all(Array.from({ length: atOnce }, worker));
  return failed;
}

/** Tests that passed and failed, from the files that the runners wrote. */
function counted() {
  const jestFiles = ['packages-core', 'packages-contract', 'apps-web', 'apps-server'].map((name) => join(results, `${name}.json`));
  const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined);
  const units = jestFiles.map(read).filter((each) => each !== undefined);
  const browser = read(join(results, 'e2e.json'))?.stats;
  const passed = units.reduce((sum, each) => sum + each.numPassedTests, 0) + (browser?.expected ?? 0) + (browser?.flaky ?? 0);
  const failed = units.reduce((sum, each) => sum + each.numFailedTests + each.numRuntimeErrorTestSuites, 0) + (browser?.unexpected ?? 0);
  return { passed, failed, late: browser?.flaky ?? 0 };
}

/** Every browser test with its tries, of a suite and the suites in it. */
const specsOf = ({ specs = [], suites = [] }) => [...specs, ...suites.flatMap(specsOf)];

const errorLines = 14;

/** What went wrong in the browser tests, short enough to stand at the end: the whole of it is far above. */
function browserFaults() {
  const file = join(results, 'e2e.json');
  if (!existsSync(file)) return [];
  const tries = specsOf({ suites: JSON.parse(readFileSync(file, 'utf8')).suites }).flatMap((spec) =>
    spec.tests.flatMap((test) => test.results.map((result) => ({ title: spec.title, place: `${spec.file}:${spec.line}`, ...result }))),
  );
  return tries
    .filter(({ status }) => status !== 'passed' && status !== 'skipped')
    .map(({ title, place, retry, error }) => {
      const said = stripVTControlCharacters(error?.message ?? 'no message')
        .split('\n')
        .filter((line) => line.trim() !== '');
      return [`${place}, try ${retry + 1}: ${title}`, ...said.slice(0, errorLines).map((line) => `    ${line}`)].join('\n');
    });
}

async function main() {
  const started = Date.now();
  await ensurePackages();
  await ensureChromium();
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });
  const failed = [...(await runStatics())];
  for (const folder of ['packages/core', 'packages/contract', 'apps/web']) failed.push(...(await step(`unit tests of ${folder}`, ...jest(folder))));
  await ensureBuilt();
  await withTestDatabase(async (env) => {
    failed.push(...(await step('server tests', ...jest('apps/server'), env)));
    failed.push(
      ...(await step('browser tests', 'npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], { ...env, ZELPIT_E2E_RESULTS: results })),
    );
  });
  const seconds = Math.round((Date.now() - started) / 1000);
  const { passed, failed: failedTests, late } = counted();
  say(`\nAll of it took ${seconds} s.`);
  for (const fault of browserFaults()) say(fault);
  if (late > 0) say(`${late} browser tests passed only on their second try.`);
  if (failed.length > 0) say(`Failed: ${failed.join(', ')}.`);
  say(`${passed} passed, ${failedTests} failed`);
  if (failed.length > 0) throw new Sentence('The tests did not pass.');
}

main().catch(endWith);
