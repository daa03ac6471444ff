import type { Page } from '@playwright/test';
import { choose, expect, signIn, test } from './as-teacher';

/** Holds a lesson with a student, by keys, and comes to its review. */
async function reviewAfterLesson(page: Page): Promise<void> {
  await signIn(page, '/today');
  await page.getByRole('button', { name: 'Set a lesson' }).first().click();
  const form = page.getByRole('form', { name: 'Set a lesson' });
  await form.getByLabel('Who').selectOption({ label: 'Tarn' });
  await form.getByLabel('Time').fill('09:05');
  await form.getByLabel('every week').uncheck();
  await form.getByRole('button', { name: 'Set it' }).click();
  await page.getByRole('button', { name: /^09:05/ }).click();
  await page.getByRole('button', { name: 'Begin with Tarn' }).click();
  await expect(page).toHaveURL(/lessons\/[^/]+$/);
  const now = page.getByRole('region', { name: 'Now' });
  await expect(now.getByRole('heading', { level: 2 }).first()).toContainText('D to E');
  // The key carries the note that cuts in once the line is here.
  await expect(page.getByRole('button', { name: /^\S+.* cuts in/ })).toBeVisible();
  for (const [key, tries] of [
    ['4', 1],
    ['4', 2],
    ['1', 3],
  ] as const) {
    await page.keyboard.press(key);
    await expect(now.locator('.try')).toHaveCount(tries);
  }
}

test('a review is proposed after a lesson, struck out, moved, said and sent in at most fifteen actions', async ({ page }) => {
  await reviewAfterLesson(page);
  let actions = 0;
  const act = async (what: () => Promise<unknown>): Promise<void> => {
    actions += 1;
    await what();
  };
  await act(() => page.getByRole('button', { name: 'End and review' }).click());
  await expect(page.getByRole('textbox', { name: 'What comes first' })).toHaveValue(/^No .+ between D and E\.$/);
  const items = page.locator('.review-items > li');
  await expect(items.first()).toContainText('D to E');
  const before = await items.count();
  await act(() => page.keyboard.press('a'));
  const words = page.getByLabel('Something without notes');
  await act(() => words.fill('Sing the second part by note names'));
  await act(() => page.getByRole('button', { name: 'Add it', exact: true }).click());
  await expect(items).toHaveCount(before + 1);
  await page.locator('h1').click();
  await act(() => page.keyboard.press('k'));
  await expect(items.nth(before - 1)).toContainText('Sing the second part');
  await act(() => page.keyboard.press('PageDown'));
  await act(() => page.keyboard.press('x'));
  await expect(items).toHaveCount(before);
  await expect(page.getByRole('list', { name: 'Struck out or left out' })).toContainText('struck out');
  await act(() => page.getByLabel('A sentence of your own').fill('You heard it yourself, Tarn.'));
  await act(() => page.keyboard.press('Control+Enter'));
  await expect(page.getByText(/^\s*Sent at .+\. Tarn has not opened it yet\.\s*$/)).toBeVisible();
  expect(actions).toBeLessThanOrEqual(15);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('button', { name: 'Send to Tarn' })).toBeVisible();
  await expect(page.getByLabel('A sentence of your own')).toHaveValue('You heard it yourself, Tarn.');
});

test('what is said of an item is kept and undone, and too long a day says what gives way', async ({ page }) => {
  await signIn(page, '/sheets');
  await choose(page, 'Student', 'Sedge');
  await page.getByRole('button', { name: 'Review for Sedge' }).click();
  await expect(page).toHaveURL(/reviews\/[^/]+$/);
  const second = page.locator('.review-items > li').nth(1);
  await second.getByRole('button', { name: /^Change / }).click();
  await second.getByLabel('Against the item before').selectOption('slower');
  await second.getByLabel('When it is too fast').fill('Stop, breathe, start again.');
  await second.getByLabel('For', { exact: true }).selectOption('timing');
  await second.getByText('More about it').click();
  await second.getByLabel('Minutes a day').fill('50');
  await second.getByLabel('Minutes a day').press('Tab');
  await second.getByLabel('Page of the student’s own book').fill('12');
  await second.getByLabel('Praise').fill('Your high notes sang.');
  await expect(second).toContainText('a little slower here, for the timing, page 12 of your book');
  await expect(second).toContainText('Too fast? Stop, breathe, start again.');
  await expect(page.getByText(/minutes? too many\./)).toBeVisible();
  await expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
  await page.reload();
  await expect(second).toContainText('Your high notes sang.');
  await page.getByRole('button', { name: /^Strike out .+\?$/ }).click();
  await page.keyboard.press('Control+z');
  await expect(second).toContainText('Your high notes sang.');
});

