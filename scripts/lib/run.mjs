import { spawn, spawnSync } from 'node:child_process';
import { root } from './paths.mjs';

export const say = (text) => process.stdout.write(`${text}\n`);

/** An error whose message is a sentence for the person at the terminal; no stack is shown. */
export class Sentence extends Error {}

/** Runs a command to its end with its output shown; throws a sentence where it fails. */
export async function run(command, args, { env, cwd = root, quiet = false } = {}) {
  const code = await exitCode(command, args, { env, cwd, quiet });
  if (code !== 0) throw new Sentence(`"${command} ${args.join(' ')}" ended with ${code}.`);
}

export function exitCode(command, args, { env, cwd = root, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: quiet ? 'ignore' : 'inherit' });
    child.on('error', reject);
    child.on('exit', (code, signal) => resolve(code ?? `signal ${signal}`));
  });
}

/** Runs a command to its end and keeps what it writes. */
export function captured(command, args, { env, cwd = root } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
    const parts = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => parts.push(part));
    child.on('error', reject);
    child.on('close', (code, signal) => resolve({ code: code ?? `signal ${signal}`, output: Buffer.concat(parts).toString() }));
  });
}

/** Output of a command, or undefined where it fails or is not there. */
export function output(command, args, options = {}) {
  const result = spawnSync(command, args, { encoding: 'utf8', ...options });
  return result.status === 0 ? result.stdout : undefined;
}

export const isRoot = () => process.getuid?.() === 0;

/** Installs Debian packages where that is possible; otherwise says the exact command. */
export async function installFromDebian(packages, what) {
  const command = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  if (!isRoot() || output('apt-get', ['--version']) === undefined) {
    throw new Sentence(`${what} is missing and may not be installed from here. Run this once, then start again:\n\n    sudo ${command}\n`);
  }
  say(`Installing ${what} from Debian's packages …`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  await run('apt-get', ['update', '-qq'], { env, cwd: '/' });
  await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], { env, cwd: '/' });
}

/** Ends the script with a sentence, or with the stack of what nobody foresaw. */
export function endWith(error) {
  process.stderr.write(`\n${error instanceof Sentence ? error.message : error.stack}\n`);
  process.exitCode = 1;
}
