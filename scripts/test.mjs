import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { root } from './lib/paths.mjs';
import { captured, endWith, exitCode, say, Sentence } from './lib/run.mjs';
import { withTestDatabase } from './lib/test-database.mjs';

const results = join(root, '.zelpit', 'test-results');

/** Unit tests of one workspace, in one process: two workspaces run beside each other. */
const jest = (folder) => [
  `tests of ${folder}`,
  'npx',
  ['jest', '--config', `${folder}/jest.config.cjs`, '--maxWorkers=1', '--json', '--outputFile', join(results, `${folder.replaceAll('/', '-')}.json`)],
];

/** What needs both cores, the longest first, so that they end at about the same time. The build checks the types of the web. */
const tasks = [['build', 'node', ['scripts/build.mjs']], jest('apps/server'), jest('packages/core'), jest('apps/web'), jest('packages/contract')];

/** What can wait for a free moment of the browser tests, which wait for sound and for each other a quarter of their time. */
const besideTasks = [
  ['lint', 'npx', ['eslint', '.']],
  ['formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['types of all but the web, with tests', 'npx', ['tsc', '-p', 'tsconfig.check.json']],
  ['directions of dependency', 'npx', ['depcruise', '--config', '.dependency-cruiser.cjs', 'packages', 'apps/server', 'apps/web/src']],
  ['types of core and contract without DOM and Node', 'npx', ['tsc', '-p', 'packages/contract']],
];
const atOnce = 2;

async function step([name, command, args], env = {}) {
  const started = Date.now();
  const { code, output } = await captured(command, args, { env });
  // Two run beside each other: each speaks when it is done, and only where something is wrong.
  if (code !== 0) say(output);
  say(`${code === 0 ? 'ok  ' : 'FAIL'} ${name} (${Math.round((Date.now() - started) / 100) / 10} s)`);
  return code === 0 ? [] : [name];
}

async function runTasks(all, lanes, env) {
  const waiting = [...all];
  const failed = [];
  const lane = async () => {
    for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) failed.push(...(await step(next, env)));
  };
  await Promise.all(Array.from({ length: lanes }, lane));
  return failed;
}

/** The same work, giving way to whatever else wants the processor. */
const givingWay = ([name, command, args]) => [name, 'nice', ['-n', '15', command, ...args]];

async function browserTests(env) {
  const started = Date.now();
  const args = ['playwright', 'test', '--config', 'e2e/playwright.config.ts'];
  const code = await exitCode('npx', args, { env: { ...env, ZELPIT_E2E_RESULTS: results } });
  say(`${code === 0 ? 'ok  ' : 'FAIL'} browser tests (${Math.round((Date.now() - started) / 100) / 10} s)`);
  return code === 0 ? [] : ['browser tests'];
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
  const failed = [];
  await withTestDatabase(async (env) => {
    failed.push(...(await runTasks(tasks, atOnce, env)));
    const browser = failed.includes('build') ? ['browser tests, for want of a build'] : browserTests(env);
    failed.push(...(await Promise.all([browser, runTasks(besideTasks.map(givingWay), atOnce, env)])).flat());
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
