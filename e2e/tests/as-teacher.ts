import { test as base, expect, type ConsoleMessage, type Locator, type Page } from '@playwright/test';
import { startServer, type RunningServer } from '../server.mjs';

/** The browser's own word on an answer of the API that a test asked for. */
const isAnswer = (message: ConsoleMessage): boolean => message.text().startsWith('Failed to load resource') && message.location().url.includes('/api/');

/**
 * Each worker has a server and a database of its own. An error in the console, a broken rule of the content policy
 * included, fails the test.
 */
export const test = base.extend<object, { readonly server: RunningServer }>({
  server: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const server = await startServer();
      await use(server);
      await server.stop();
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: async ({ server }, use) => use(server.address),
  page: async ({ page }, use) => {
    const faults: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error' && !isAnswer(message)) faults.push(message.text());
    });
    page.on('pageerror', (error) => faults.push(error.message));
    await use(page);
    expect(faults).toEqual([]);
  },
});

export { expect };

/** Signs in to the demo without its page, which has tests of its own, and opens an address. */
export async function signIn(page: Page, to = '/tunes'): Promise<void> {
  const { token, demo } = (await (await page.request.get('/api/session')).json()) as { token: string; demo: object };
  const signedIn = await page.request.post('/api/session', { data: demo, headers: { 'x-zelpit-token': token } });
  expect(signedIn.status()).toBe(200);
  // Each test begins with nothing in hand.
  const { token: own } = (await signedIn.json()) as { token: string };
  await page.request.put('/api/in-hand', { data: { student: null, tune: null }, headers: { 'x-zelpit-token': own } });
  await page.goto(to);
}

/** What the server answers to a teacher who is signed in. */
export async function posted(page: Page, address: string, data: object, status = 201): Promise<unknown> {
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  const response = await page.request.post(address, { data, headers: { 'x-zelpit-token': token } });
  expect(response.status(), await response.text()).toBe(status);
  return response.json();
}

export async function openTune(page: Page, title: string): Promise<void> {
  await signIn(page);
  await page.getByRole('link', { name: title }).first().click();
  await expect(page.getByRole('region', { name: 'Changes of the tune, worst first' })).toBeVisible();
  await expect(page.locator('zp-score-line .score-music svg').first()).toBeVisible();
}

/** Brings one tune in by pasting. */
export async function pasteTune(page: Page, abc: string): Promise<void> {
  await page.getByRole('button', { name: 'Paste ABC' }).click();
  await page.getByLabel(/ABC text of one or more tunes/).fill(abc);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
}

export const lineTitles = (page: Page): Locator => page.locator('.line-row .line-title');

/** Makes a sheet of three lines from a tune and opens it. */
export async function newSheet(page: Page): Promise<void> {
  await openTune(page, 'Marmalade for the Ferryman');
  for (const row of [0, 1, 2]) await page.getByRole('checkbox').nth(row).check();
  await page.getByRole('button', { name: /Make 3 lines/ }).click();
  await expect(lineTitles(page)).toHaveCount(3);
  await page.getByRole('button', { name: /New sheet for/ }).click();
  await expect(page.getByLabel('Title of the sheet')).toBeVisible();
  await expect(lineTitles(page)).toHaveCount(3);
}

export const saved = (page: Page): Promise<void> => expect(page.locator('.save-state')).toHaveText(/^Saved/);

/** Opens a word of the page by its purpose and takes one of its choices. */
export const choose = async (page: Page, purpose: string, name: string): Promise<void> => {
  await page
    .getByRole('button', { name: new RegExp(`^${purpose}: `) })
    .first()
    .click();
  await page.getByRole('menuitem', { name, exact: true }).click();
};

/** Stops the clock of a page; gives what lets so many ms pass on it. Events of keys and touches carry the time of this clock. */
export async function stopClock(page: Page): Promise<(ms: number) => Promise<void>> {
  await page.clock.install();
  await page.clock.pauseAt(Date.now() + 1000);
  return (ms) => page.clock.runFor(ms);
}
