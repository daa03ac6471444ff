import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { startServer } from '../server.mjs';
import { expect, signIn, test } from './as-teacher';

const password = 'reeds in the rain';

/** The newest link in the outbox. */
async function newestLink(page: Page, address: string): Promise<string> {
  await page.goto(`${address}/outbox`);
  return (await page.locator('.mail-body a').first().getAttribute('href')) as string;
}

test('a first start without the demo leads to a studio of one’s own; a teacher joins by a link; both see their part', async ({ browser }) => {
  test.setTimeout(90_000);
  const server = await startServer({ env: { ZELPIT_DEMO: '0' } });
  try {
    const owner = await (await browser.newContext()).newPage();
    await owner.goto(`${server.address}/tunes`);
    await expect(owner).toHaveURL(/\/new-studio$/);
    await owner.getByLabel('Name of the studio').fill('Fell Row');
    await owner.getByLabel('Your name').fill('Ada Quill');
    await owner.getByLabel('Your e-mail address').fill('ada@fell-row.example');
    await owner.getByLabel(/^Password/).fill('short');
    await owner.getByRole('button', { name: 'Create the studio' }).click();
    await expect(owner.getByRole('alert')).toContainText('at least 12 characters');
    await owner.getByLabel(/^Password/).fill(password);
    await owner.getByRole('button', { name: 'Create the studio' }).click();
    await expect(owner.getByText('No lessons here yet.')).toBeVisible();
    await expect(owner.getByRole('link', { name: 'Add a student' })).toBeVisible();
    await owner.goto(`${server.address}/tunes`);
    await expect(owner.getByText('No tunes yet.')).toBeVisible();

    await owner.goto(`${server.address}/teachers`);
    await owner.getByLabel('Name', { exact: true }).fill('Ben Sloe');
    await owner.getByLabel('E-mail address').fill('ben@fell-row.example');
    await owner.getByRole('button', { name: 'Invite' }).click();
    await expect(owner.getByText('Ben Sloe has been invited.')).toBeVisible();
    const handed = await owner.locator('.link-address').innerText();
    const link = await newestLink(owner, server.address);
    expect(link).toBe(handed);

    const teacher = await (await browser.newContext()).newPage();
    await teacher.goto(link);
    await expect(teacher.getByRole('heading', { name: 'Join Fell Row.' })).toBeVisible();
    await teacher.getByLabel(/^Password/).fill(password);
    await teacher.getByRole('button', { name: 'Join' }).click();
    await expect(teacher).toHaveURL(/\/today$/);
    await teacher.goto(`${server.address}/deeds`);
    await expect(teacher).toHaveURL(/\/places$/);
    await expect(teacher.getByRole('link', { name: /Archive/ })).toHaveCount(0);

    const late = await (await browser.newContext()).newPage();
    await late.goto(link);
    await expect(late.getByRole('alert')).toContainText('This link has already been used');

    await owner.goto(`${server.address}/deeds`);
    await expect(owner.getByRole('row', { name: /Ben Sloe joined the studio Fell Row/ })).toBeVisible();
    await owner.goto(`${server.address}/teachers`);
    await owner.getByRole('button', { name: 'Remove Ada Quill' }).click();
    await owner.getByRole('button', { name: 'Remove Ada Quill', exact: true }).click();
    await expect(owner.getByRole('alert')).toBeVisible();
    await owner.getByRole('button', { name: 'Remove Ben Sloe' }).click();
    await owner.getByRole('button', { name: 'Remove Ben Sloe', exact: true }).click();
    await expect(owner.getByText('Ben Sloe was removed.')).toBeVisible();
    await teacher.reload();
    await expect(teacher).toHaveURL(/\/sign-in/);

    await late.goto(`${server.address}/new-password`);
    await late.getByLabel('E-mail address').fill('ada@fell-row.example');
    await late.getByRole('button', { name: 'Send the link' }).click();
    await expect(late.getByText('If there is an account with this address')).toBeVisible();
    await late.goto(await newestLink(late, server.address));
    await late.getByLabel(/^Password/).fill('another long password');
    await late.getByRole('button', { name: 'Set the password' }).click();
    await expect(late).toHaveURL(/\/today$/);
    await owner.reload();
    await expect(owner).toHaveURL(/\/sign-in/);
  } finally {
    await server.stop();
  }
});

