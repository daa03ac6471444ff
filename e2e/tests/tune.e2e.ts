import type { Page } from '@playwright/test';
import { choose, expect, openTune, pasteTune, signIn, test } from './as-teacher';

/** Distance in px from each column of the lanes to the middle of its notehead, for all lines that are drawn. */
const distances = (page: Page): Promise<number[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('zp-score-line')].flatMap((line) => {
      const heads = [...line.querySelectorAll('.abcjs-note')].map((note) => {
        const head = note.querySelector('.abcjs-notehead') as Element;
        const { left, width } = head.getBoundingClientRect();
        return left + width / 2;
      });
      const columns = [...line.querySelectorAll('rect.column')].map((column) => {
        const { left, width } = column.getBoundingClientRect();
        return left + width / 2;
      });
      return columns.length === heads.length ? columns.map((x, index) => Math.abs(x - heads[index])) : [Number.POSITIVE_INFINITY];
    }),
  );

for (const width of [1280, 1024, 768]) {
  test(`each column stands within 2 px of its notehead, after line breaks too, at ${width} px`, async ({ page }) => {
    await page.setViewportSize({ width, height: 1000 });
    await openTune(page, 'Madam Plover');
    await page.keyboard.press('w');
    await expect.poll(async () => (await distances(page)).length).toBeGreaterThan(60);
    await expect.poll(async () => Math.max(...(await distances(page)))).toBeLessThan(2);
  });
}

test('changes are ranked by what is heard and lead to their places', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  const list = page.getByRole('region', { name: 'Changes of the tune, worst first' });
  await expect(list.getByRole('heading').first()).toContainText('Low G cuts in');
  const band = page.getByRole('region', { name: 'The chosen change' });
  await list.getByRole('button', { name: /C to E/ }).click();
  await expect(band).toContainText('cross across both hands');
  await expect(band).toContainText('Lifting: L ring first, R little. Landing: R ring first, R middle.');
  await expect(band).toContainText('Lift left ring and right little before you land.');
  await band.getByRole('button', { name: 'What this means: what each fault sounds like' }).click();
  await expect(band).toContainText('lands early: low G');
  await page.keyboard.press('Escape');
  await band.getByRole('button', { name: /Where it happens/ }).click();
  await band.getByRole('button', { name: /bar 5/ }).first().click();
  await expect(page.getByRole('button', { name: /^Bar 5/ })).toHaveAttribute('aria-current', 'true');
  await expect(page.locator('.pillar').first()).toBeVisible();
});

test('changes under grace notes stand apart', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  await page.getByRole('button', { name: /hidden by grace notes/ }).click();
  const all = page.getByRole('region', { name: 'All changes of the tune' });
  await all.getByRole('heading', { name: 'Hidden by grace notes' }).scrollIntoViewIfNeeded();
  await all.locator('.change-button').last().click();
  await expect(page.getByRole('region', { name: 'The chosen change' })).toContainText(/under|part of/);
  await page.getByRole('button', { name: 'Back to the music' }).click();
  await expect(page.getByRole('button', { name: /hidden by grace notes/ })).toBeVisible();
});

test('movers bend at a change and stayers do not; a grace note is a hop', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  const drawn = (): Promise<string[]> =>
    page
      .locator('zp-score-line')
      .first()
      .locator('path[stroke-linecap="round"]')
      .evaluateAll((paths) => paths.map((path) => path.getAttribute('d') ?? ''));
  await expect.poll(async () => (await drawn()).some((path) => path.includes('C'))).toBe(true);
  const curves = await drawn();
  expect(curves.some((path) => !path.includes('C'))).toBe(true);
});

test('one key starts and stops the sound; the pillar follows; the tempo slows', async ({ page }) => {
  await openTune(page, 'Slow Snow on Vell Street');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /Stop/ })).toBeVisible();
  await expect(page.locator('.pillar-empty')).toBeVisible();
  await expect(page.locator('.pillar-move')).toBeVisible({ timeout: 15_000 });
  await page.keyboard.press('-');
  await expect(page.getByText('95 % speed')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /Play/ })).toBeVisible();
  await expect(page.locator('.pillar-move')).toHaveCount(0);
});

test('a change is heard clean and faulty, with a chosen fault of a chosen length', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  await page.getByRole('button', { name: 'Sound', exact: true }).click();
  await page.getByLabel('Fault to hear').selectOption('land-early');
  await page.getByLabel(/Length of the fault/).fill('45');
  await expect(page.getByText('Length of the fault: 45 ms')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /Faulty/ }).click();
  await expect(page.getByRole('button', { name: /Stop/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Play/ })).toBeVisible({ timeout: 15_000 });
});

test('the question mark lists the keys', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog');
  await expect(keys).toContainText('Play from here, or stop');
  await expect(keys).toContainText('Make the ten-minute sheet');
  await page.keyboard.press('Escape');
  await expect(keys).toHaveCount(0);
});

test('a tune that is not there says so', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  await page.goto('/tunes/00000000-0000-4000-8000-000000000000');
  await expect(page.getByText('This studio has no such tune. It may have been put away.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Go to the tunes' })).toBeVisible();
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('movements that have no room fold into their names, and Enter opens those of the bar in hand', async ({ page }) => {
    await signIn(page);
    await pasteTune(page, 'X:1\nT:A bar too full\nM:2/4\nL:1/8\nK:HP\n{gcd}c{Gdc}d {gde}d{gef}e|{g}A>c {g}c>e|\n');
    await page.getByRole('link', { name: 'A bar too full' }).first().click();
    const music = page.getByRole('region', { name: 'Music and finger lanes' });
    const drawn = music.locator('zp-score-line').first().locator('.score-music path');
    const open = music.getByRole('button', { name: 'Open the movements of bar 1' });
    await expect(open).toBeVisible();
    await expect(music.locator('.movement-name').first()).toHaveText('doubling');
    const before = await drawn.count();
    await page.getByRole('button', { name: /^Bar 1/ }).click();
    await page.keyboard.press('Enter');
    await expect(music.getByRole('button', { name: 'Fold the movements of bar 1' })).toBeVisible();
    await expect.poll(() => drawn.count()).toBeGreaterThan(before);
    await music.getByRole('button', { name: 'Fold the movements of bar 1' }).click();
    await expect(open).toBeVisible();
  });
});

test('what the lanes mean stands under the music until it is closed once', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  await choose(page, 'Student', 'Pim');
  const legend = page.locator('.lanes-legend');
  await expect(legend).toBeVisible();
  await page.getByRole('button', { name: 'Close what the lanes mean' }).click();
  await expect(legend).toBeHidden();
  await page.reload();
  await expect(page.getByRole('region', { name: 'The chosen change' })).toBeVisible();
  await expect(legend).toBeHidden();
  await page.getByRole('button', { name: 'What this means: the form and the marks' }).click();
  await expect(page.getByText('Burst with a letter', { exact: false })).toBeVisible();
});