test('the student reads what was sent on a phone, the teacher sees that it was opened, and it is printed with one code', async ({ page, browser }) => {
  await signIn(page, '/sheets');
  await choose(page, 'Student', 'Tilde');
  await page.getByRole('button', { name: 'Review for Tilde' }).click();
  await expect(page).toHaveURL(/reviews\/[^/]+$/);
  await expect(page.getByRole('button', { name: 'Send to Tilde' })).toBeEnabled();
  const sent = page.waitForResponse((response) => response.url().endsWith('/send'));
  await page.getByRole('button', { name: 'Send to Tilde' }).click();
  const { link } = (await (await sent).json()) as { link: { address: string } };
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })).newPage();
  await phone.goto(link.address);
  await phone.getByRole('button').first().click();
  await expect(phone.getByText(/^First of all: /)).toBeVisible();
  await expect(phone.getByText(/minutes? a day, in this order/)).toBeVisible();
  await phone.context().close();
  await page.reload();
  await expect(page.getByText(/Tilde opened it at/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Write it anew' })).toBeVisible();
  await page.keyboard.press('p');
  await expect(page).toHaveURL(/paper$/);
  const sheet = page.locator('svg.sheet-page').first();
  await expect(sheet).toContainText('Tilde, until');
  await expect(sheet).toContainText('First of all:');
});

test('at home a half is looped and counted, the music waits when asked, and what is held runs by the clock; all of it stands in the log', async ({ page }) => {
  await signIn(page, '/mine');
  const codes = await page.evaluate(async () => {
    const { items } = (await (await fetch('/api/sheets?limit=100')).json()) as { items: { id: string; title: string }[] };
    const id = items.find(({ title }) => title === 'Review for Pim')?.id ?? '';
    return ((await (await fetch(`/api/sheets/${id}`)).json()) as { lines: { code: string }[] }).lines.map(({ code }) => code);
  });
  await page.goto(`/c/${codes[0]}`);
  await page.getByRole('button', { name: 'All of it' }).click();
  await page.getByRole('button', { name: 'second half' }).click();
  await expect(page.getByRole('button', { name: 'Second half, again and again' })).toBeVisible();
  for (let faster = 0; faster < 8; faster += 1) await page.keyboard.press('+');
  await page.keyboard.press(' ');
  const status = page.locator('.runner-said').getByRole('status');
  await expect(status).toHaveText(/time 2/, { timeout: 30_000 });
  await page.keyboard.press(' ');
  await page.keyboard.press('1');
  await page.keyboard.press('h');
  await page.keyboard.press('r');
  await page.keyboard.press('w');
  await expect(page.getByRole('button', { name: 'All of it, waits after each' })).toBeVisible();
  await page.keyboard.press(' ');
  await expect(page.getByText('1 of 4. Now alone; then go on.')).toBeVisible({ timeout: 30_000 });
  await page.keyboard.press(' ');
  await expect(status).toHaveText(/2 of 4/, { timeout: 20_000 });
  await page.keyboard.press('Escape');
  const logged = page.waitForResponse((response) => response.url().endsWith('/api/attempts') && response.request().method() === 'POST');
  await page.keyboard.press('3');
  await logged;
  await page.goto(`/c/${codes[3]}`);
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('timer')).toContainText('hold');
  await expect(page.getByRole('timer')).toContainText('breathe', { timeout: 15_000 });
  await page.keyboard.press(' ');
  await page.keyboard.press('2');
  const titles = async (): Promise<string[]> =>
    page.evaluate(async () =>
      ((await (await fetch('/api/attempts?limit=3')).json()) as { items: { title: string; rating: string }[] }).items.map(
        ({ title, rating }) => `${title}: ${rating}`,
      ),
    );
  await expect.poll(titles).toEqual(['long low A: nearly', 'C to E: not-yet', 'C to E, second half: clean']);
});
