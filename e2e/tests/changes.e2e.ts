import type { Page } from '@playwright/test';
import { expect, signIn, test } from './as-teacher';

async function openMap(page: Page): Promise<void> {
  await signIn(page, '/changes');
  await page.getByRole('button', { name: /^Instrument: / }).click();
  await page.getByRole('menuitem', { name: 'practice chanter', exact: true }).click();
  await expect(page.getByRole('button', { name: /^D to E, cross over both hands, \d+\.\d hard$/ })).toBeVisible();
}

test('the map shows every change, and one of them is taken apart in time', async ({ page }) => {
  await openMap(page);
  await expect(page.locator('.map-cell')).toHaveCount(72);
  await page.getByRole('button', { name: /^B to E, direct exchange over both hands/ }).click();
  await expect(page.getByText('Lift left ring just before right ring lands.')).toBeVisible();
  await expect(page.getByRole('row', { name: /a low note cuts in 3\d %/ })).toBeVisible();
  await expect(page.getByText('All fingers in one instant: nothing is heard between.')).toBeVisible();
  const ring = page.getByRole('slider', { name: 'R ring lands' });
  await ring.focus();
  await page.keyboard.press('PageDown');
  await expect(ring).toHaveAttribute('aria-valuetext', '10 ms early');
  await expect(page.getByText('10 ms of low A (too low)')).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText('11 ms of low A (too low)')).toBeVisible();
  await page.getByRole('button', { name: 'Clean' }).click();
  await expect(page.getByText(/of low A \(too low\)/)).toHaveCount(0);
});

test('a finger is dragged in time, and what is heard follows', async ({ page }) => {
  await openMap(page);
  await page.getByRole('button', { name: /^C to E,/ }).click();
  const knob = page.getByRole('slider', { name: 'R middle lands' });
  await page.getByText('Drag a finger').scrollIntoViewIfNeeded();
  await knob.scrollIntoViewIfNeeded();
  const box = await knob.boundingBox();
  if (box === null) throw new Error('no knob');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 160, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(knob).toHaveAttribute('aria-valuetext', /^1\d ms early$/);
  await expect(page.locator('.seam-said').first()).toBeVisible();
});

test('the map is for a level, for lifts ahead, for crosses only, and for another quantity', async ({ page }) => {
  await openMap(page);
  await page.getByRole('button', { name: /^Quantity: / }).click();
  await page.getByRole('menuitem', { name: 'a low note cuts in' }).click();
  await expect(page.getByRole('button', { name: /^D to E, cross over both hands, 3\d %$/ })).toBeVisible();
  await page.getByRole('button', { name: /^Level: / }).click();
  await page.getByRole('menuitem', { name: 'a fluent player' }).click();
  await expect(page.getByRole('button', { name: /^D to E, cross over both hands, (1\d|2[0-5]) %$/ })).toBeVisible();
  await page.getByRole('button', { name: /^Shown: / }).click();
  await page.getByRole('menuitem', { name: 'crosses only' }).click();
  await expect(page.locator('.map-cell:not(.is-faint)')).toHaveCount(38);
});

test('crosses with one note become a sheet, from easy to hard', async ({ page }) => {
  await openMap(page);
  await page.getByRole('button', { name: /^Note: / }).click();
  await page.getByRole('menuitem', { name: 'low A', exact: true }).click();
  await expect(page.getByText('2 lines, from easy to hard.')).toBeVisible();
  await page.getByRole('button', { name: /^Lines: / }).click();
  await page.getByRole('menuitem', { name: 'all crosses, once each' }).click();
  await expect(page.getByText('19 lines, from easy to hard.')).toBeVisible();
  await page.getByRole('button', { name: /^Put them on a new sheet for / }).click();
  await expect(page.getByLabel('Title of the sheet')).toHaveValue(/^All crosses, once each for /);
  await expect(page.locator('.line-row')).toHaveCount(19);
});
