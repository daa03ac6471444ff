import type { Page } from '@playwright/test';
import { expect, signIn, test } from './as-teacher';

async function chooseInstrument(page: Page, name: string): Promise<void> {
  // The choices are whole once students and instruments are here.
  await page.waitForLoadState('networkidle');
  await page.getByRole('button', { name: /^Instrument: / }).click();
  await page.getByRole('menuitem', { name, exact: true }).click();
}

test('the chart shows a note, what moves to it, and answers any fingers', async ({ page }) => {
  await signIn(page, '/charts');
  await chooseInstrument(page, 'practice chanter');
  await page.getByRole('button', { name: 'E', exact: true }).click();
  await expect(page.getByText('From D: L ring and R little lift, R index, R middle and R ring land.')).toBeVisible();
  await expect(page.getByText(/^Sounds E, in tune/)).toBeVisible();
  await page.getByRole('button', { name: 'R little, open' }).click();
  await expect(page.getByRole('button', { name: 'R little, covered' })).toBeVisible();
  await expect(page.getByText(/^Sounds E, .* flat/)).toBeVisible();
  await page.keyboard.press('8');
  await expect(page.getByText(/^Sounds E, in tune/)).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('From E: L middle lifts.')).toBeVisible();
});

test('a recorder’s model is settled by one question before its chart is shown, and is kept', async ({ page }) => {
  await signIn(page, '/charts');
  await chooseInstrument(page, 'soprano recorder, baroque');
  await expect(page.getByText('Is hole 5 larger or smaller than hole 4?')).toBeVisible();
  await expect(page.getByRole('button', { name: 'high D' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Hole 5 is smaller: German' }).click();
  await expect(page.getByText('Dotted: other fingers on the other model (baroque).')).toBeVisible();
  await expect(page.getByRole('button', { name: 'F, other fingers on the other model', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'high D', exact: true }).click();
  await expect(page.getByText('One finger alone hardly holds the instrument. Rest it on the right thumb.')).toBeVisible();
  await page.getByRole('button', { name: /R ring covered, thumb half covered$/ }).click();
  await expect(page.getByRole('button', { name: 'thumb 0, half covered' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Right hand on top' })).toBeDisabled();
  await page.reload();
  await expect(page.getByRole('button', { name: 'high D', exact: true })).toBeVisible();
});

test('the whistle’s C natural is shown with its four fingerings and what each sounds', async ({ page }) => {
  await signIn(page, '/charts');
  await chooseInstrument(page, 'whistle in D');
  await page.getByRole('button', { name: 'C', exact: true }).click();
  for (const holes of [
    /^L middle and L ring covered$/,
    /^L middle, L ring, R index and R ring covered$/,
    /^L index half covered$/,
    /^L middle, L ring, R index and R middle covered$/,
  ])
    await expect(page.getByRole('button', { name: holes }).first()).toBeVisible();
  await expect(page.getByText(/^Sounds C, 1\d cents sharp/)).toBeVisible();
  await page
    .getByRole('button', { name: /^L middle, L ring, R index and R ring covered$/ })
    .first()
    .click();
  await expect(page.getByText(/^Sounds C, \d+ cents flat/)).toBeVisible();
  await page.getByRole('button', { name: /^View: / }).click();
  await page.getByRole('menuitem', { name: 'from behind' }).click();
  await expect(page.getByRole('button', { name: 'View: from behind the player' })).toBeVisible();
});

test('the chart is met in a teaching order, by hole numbers, large for a stand, and tried before it is seen', async ({ page }) => {
  await signIn(page, '/charts');
  await chooseInstrument(page, 'whistle in D');
  await page.getByRole('button', { name: /^Order: / }).click();
  await page.getByRole('menuitem', { name: 'B A G first' }).click();
  await expect(page.locator('.chart-head').nth(0)).toHaveText('B');
  await expect(page.locator('.chart-head').nth(2)).toHaveText('G');
  await page.getByRole('button', { name: /^Names: / }).click();
  await page.getByRole('menuitem', { name: 'hole numbers' }).click();
  await expect(page.locator('.lane-label').first()).toHaveText('1');
  await page.getByRole('button', { name: 'Try it first, then see' }).click();
  await page.getByRole('button', { name: 'G', exact: true }).click();
  await expect(page.getByText('Set the fingers below, then press Show.')).toBeVisible();
  await page.keyboard.press('1');
  await page.keyboard.press('1');
  await page.keyboard.press('2');
  await page.keyboard.press('2');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByText('The chart has L index, L middle and L ring covered.')).toBeVisible();
  await expect(page.getByRole('img', { name: 'L index and L middle covered' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'A', exact: true }).click();
  for (const hole of ['1', '1', '2', '2']) await page.keyboard.press(hole);
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByText('Yes: those are the fingers.')).toBeVisible();
  await page.getByRole('button', { name: 'Large, for the stand' }).click();
  await expect(page.getByText('Try any fingers')).toBeHidden();
});

test('a handout is proofread line by line; what cannot be read is said, and nothing in it becomes markup', async ({ page }) => {
  await signIn(page, '/charts/proof');
  await chooseInstrument(page, 'whistle in D');
  await page
    .getByLabel("The handout's lines")
    .fill('G: 1 2 3\nlift the ring finger\nE: like D with the ring finger off\nF: xxx xoo\n<img src=x onerror=alert(1)>: 1');
  const text = page.getByRole('list', { name: 'Line by line' }).getByRole('listitem');
  await expect(text).toHaveCount(5);
  await expect(text.nth(0)).toContainText('Right: G.');
  await expect(text.nth(1)).toContainText('Right: A.');
  await expect(text.nth(2)).toContainText('Which finger is “ring”: L ring or R ring?');
  await expect(text.nth(3)).toContainText('These fingers are F sharp, not F or high F.');
  await expect(text.nth(4)).toContainText('cannot be read');
  await expect(page.getByText('3 of 5 lines need a look.')).toBeVisible();
});

test('fingers are found for a pitch, ranked, and a pitch that cannot be is said', async ({ page }) => {
  await signIn(page, '/charts/finder');
  await chooseInstrument(page, 'whistle in D');
  await expect(page.getByRole('button', { name: 'Note: C', exact: true })).toBeVisible();
  await expect(page.getByText(/fingerings within 25 cents, the best in tune first\./)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Hear L middle and L ring covered' })).toBeVisible();
  for (const [typed, text] of [
    ['0', 'must be between 1 and 20000, not 0.'],
    ['-440', 'must be between 1 and 20000, not -440.'],
    ['10000000', 'must be between 1 and 20000, not 10000000.'],
    ['four', 'Write the pitch as a number'],
  ]) {
    await page.getByLabel('Pitch in Hz').fill(typed);
    await expect(page.getByText(text)).toBeVisible();
  }
});
