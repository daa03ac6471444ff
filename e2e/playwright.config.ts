import { defineConfig } from '@playwright/test';
import { join } from 'node:path';

const results = process.env['ZELPIT_E2E_RESULTS'];

export default defineConfig({
  testDir: './tests',
  testMatch: '**/*.e2e.ts',
  outputDir: './test-results',
  workers: 2,
  fullyParallel: false,
  timeout: 90_000,
  // A second try, which the test command names: a browser on two shared cores is late now and then.
  retries: 1,
  expect: { timeout: 20_000 },
  reporter: [['list'], ...(results === undefined ? [] : [['json', { outputFile: join(results, 'e2e.json') }] as const])],
  use: {
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
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
