import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { choose, expect, openTune, saved, signIn, test } from './as-teacher';
import { readPdf } from './read-pdf';

/** Clicks what makes a file, and gives its path. */
async function fileBy(page: Page, click: () => Promise<void>): Promise<string> {
  const download = page.waitForEvent('download');
  await click();
  return (await download).path();
}

test('a tune is shown on the student’s own instrument of its family; where there is none it says whose it is, and the tune stays as it is', async ({
  page,
}) => {
  await openTune(page, 'Nine Beans in a Boot');
  const written = async (): Promise<unknown> => {
    const { instrument, abc } = (await (await page.request.get(`/api${new URL(page.url()).pathname}`)).json()) as { instrument: string; abc: string };
    return [instrument, abc];
  };
  const before = await written();
  await choose(page, 'Student', 'Oda');
  await expect(page.getByRole('button', { name: 'Instrument: Oda’s soprano' })).toBeVisible();
  await expect(page.locator('.model-dots')).not.toHaveCount(0);
  await expect(page.getByText('Dotted: other fingers on the other model (baroque).')).toBeVisible();
  await choose(page, 'Student', 'Jorun');
  await expect(page.getByText('Jorun has no recorder here: this is the soprano recorder, German as the studio fingers it.')).toBeVisible();
  expect(await written()).toEqual(before);
});

test('a key is chosen by its name, and says what it costs', async ({ page }) => {
  await openTune(page, 'Nine Beans in a Boot');
  await page.getByRole('button', { name: 'Key: F', exact: true }).click();
  await expect(page.getByRole('menuitem', { name: /^F: all notes fit, no half holes/ })).toBeVisible();
  await page.getByRole('menuitem', { name: /^G, up a tone: all notes fit, no half holes/ }).click();
  await expect(page.getByText('The tune is in G now. Undo moves it back.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Key: G', exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('button', { name: 'Key: F', exact: true })).toBeVisible();
});

test('a speed drill is one line with its speeds: on the sheet, on paper and in the runner', async ({ page }) => {
  await signIn(page, '/movements');
  await choose(page, 'Student', 'Pim');
  // Another test may have given Pim a whistle before.
  await choose(page, 'Instrument', 'Pim’s practice chanter');
  await choose(page, 'Movement', 'taorluath');
  await page.keyboard.press('3');
  await choose(page, 'Exercise', 'between these two notes');
  await choose(page, 'Speed', 'a speed drill');
  await page.getByRole('button', { name: /^New sheet for Pim/ }).click();
  await expect(page.locator('.line-row')).toHaveCount(1);
  await expect(page.getByText('once through at each speed')).toBeVisible();
  const speeds = page.getByLabel('Speeds, until the first slip');
  await expect(speeds).toHaveValue('38, 43, 49, 57, 65, 75');
  await speeds.fill('40, 50, fast');
  await speeds.press('Tab');
  await expect(speeds).toHaveValue('40, 50');
  await speeds.fill('1, 2000');
  await speeds.press('Tab');
  await expect(page.getByText('Speeds are numbers from 20 to 300, at most 12.')).toBeVisible();
  await expect(speeds).toHaveValue('40, 50');
  await saved(page);
  const practise = await page.getByRole('link', { name: /^Practise / }).getAttribute('href');
  // By their addresses: a notice lies over the links for some seconds.
  await page.goto(`${new URL(page.url()).pathname}/paper`);
  const paper = page.locator('svg.sheet-page');
  await expect(paper).toContainText('click at 40, 50, until the first slip');
  await expect(paper).toContainText('Rest both hands for 40 seconds after each line.');
  await expect(paper).toContainText('low A comes before the E');
  for (const element of ['G', 'd', 'e'])
    await expect(paper.locator('[zpChangeFigure] text', { hasText: new RegExp(`^\\s*${element}\\s*$`) })).not.toHaveCount(0);
  await page.goto(practise ?? '');
  await expect(page.getByText('once through at each speed')).toBeVisible();
  await page.getByRole('button', { name: 'Start' }).click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('A slip at the first speed: start over, slower if you like.')).toBeVisible();
});

