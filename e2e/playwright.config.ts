import { defineConfig } from '@playwright/test';
import { existsSync } from 'node:fs';
import { join } from 'node:path';

/** Tests of the commands and of servers of their own: the longest in a row, and by themselves. */
const ofCommands = ['**/start.e2e.ts', '**/operation.e2e.ts', '**/kill.e2e.ts'];

const results = process.env['ZELPIT_E2E_RESULTS'];
/** Debian's Chromium without its windows, which nobody sees here, where that is installed. */
const [shell, whole] = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];
const browser = existsSync(shell) ? shell : whole;

export default defineConfig({
  testDir: './tests',
  testMatch: '**/*.e2e.ts',
  outputDir: './test-results',
  // More than cores: some tests listen to music, which takes its time and no core.
  workers: 4,
  fullyParallel: false,
  timeout: 90_000,
  // A second try, which the test command names: a browser on two shared cores is late now and then.
  retries: 1,
  expect: { timeout: 20_000 },
  reporter: [['list'], ...(results === undefined ? [] : [['json', { outputFile: join(results, 'e2e.json') }] as const])],
  // In the order in which they begin: what is longest in a row first, so that nothing is left alone at the end.
  projects: [
    { name: 'commands', testMatch: ofCommands },
    { name: 'pages', testIgnore: ofCommands },
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: browser,
      args: [
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
  },
});
