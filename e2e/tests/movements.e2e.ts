import type { Page } from '@playwright/test';
import { choose, expect, signIn, test } from './as-teacher';

async function openMovements(page: Page): Promise<void> {
  await signIn(page, '/movements');
  await choose(page, 'Instrument', 'practice chanter');
  await expect(page.getByRole('button', { name: /^E to C: \{gcd\}c\. 3 elements/ })).toBeVisible();
}

test('a doubling stands from every start into every arrival, with the forms that the rule gives', async ({ page }) => {
  await openMovements(page);
  await expect(page.locator('.movement-cell')).toHaveCount(81);
  await page.getByRole('button', { name: /^high G to C: \{acd\}c/ }).click();
  await expect(page.getByText(/The index finger is up on high G, so the thumb opens it\./)).toBeVisible();
  await page.getByRole('button', { name: /^high A to C: \{cd\}c/ }).click();
  await expect(page.getByText(/The thumb is up on high A, so nothing opens it: the half form\./)).toBeVisible();
  await expect(page.getByRole('img', { name: 'Fingers of {cd}c' })).toBeVisible();
});

test('a movement is found by a misspelt name; its classic fault is named and heard', async ({ page }) => {
  await openMovements(page);
  await page.getByLabel('Find a movement by any of its names').fill('torluath');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Movement: taorluath' })).toBeVisible();
  await page.getByRole('button', { name: /^E to low A: \{GdGe\}A/ }).click();
  await expect(page.getByText(/From low G to the E grace note L ring, R little go together, or a note between slips in: \d+ in 100\./).first()).toBeVisible();
  await page.getByRole('button', { name: 'Hear it go wrong from low G to the E grace note' }).click();
  await page.getByRole('button', { name: /at speed/ }).click();
  await expect(page.getByRole('button', { name: /at 40 % of the speed/ })).toBeVisible();
  await page.getByLabel('Find a movement by any of its names').fill('zzzzzzz');
  await expect(page.getByText('No movement is called that. Try another spelling.')).toBeVisible();
});

test('settings change the forms, and lines of a movement go onto a sheet and are practised', async ({ page }) => {
  await openMovements(page);
  await choose(page, 'Movement', 'grip');
  await expect(page.getByRole('button', { name: /^low G to E: \{dG\}e/ })).toBeVisible();
  await page.getByRole('button', { name: /^From low G/ }).click();
  await expect(page.getByRole('button', { name: /^low G to E: \{GdG\}e/ })).toBeVisible();
  await choose(page, 'Movement', 'grace note');
  await expect(page.getByRole('heading', { name: 'Grace note scale (1 of 2)' })).toBeVisible();
  await choose(page, 'Exercise', 'into this note from every other');
  await expect(page.getByRole('heading', { name: 'Grace note on C from every note (1 of 2)' })).toBeVisible();
  await choose(page, 'Exercise', 'on each note, up and down');
  await expect(page.getByRole('heading', { name: 'Grace note scale (1 of 2)' })).toBeVisible();
  await page.getByRole('button', { name: /^New sheet for / }).click();
  await expect(page.getByLabel('Title of the sheet')).toHaveValue(/^Grace note, on each note, up and down, for /);
  await expect(page.locator('.line-row')).toHaveCount(2);
  await page.getByRole('link', { name: /^Practise Grace note scale \(1 of 2\), code / }).click();
  await expect(page.getByRole('heading', { name: 'Grace note scale (1 of 2)' })).toBeVisible();
});

test('a whistle has its cuts in two schools, rolls, and crans on the lowest note; a recorder has trills', async ({ page }) => {
  await signIn(page, '/movements');
  await choose(page, 'Instrument', 'whistle in D');
  await expect(page.getByRole('button', { name: 'long roll on E: R middle cuts, then R ring taps' })).toBeVisible();
  await choose(page, 'School', 'the same two fingers cut');
  await expect(page.getByRole('button', { name: 'long roll on E: L ring cuts, then R ring taps' })).toBeVisible();
  await page.getByRole('button', { name: /^short cran on D: L ring cuts, then R index cuts/ }).click();
  await choose(page, 'Instrument', 'soprano recorder, baroque');
  await expect(page.getByRole('row', { name: /^G with A one finger/ })).toBeVisible();
});

test('a movement is played on keys and judged, element by element', async ({ page }) => {
  await openMovements(page);
  await choose(page, 'Movement', 'grip');
  await page.getByRole('button', { name: /^low A to E: \{GdG\}e/ }).click();
  await page.getByRole('button', { name: 'Play {GdG}e' }).click();
  await expect(page.getByText('Put the fingers on low A.')).toBeVisible();
  // Keys lift: on low A the right little finger is off.
  await page.keyboard.down(';');
  await expect(page.getByText('Now play it, and stay on the last note.')).toBeVisible();
  const [lowG, pause] = [90, 60];
  await page.keyboard.up(';');
  await page.waitForTimeout(lowG);
  await page.keyboard.down('j');
  await page.waitForTimeout(pause);
  await page.keyboard.up('j');
  await page.waitForTimeout(lowG);
  await page.keyboard.down('s');
  await page.keyboard.down(';');
  await expect(page.getByRole('status').filter({ hasText: /Back to low A for the next\.$/ })).toBeVisible();
  await page.keyboard.up('s');
  await expect(page.getByText('Now play it, and stay on the last note.')).toBeVisible();
  await page.keyboard.down('s');
  await expect(page.getByText(/Element 1, low G, is missing; element 2, D, is missing/)).toBeVisible();
});
