import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './paths.mjs';
import { installFromDebian, run, say, Sentence } from './run.mjs';

/** Installs Debian's Chromium where it is absent: measurements and screenshots drive it, and browser tests its form without windows. */
export async function ensureChromium() {
  const absent = ['chromium', 'chromium-headless-shell'].filter((name) => !existsSync(`/usr/bin/${name}`));
  if (absent.length > 0) await installFromDebian(absent, 'Chromium');
}

/** Installs npm packages where they are absent or older than the lock file. */
export async function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) throw new Sentence(`Zelpit needs Node 20.19 or newer; this is ${process.versions.node}.`);
  const stamp = join(root, 'node_modules', '.zelpit-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing npm packages (about a minute) …');
  await run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, wanted);
}