test('another line of a sheet is of any kind, and counts say what is counted', async ({ page }) => {
  await signIn(page, '/changes/lines?note=c');
  await choose(page, 'Student', 'Pim');
  // Another test may have given Pim a second instrument.
  await choose(page, 'Instrument', 'Pim’s practice chanter');
  await page.getByRole('button', { name: /^New sheet for / }).click();
  await expect(page.locator('.line-row').first()).toBeVisible();
  await expect(page.getByText('1 line (8 changes)').first()).toBeVisible();
  const before = await page.locator('.line-row').count();
  const kind = page.getByLabel('Which', { exact: true });
  await kind.selectOption('taps: note, low note, note, tap');
  await page.getByRole('button', { name: /^Add \d+ lines/ }).click();
  await expect(page.getByText('Taps on heavy D', { exact: true })).toBeVisible();
  await kind.selectOption('the scale');
  await page.getByRole('button', { name: 'Add the line' }).click();
  await expect(page.getByText('Choose the note.')).toBeVisible();
  await page.getByLabel('From', { exact: true }).selectOption('low A');
  await page.getByRole('button', { name: 'Add the line' }).click();
  await expect(page.getByText('Scale from low A', { exact: true })).toBeVisible();
  expect(await page.locator('.line-row').count()).toBeGreaterThan(before + 5);
});

test('a sound file has the fault, the click and the drone that are asked for', async ({ page }) => {
  await signIn(page, '/changes/lines?note=c');
  await choose(page, 'Lines', 'my own choice');
  await page.getByRole('button', { name: 'Add this line' }).click();
  const wave = async (): Promise<Buffer> => {
    await page.getByRole('button', { name: 'Save as a file' }).click();
    return readFile(await fileBy(page, () => page.getByRole('button', { name: /^WAV/ }).click()));
  };
  const clean = await wave();
  await page.getByRole('button', { name: 'Save as a file' }).click();
  await page.getByLabel('With a fault').selectOption({ index: 1 });
  await page.keyboard.press('Escape');
  const faulty = await wave();
  await page.getByRole('button', { name: 'Save as a file' }).click();
  await page
    .getByRole('group', { name: /^WAV/ })
    .getByRole('button', { name: /^Drone/ })
    .click();
  await page.keyboard.press('Escape');
  const droned = await wave();
  expect([faulty.length, droned.length]).toEqual([clean.length, clean.length]);
  expect([faulty.equals(clean), droned.equals(faulty)]).toEqual([false, false]);
});

test('a handout serves a class with both models, and the proofreader shows what it reads', async ({ page }) => {
  await signIn(page, '/charts/handout');
  await choose(page, 'Instrument', 'soprano recorder, baroque');
  await choose(page, 'Models', 'a class with baroque and German');
  const { text } = await readPdf(await fileBy(page, () => page.getByRole('button', { name: /^Save as PDF/ }).click()));
  expect(text).toContain('Soprano recorder, baroque and German');
  expect(text).toMatch(/F baroque F German/);
  await page.goto('/charts/proof');
  await choose(page, 'Instrument', 'practice chanter');
  await page.getByRole('button', { name: /^Put in: Grip from D/ }).click();
  await expect(page.getByText('Right: grip on every note.')).toBeVisible();
});

test('taps of the Irish chanter are offered as the teacher’s choice, C natural among them', async ({ page }) => {
  await signIn(page, '/movements');
  await choose(page, 'Instrument', 'Irish pipes chanter in D');
  await page.getByRole('button', { name: /On C: L index, or R middle/ }).click();
  await expect(page.getByRole('button', { name: 'Note: C', exact: true })).toBeVisible();
  await choose(page, 'Tap finger', 'with R middle');
  await expect(page.getByRole('button', { name: /^tap on C: / })).toBeVisible();
});