test('a student opens their own sheets by a link and nothing else', async ({ page, browser }) => {
  await signIn(page, '/students');
  await page.getByRole('button', { name: 'Links for Pim' }).click();
  const link = await page.locator('.link-address').innerText();
  const signOuts = page.getByRole('button', { name: /^Sign out the tablet of Pim, signed in since/ });
  // Tablets that other tests signed in are listed too.
  const before = await signOuts.count();
  const tablet = await (await browser.newContext({ viewport: { width: 768, height: 1024 } })).newPage();
  await tablet.goto(link);
  await tablet.getByRole('button', { name: 'Open the sheets' }).click();
  await expect(tablet).toHaveURL(/\/mine$/);
  await tablet.getByRole('listitem').getByRole('link').first().click();
  await expect(tablet.getByRole('button', { name: 'Start' })).toBeVisible();
  await tablet.goto(new URL('/students', link).toString());
  await expect(tablet).toHaveURL(/\/mine$/);
  await tablet.getByRole('link', { name: 'My logbook' }).click();
  await expect(tablet.getByText(/^Moved most: /)).toBeVisible();
  // What is in the log is judged otherwise by teachers only.
  await expect(tablet.getByRole('region', { name: 'The last tries' }).getByRole('listitem').first()).toBeVisible();
  await expect(tablet.getByRole('button', { name: /^How / })).toHaveCount(0);
  // A tablet that was lost is signed out alone.
  await page.getByRole('button', { name: 'Links for Pim' }).click();
  await expect(async () => expect(await signOuts.count()).toBeGreaterThan(before)).toPass();
  await signOuts.first().click();
  await expect(page.getByText('The tablet is signed out.')).toBeVisible();
  await tablet.goto(new URL('/mine', link).toString());
  await expect(tablet).toHaveURL(/\/sign-in/);
});

test('a guardian’s consent is noted with the caution beside it, and half of one is refused', async ({ page }) => {
  await signIn(page, '/students');
  await page.getByLabel('Name or alias').fill('Clover');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('button', { name: 'Name and consent of Clover' }).click();
  await expect(page.getByText('Before you record a child, a guardian must agree.')).toBeVisible();
  await page.getByLabel('Guardian who agreed').fill('H. Lunn');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Enter the date.');
  await page.getByLabel('Date').fill('2026-03-09');
  await page.getByLabel('What they agreed to').fill('Takes recorded in the lesson');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('consent of 9 Mar 2026')).toBeVisible();
});

test('the whole studio goes out as one file and comes into an empty one; a broken file changes nothing; a long book is read while its page is closed', async ({
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  await signIn(page, '/archive');
  await page.getByRole('button', { name: 'Write a backup' }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: /^Save .*\.zip$/ }).click()]);
  const archive = await readFile(await download.path());
  const server = await startServer({ env: { ZELPIT_DEMO: '0' } });
  try {
    const owner = await (await browser.newContext()).newPage();
    await owner.goto(server.address);
    await owner.getByLabel('Name of the studio').fill('Far Shore');
    await owner.getByLabel('Your name').fill('Ivo Tarn');
    await owner.getByLabel('Your e-mail address').fill('ivo@far-shore.example');
    await owner.getByLabel(/^Password/).fill(password);
    await owner.getByRole('button', { name: 'Create the studio' }).click();
    await expect(owner).toHaveURL(/\/today$/);
    await owner.goto(`${server.address}/archive`);
    const bring = async (buffer: Buffer, button: RegExp): Promise<void> => {
      await owner.locator('input[type=file]').setInputFiles({ name: 'studio.zip', mimeType: 'application/zip', buffer });
      await owner.getByRole('button', { name: button }).click();
    };
    await bring(archive.subarray(0, archive.length - 200), /empty studio/);
    await expect(owner.getByText(/is not a backup, or part of it is missing/)).toBeVisible();
    await owner.getByRole('button', { name: 'Take studio.zip off this page' }).click();
    await bring(archive, /empty studio/);
    await expect(owner.getByText(/Restored: \d+ students, \d+ tunes, \d+ lessons?, \d+ sheets?, \d+ instruments/)).toBeVisible({ timeout: 60_000 });
    await owner.goto(`${server.address}/tunes`);
    await expect(owner.getByRole('link', { name: 'The Blue Wheelbarrow' })).toBeVisible();
    await owner.goto(`${server.address}/archive`);
    await bring(archive, /empty studio/);
    await expect(owner.getByText('This studio already has students, tunes, sheets or instruments.', { exact: false })).toBeVisible();

    // A long book is read by the server, whether its page is open or not; one that was stopped adds nothing.
    const book = (title: string, count: number): Buffer =>
      Buffer.from(Array.from({ length: count }, (_, at) => `X:1\nT:${title} ${at}\nM:2/4\nL:1/8\nK:HP\n${'A c e a|'.repeat(24)}\n\n`).join(''));
    await owner.goto(`${server.address}/tunes`);
    await owner.locator('input[type=file]').setInputFiles({ name: 'Long row.abc', mimeType: 'text/plain', buffer: book('Long row', 800) });
    await expect(owner.getByText(/Reading Long row\.abc/)).toBeVisible();
    await owner.goto(`${server.address}/students`);
    await owner.goto(`${server.address}/tunes`);
    await expect(owner.getByText('800 tunes added:')).toBeVisible({ timeout: 60_000 });
    await owner.getByRole('button', { name: 'Take Long row.abc off this page' }).click();
    await owner.locator('input[type=file]').setInputFiles({ name: 'Halted.abc', mimeType: 'text/plain', buffer: book('Halted', 2500) });
    await owner.getByRole('button', { name: 'Stop Halted.abc' }).click();
    await expect(owner.getByText('was stopped; nothing of it was added.')).toBeVisible();
    await owner.getByLabel('Find a tune').fill('Halted');
    await expect(owner.getByText('No tune has that name.')).toBeVisible();
  } finally {
    await server.stop();
  }
});

