import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { say } from './run.mjs';

/** Who holds the lock, where that process still lives and is a start script; a stale lock is removed with a word. */
function holderOf(file) {
  if (!existsSync(file)) return undefined;
  try {
    const held = JSON.parse(readFileSync(file, 'utf8'));
    const command = readFileSync(`/proc/${Number(held.pid)}/cmdline`, 'utf8');
    if (command.includes('start.mjs')) return held;
  } catch {
    // No such process, or a file that was cut short: stale either way.
  }
  say('An earlier start of this clone was killed; its stale lock is removed.');
  rmSync(file, { force: true });
  return undefined;
}

/** Takes the lock, or returns who has it. */
export function takeLock(file) {
  const holder = holderOf(file);
  if (holder !== undefined) return { holder };
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const write = (address) => writeFileSync(file, JSON.stringify({ pid: process.pid, address }));
  write(undefined);
  return { setAddress: write, release: () => rmSync(file, { force: true }) };
}
