import { expect, signIn, test } from './as-teacher';

test('the day shows who comes; a lesson is held by keys, and what was judged stands in the log', async ({ page }) => {
  await signIn(page, '/today');
  const lane = page.getByRole('list', { name: 'Lessons of the day' });
  await expect(lane.getByRole('listitem').first()).toContainText('Pim');
  await expect(page.getByText(/Moved most: .+, from \d+ to \d+\./)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/lessons\/[^/]+$/);
  const now = page.getByRole('region', { name: 'Now' });
  await expect(now.getByRole('heading', { level: 2 }).first()).not.toBeEmpty();
  for (const [key, tries] of [
    ['1', 1],
    ['1', 2],
    ['4', 3],
  ] as const) {
    await page.keyboard.press(key);
    await expect(now.locator('.try')).toHaveCount(tries);
  }
  await expect(now.getByText('2 of 3 clean')).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(now.getByText('2 of 2 clean')).toBeVisible();
  await page.keyboard.press('w');
  await page.keyboard.type('elbows down');
  await page.keyboard.press('Enter');
  await expect(now.locator('.try')).toHaveCount(3);
  await page.getByLabel('Something that was not planned').fill('Posture with the mirror');
  await page.getByLabel('Something that was not planned').press('Enter');
  await expect(now.getByRole('heading', { name: 'Posture with the mirror' })).toBeVisible();
  await page.reload();
  await expect(now.getByText('2 of 2 clean')).toBeVisible();
  await page.getByRole('button', { name: 'End and review' }).click();
  await expect(page).toHaveURL(/reviews\/[^/]+$/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Review for Pim after the lesson of');
  await page.goto('/today');
  await expect(lane.getByText('review not sent')).toBeVisible();
  await lane.getByRole('link', { name: 'Logbook of Pim' }).click();
  await expect(page.getByRole('region', { name: 'The last tries' }).getByRole('listitem').filter({ hasText: 'nobody judged' }).first()).toBeVisible();
});

test('a lesson is set for one day, taken out and brought back; an empty day says who comes next', async ({ page }) => {
  await signIn(page, '/today');
  await page.getByLabel('Day', { exact: true }).fill('2020-01-05');
  await expect(page.getByText(/^No lessons on this day\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Set a lesson' }).first().click();
  const form = page.getByRole('form', { name: 'Set a lesson' });
  await form.getByLabel('Who').selectOption({ label: 'Jorun' });
  await form.getByLabel('Time').fill('10:15');
  await form.getByLabel('every week').uncheck();
  await form.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByText('Jorun comes on Sunday 5 January at 10:15.')).toBeVisible();
  await page.getByRole('button', { name: 'Take out the lesson of Jorun at 10:15' }).click();
  await expect(page.getByText('The lesson of Jorun was taken out.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Take out the lesson of Jorun at 10:15' })).toBeVisible();
});
