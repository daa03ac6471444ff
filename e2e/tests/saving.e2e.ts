import type { BrowserContext, Page } from '@playwright/test';
import { expect, lineTitles, newSheet, openTune, saved, signIn, test } from './as-teacher';

const title = (page: Page) => page.getByLabel('Title of the sheet');
const state = (page: Page) => page.locator('.save-state');

/** Lets no write through, as if the server were away. */
const cutWrites = (page: Page) => page.route('**/api/**', (route) => (route.request().method() === 'GET' ? route.continue() : route.abort()));

async function endSession(context: BrowserContext): Promise<void> {
  await context.clearCookies();
}

test('undo and redo go step by step over a sheet, by button and by key, also after a reload', async ({ page }) => {
  await newSheet(page);
  const first = await title(page).inputValue();
  const [name] = await lineTitles(page).allTextContents();
  await title(page).fill('Week 3');
  await page.getByRole('button', { name: `Move ${name} down` }).click();
  await page.getByRole('button', { name: `Take ${name} off the sheet` }).click();
  await saved(page);
  await page.reload();
  await expect(lineTitles(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo: a line taken off' }).click();
  await expect(lineTitles(page).nth(1)).toHaveText(name);
  await page.keyboard.press('Control+z');
  await expect(lineTitles(page).nth(0)).toHaveText(name);
  await title(page).focus();
  await page.keyboard.press('Control+z');
  await expect(title(page)).toHaveValue(first);
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeDisabled();
  await page.keyboard.press('Control+Shift+z');
  await expect(title(page)).toHaveValue('Week 3');
  await saved(page);
  await page.reload();
  await expect(title(page)).toHaveValue('Week 3');
  await expect(page.getByRole('button', { name: 'Redo: the order of the lines' })).toBeEnabled();
});

test('what was typed a moment before the page went is there when it comes back', async ({ page }) => {
  await newSheet(page);
  for (const word of ['One', 'Two', 'Three']) {
    await title(page).fill(word);
    await page.reload();
    await expect(title(page)).toHaveValue(word);
  }
  await saved(page);
});

test('two windows on one sheet: both versions stand side by side, and what each changed alone is kept', async ({ page, context }) => {
  await newSheet(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByLabel('Message at the top of the sheet').fill('Slowly');
  await other
    .getByLabel(/^What to watch for/)
    .first()
    .fill('theirs');
  await saved(other);
  await title(page).fill('Mine');
  await page
    .getByLabel(/^What to watch for/)
    .first()
    .fill('mine');
  await expect(page.getByText('This sheet was also changed somewhere else.')).toBeVisible();
  await expect(page.getByText('One part was changed in both.')).toBeVisible();
  await expect(page.getByRole('radiogroup', { name: 'Title' }).getByRole('radio', { name: /Title, mine: Mine/ })).toBeChecked();
  await expect(page.getByRole('radiogroup', { name: 'Message at the top' }).getByRole('radio', { name: /theirs: Slowly/ })).toBeChecked();
  await page.getByRole('radio', { name: /theirs$/ }).click();
  await page.getByRole('button', { name: 'Save what I chose' }).click();
  await saved(page);
  await other.reload();
  await expect(title(other)).toHaveValue('Mine');
  await expect(other.getByLabel('Message at the top of the sheet')).toHaveValue('Slowly');
  await expect(other.getByLabel(/^What to watch for/).first()).toHaveValue('theirs');
  await other.close();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel(/^What to watch for/).first()).toHaveValue('mine');
});

test('all of theirs or all of mine is one click, in a text too', async ({ page, context }) => {
  await openTune(page, 'The Paper Lighthouse');
  await page.getByRole('link', { name: 'Text' }).click();
  const text = (of: Page) => of.getByLabel('ABC (standard 2.1)');
  const before = await text(page).inputValue();
  const other = await context.newPage();
  await other.goto(page.url());
  await text(other).fill(before.replace(/^R:.*$/m, 'R:air'));
  await saved(other);
  await text(page).fill(before.replace(/^T:.*$/m, 'T:The Paper Lighthouse, mine'));
  await expect(page.getByText('This text was also changed somewhere else.')).toBeVisible();
  await page.getByRole('button', { name: 'Use all theirs' }).click();
  await expect(text(page)).toHaveValue(before.replace(/^R:.*$/m, 'R:air'));
  await page.keyboard.press('Control+z');
  await expect(text(page)).toHaveValue(/T:The Paper Lighthouse, mine/);
  await page.keyboard.press('Control+z');
  await expect(text(page)).toHaveValue(before);
  await saved(page);
});

test('the server away: what is typed waits, survives a reload, and is saved once when the server is back', async ({ page }) => {
  await newSheet(page);
  await cutWrites(page);
  await title(page).fill('Typed meanwhile');
  await expect(state(page)).toHaveText('Waiting for the server; kept in this browser');
  await page.reload();
  await expect(title(page)).toHaveValue('Typed meanwhile');
  await expect(state(page)).toHaveText(/^(Waiting for the server|Saving)/);
  await page.unroute('**/api/**');
  await expect(state(page)).toHaveText(/^Saved/, { timeout: 15_000 });
  await page.reload();
  await expect(title(page)).toHaveValue('Typed meanwhile');
});

test('an answer that is lost leads to no second save', async ({ page }) => {
  await newSheet(page);
  const versions: number[] = [];
  let isLost = false;
  await page.route('**/api/sheets/*', async (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    const answer = await route.fetch();
    versions.push(((await answer.json()) as { version: number }).version);
    if (isLost) return route.fulfill({ response: answer });
    isLost = true;
    return route.abort();
  });
  await title(page).fill('Once');
  await expect(state(page)).toHaveText(/^Saved/, { timeout: 15_000 });
  expect(versions).toEqual([versions[0], versions[0]]);
});

test('work of a window that was closed without the server is sent by the next one', async ({ page, context }) => {
  await newSheet(page);
  await cutWrites(page);
  await title(page).fill('Closed too early');
  await expect(state(page)).toHaveText('Waiting for the server; kept in this browser');
  const address = page.url();
  await page.close();
  const next = await context.newPage();
  await next.goto('/tunes');
  await expect(next.getByText(/Your earlier changes to “.*” are now saved\./)).toBeVisible();
  await next.goto(address);
  await expect(title(next)).toHaveValue('Closed too early');
});

test('the session ends under the hand: after signing in one is back at the sheet, with what was typed saved', async ({ page, context }) => {
  await newSheet(page);
  await endSession(context);
  await title(page).fill('Typed without a session');
  await expect(page).toHaveURL(/\/sign-in\?to=/);
  await expect(page.getByText('What you typed is kept in this browser')).toBeVisible();
  await page.getByRole('button', { name: 'Sign in to the demo' }).click();
  await expect(title(page)).toHaveValue('Typed without a session');
  await saved(page);
});

test('a new student and pasted tunes wait for the server too, and arrive once', async ({ page }) => {
  await signIn(page, '/students');
  await cutWrites(page);
  await page.getByLabel('Name or alias').fill('Bracken');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Bracken is kept in this browser', { timeout: 15_000 });
  await page.unroute('**/api/**');
  await page.goto('/tunes');
  await expect(page.getByText('Bracken has been saved on the server.')).toBeVisible();
  await page.goto('/students');
  await expect(page.getByRole('button', { name: /^Bracken/ })).toHaveCount(1);
});

test('a text saves itself as soon as it can be read, says where it cannot, and keeps what was typed', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  const address = page.url();
  await page.getByRole('link', { name: 'Text' }).click();
  const text = page.getByLabel('ABC (standard 2.1)');
  const before = await text.inputValue();
  await text.fill(before.replace(/^K:.*$/m, ''));
  await expect(page.getByText('The text cannot be read yet, so the tune stays as it was.')).toBeVisible();
  await expect(page.getByText('The music starts before a key is given.')).toBeVisible();
  await expect(state(page)).toHaveText('Not saved yet; kept in this browser');
  await page.reload();
  await expect(text).toHaveValue(before.replace(/^K:.*$/m, ''));
  await page.keyboard.press('Control+z');
  await expect(text).toHaveValue(before);
  await text.fill(before.replace(/^T:.*$/m, 'T:The Tin Lighthouse'));
  await saved(page);
  await page.goto(address);
  await expect(page.getByText('The Tin Lighthouse').first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo: the text' }).click();
  await page.reload();
  await saved(page);
  await expect(page.getByText('The Paper Lighthouse').first()).toBeVisible();
});