test('a student tests the ear, plays on pads and hunts faults on the own tablet; the results are the student’s', async ({ page, browser }) => {
  await signIn(page, '/students');
  await page.getByRole('button', { name: 'Links for Pim' }).click();
  const link = await page.locator('.link-address').innerText();
  const tablet = await (await browser.newContext({ viewport: { width: 768, height: 1024 } })).newPage();
  const faults: string[] = [];
  tablet.on('pageerror', (error) => faults.push(error.message));
  await tablet.goto(link);
  await tablet.getByRole('button', { name: 'Open the sheets' }).click();
  await tablet.getByRole('link', { name: 'Find the faults' }).click();
  await tablet.locator('.hunt-change').first().click();
  const hunted = tablet.waitForResponse((response) => response.request().method() === 'POST' && response.url().endsWith('/api/trials'));
  await tablet.getByRole('button', { name: 'Show answers' }).click();
  await hunted;
  await expect(tablet.getByRole('status').filter({ hasText: /found|Everything was clean/ })).toBeVisible();
  await tablet.goto(new URL('/changes/keys', link).toString());
  await tablet.getByRole('button', { name: 'Let a pretend student play' }).click();
  await expect(tablet.getByText(/80 played/)).toBeVisible();
  await tablet.goto(new URL('/changes/ear', link).toString());
  await tablet.getByRole('button', { name: 'Start' }).click();
  await expect(tablet.getByText('Which one had the fault?')).toBeVisible();
  const mine = await tablet.evaluate(async () =>
    ((await (await fetch('/api/trials')).json()) as { items: { studentId: string | null; result: { kind: string } }[] }).items.filter(
      ({ result }) => result.kind !== 'ear',
    ),
  );
  expect(mine).toHaveLength(1);
  expect(mine[0].studentId).not.toBeNull();
  expect(faults).toEqual([]);
});

test('a private link opens again with its code, and a parent only looks', async ({ page, browser }) => {
  await signIn(page, '/students');
  await page.getByRole('button', { name: 'Links for Quill' }).click();
  await page.getByRole('button', { name: 'Private link with a code for Quill' }).click();
  await expect(page.getByText(/Hand the code over by itself/)).toBeVisible();
  const [code, address] = await page.locator('.link-address').allTextContents();
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(address);
  await phone.getByLabel('Code (6 digits)').fill('12');
  await phone.getByRole('button', { name: 'Open the sheets' }).click();
  await expect(phone.getByRole('alert')).toHaveText('The code has 6 digits.');
  await phone.getByLabel('Code (6 digits)').fill(code);
  await phone.getByRole('button', { name: 'Open the sheets' }).click();
  await expect(phone.getByRole('heading', { name: 'Lines for Quill' })).toBeVisible();
  await phone.context().close();
  await page.getByRole('button', { name: 'Link for a parent of Quill' }).click();
  await expect(page.getByText(/changes nothing\. It works once/)).toBeVisible();
  const parent = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await parent.goto(await page.locator('.link-address').innerText());
  await parent.getByRole('button', { name: 'Have a look' }).click();
  await expect(parent.getByRole('heading', { name: 'Lines for Quill' })).toBeVisible();
  await expect(parent.getByRole('link', { name: /E to F/ })).toHaveCount(0);
  await parent.getByRole('link', { name: 'What was practised' }).click();
  await expect(parent.getByRole('heading', { level: 1 })).toContainText('logbook', { ignoreCase: true });
  await parent.context().close();
});
