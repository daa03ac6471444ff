import type { Download, Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { expect, openTune, signIn, test } from './as-teacher';
import { readPdf } from './read-pdf';

async function chooseFor(page: Page, student: string): Promise<void> {
  await page.getByRole('button', { name: /^Student: / }).click();
  await page.getByRole('menuitem', { name: student, exact: true }).click();
}

async function chooseInstrument(page: Page, name: string): Promise<void> {
  // The choices are whole once students and instruments are here.
  await page.waitForLoadState('networkidle');
  await page.getByRole('button', { name: /^Instrument: / }).click();
  await page.getByRole('menuitem', { name, exact: true }).click();
}

const bytesOf = async (download: Download): Promise<Buffer> => readFile(await download.path());

async function downloaded(page: Page, button: string): Promise<Download> {
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: button }).click()]);
  return download;
}

test('each student’s own instrument comes up with the student, its known notes are ticked and stay', async ({ page }) => {
  await signIn(page, '/charts');
  await chooseFor(page, 'Oda');
  await expect(page.getByRole('button', { name: 'Instrument: Oda’s soprano' })).toBeVisible();
  const f = page.getByRole('checkbox', { name: 'F is known', exact: true });
  await expect(f).not.toBeChecked();
  const saved = page.waitForResponse((response) => response.url().includes('/api/instruments/') && response.request().method() === 'PUT');
  await f.check();
  expect((await saved).status()).toBe(200);
  await page.reload();
  await expect(page.getByRole('checkbox', { name: 'F is known', exact: true })).toBeChecked();
  await page.getByRole('button', { name: /^Notes: / }).click();
  await page.getByRole('menuitem', { name: 'notes Oda knows' }).click();
  await expect(page.locator('.chart-head')).toHaveCount(6);
});

test('the chart shows the notes of one tune', async ({ page }) => {
  await signIn(page, '/charts');
  await chooseInstrument(page, 'soprano recorder, German');
  await page.getByRole('button', { name: 'Hole 5 is smaller: German' }).click();
  await page.getByRole('button', { name: /^Notes: / }).click();
  await page.getByRole('menuitem', { name: 'Nine Beans in a Boot' }).click();
  await expect(page.locator('.chart-head')).toHaveText(['C', 'D', 'E', 'F', 'G', 'A', 'B♭', 'C', 'D', 'E', 'F'].map((name) => new RegExp(`^\\s*${name}`)));
});

test('settings of an instrument are kept: hands, tuning, school; what cannot be is said and nothing is lost', async ({ page }) => {
  await signIn(page, '/instruments');
  await page.getByRole('button', { name: 'Settings of Wren’s whistle' }).click();
  await page.getByLabel('C natural').selectOption({ label: 'half-covered first hole' });
  await page.getByLabel('D, in Hz').fill('700');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('The whistle in D can be tuned between 569.7 and 604.9 Hz, not 700.');
  await expect(page.getByLabel('C natural')).toHaveValue('half');
  await page.getByLabel('D, in Hz').fill('590,5');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByLabel('D, in Hz')).toHaveCount(0);
  await page.getByRole('button', { name: 'Chart of Wren’s whistle' }).click();
  await page.getByRole('button', { name: 'C', exact: true }).click();
  await expect(page.getByRole('button', { name: 'R index half covered', exact: true }).first()).toHaveAttribute('aria-pressed', 'true');
  await expect(page.locator('.lane-label').first()).toHaveText('R index');
  await expect(page.getByText(/590.5 Hz/)).toBeVisible();
});

test('an instrument is added, put away and brought back', async ({ page }) => {
  await signIn(page, '/instruments');
  await chooseFor(page, 'Pim');
  await page.getByLabel('Model').first().selectOption({ label: 'low whistle in F' });
  await page.getByRole('button', { name: 'Add for Pim' }).click();
  await expect(page.getByRole('button', { name: 'Chart of Pim’s low whistle in F' })).toBeVisible();
  await page.getByRole('button', { name: 'Put away Pim’s low whistle in F' }).click();
  await expect(page.getByRole('button', { name: 'Chart of Pim’s low whistle in F' })).toHaveCount(0);
  await page.goto('/put-away');
  await page.getByRole('button', { name: 'Bring back Pim’s low whistle in F' }).click();
  await page.goto('/instruments');
  await expect(page.getByRole('button', { name: 'Chart of Pim’s low whistle in F' })).toBeVisible();
});

test('fingers for the C natural between two As are found, kept with their author, and stand in the chart', async ({ page }) => {
  await signIn(page, '/charts/finder');
  await chooseInstrument(page, 'whistle in D');
  for (const which of ['Note before', 'Note after']) {
    await page.getByRole('button', { name: new RegExp(`^${which}`) }).click();
    await page.getByRole('menuitem', { name: 'A', exact: true }).click();
  }
  await page.getByRole('button', { name: /^Ranked: / }).click();
  await page.getByRole('menuitem', { name: 'the easiest first' }).click();
  await expect(page.locator('.finder-row').first()).toContainText('2 crosses');
  await page.getByRole('button', { name: 'Save L middle, L ring and R middle covered as my own', exact: true }).click();
  await page.getByLabel('Remark').fill('rings between two As');
  await page.getByLabel('For now; later').check();
  await page.getByRole('button', { name: 'Save as my own', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText('Choose the date until which this fingering is taught.');
  await page.getByLabel('until').fill('2027-02-01');
  await page.getByRole('button', { name: 'Save as my own', exact: true }).click();
  await expect(page.getByText('Fingering saved for C.')).toBeVisible();
  await page.goto('/charts');
  await page.getByRole('button', { name: 'C', exact: true }).click();
  await page.getByRole('button', { name: 'L middle, L ring and R middle covered', exact: true }).first().click();
  await expect(page.getByText('Rings between two As.')).toBeVisible();
  await expect(page.getByText('For now, until 1 February 2027; then')).toBeVisible();
  await expect(page.getByText(/^Saved by Maren Tolvik, /)).toBeVisible();
  await page.getByRole('button', { name: 'Teach this first' }).click();
  await expect(page.getByText('That fingering is now taught first.')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the chart’s own' }).click();
  await expect(page.getByRole('button', { name: 'L middle, L ring and R middle covered', exact: true })).toHaveCount(0);
});

test.describe('bad pitches in the finder', () => {
  for (const [typed, text] of [
    ['0', 'must be between 1 and 20000'],
    ['-5', 'must be between 1 and 20000'],
    ['10000000', 'must be between 1 and 20000'],
    ['loud', 'Write the pitch as a number, in Hz.'],
  ]) {
    test(`${typed} is answered in a sentence`, async ({ page }) => {
      await signIn(page, '/charts/finder');
      await page.getByLabel('Pitch in Hz').fill(typed);
      await expect(page.locator('.band-todo')).toContainText(text);
    });
  }
});

test('two high Gs of the pipes stand beside each other, told apart and heard', async ({ page }) => {
  await signIn(page, '/charts/compare');
  await page.getByRole('button', { name: /^First instrument: / }).click();
  await page.getByRole('menuitem', { name: 'pipe chanter', exact: true }).click();
  await expect(page.getByText('1 note is tuned differently.')).toBeVisible();
  await expect(page.getByText(/G: 831.3 Hz and 844.4 Hz; the second is 27 cents sharp./)).toBeVisible();
  await page.getByRole('button', { name: 'Second high G: 16/9' }).click();
  await page.getByRole('menuitem', { name: '9/5' }).click();
  await expect(page.getByText(/the second is 49 cents sharp/)).toBeVisible();
  await page.getByRole('button', { name: 'Hear both' }).click();
  await page.getByRole('button', { name: /^First instrument: / }).click();
  await page.getByRole('menuitem', { name: 'alto recorder, baroque' }).click();
  await expect(page.getByText('5 notes have different fingers.')).toBeVisible();
});

test('a chart goes onto paper and into files: chosen notes, chosen view', async ({ page }) => {
  await signIn(page, '/charts/handout');
  await chooseInstrument(page, 'alto ocarina in C, split sub-holes');
  await page.getByRole('button', { name: 'None' }).click();
  await expect(page.getByText('Choose the notes first.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save as PDF' })).toBeDisabled();
  for (const note of ['C', 'D', 'E']) await page.getByRole('button', { name: note, exact: true }).click();
  await page.getByRole('button', { name: /^View: / }).click();
  await page.getByRole('menuitem', { name: 'by the player' }).click();
  const svg = (await bytesOf(await downloaded(page, 'Save as SVG'))).toString('utf8');
  expect(svg).toContain('Alto ocarina in C, split sub-holes');
  expect(svg.match(/<circle/g)).toHaveLength((3 + 1) * 12);
  expect(svg).not.toMatch(/https?:\/\/(?!www\.w3\.org)/);
  const png = await bytesOf(await downloaded(page, 'Save as PNG'));
  expect(png.subarray(1, 4).toString('latin1')).toBe('PNG');
  expect(png.readUInt32BE(16)).toBe(794 * 3);
  const pdf = await bytesOf(await downloaded(page, 'Save as PDF'));
  expect(pdf.subarray(0, 5).toString('latin1')).toBe('%PDF-');
  expect(pdf.length).toBeGreaterThan(5000);
  const csv = (await bytesOf(await downloaded(page, 'Save as CSV'))).toString('utf8').trim().split('\n');
  expect(csv[0]).toMatch(/^note,written,Hz,rank/);
  expect(csv.slice(1).map((row) => row.split(',')[0])).toEqual(['C', 'D', 'E']);
  const json = JSON.parse((await bytesOf(await downloaded(page, 'Save as JSON'))).toString('utf8')) as { format: string; instrument: { id: string } };
  expect([json.format, json.instrument.id]).toEqual(['zelpit-instrument', 'ocarina-12-c-split']);
});

test('a chart’s PDF keeps every sharp and flat, and the names of the high notes', async ({ page }) => {
  await signIn(page, '/charts/handout');
  await chooseInstrument(page, 'soprano recorder, baroque');
  await page.getByRole('button', { name: 'All notes' }).click();
  const download = await downloaded(page, 'Save as PDF');
  const { text } = await readPdf(await download.path());
  // A sign comes from a font of its own, so that it is read apart from its letter.
  const written = text.replace(/ (?=[♯♭])/g, '').split(/\s+/);
  for (const [name, times] of [
    ['F♯', 2],
    ['C♯', 2],
    ['G♯', 2],
    ['B♭', 2],
    ['E♭', 2],
  ] as const)
    expect([name, written.filter((word) => word === name).length]).toEqual([name, times]);
  for (const name of ['low C', 'low C sharp', 'high D', 'high F sharp', 'high B flat', 'top C']) expect(text).toContain(name);
});

test('an instrument is fitted to measured pitches, says what it cannot explain, and is the studio’s', async ({ page }) => {
  await signIn(page, '/charts/calibrate');
  await chooseInstrument(page, 'practice chanter');
  const measured = { 'low A': '239.2', B: '269.0', C: '298.5', D: '318,4', E: '358.6', F: '398.0', 'high A': '478.1' };
  for (const [note, hertz] of Object.entries(measured)) await page.getByLabel(note, { exact: true }).fill(hertz);
  await page.getByLabel('E', { exact: true }).fill('sharp');
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText('“sharp” for E is not a number. Write the pitch in Hz, for example 238.5.');
  await page.getByLabel('E', { exact: true }).fill('475');
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('475 Hz is 498 cents away from E');
  await page.getByLabel('E', { exact: true }).fill('372');
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await expect(page.getByText(/cents off on average after \d+ steps?\./)).toBeVisible();
  await page.getByLabel('E', { exact: true }).fill('358.6');
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await expect(page.getByText('Every measured note is explained within 15 cents.')).toBeVisible();
  await page.getByLabel('Name of the instrument in this studio').fill('Skellow chanter');
  await page.getByRole('button', { name: 'Save it in the studio' }).click();
  await expect(page.getByRole('button', { name: 'Instrument: Skellow chanter' })).toBeVisible();
  await page.getByRole('button', { name: 'low A', exact: true }).click();
  await expect(page.getByText(/^Sounds low A, 1\d cents sharp/)).toBeVisible();
});

test('an instrument is copied and changed in the workshop; what contradicts itself is said and not saved', async ({ page }) => {
  await signIn(page, '/workshop');
  await page.getByLabel('Copy of').selectOption({ label: 'practice chanter' });
  await page.getByRole('button', { name: 'Copy it' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Tarn chanter');
  await page.getByLabel('Holes of fingering 3').fill('XXXXXXXO');
  await page.getByLabel('Holes of fingering 3').press('Tab');
  await expect(page.getByText('It still has mistakes, so it is kept in this browser and not saved.')).toBeVisible();
  await expect(page.getByText('low A and B have the same fingering')).toBeVisible();
  await expect(page.locator('.save-state')).toHaveText('Not saved yet; kept in this browser');
  await page.getByLabel('Holes of fingering 3').fill('XXXXXhOO');
  await page.getByLabel('Holes of fingering 3').press('Tab');
  await expect(page.getByText('b half covers hole R2, which has no half cover')).toBeVisible();
  await page.getByLabel('Holes of fingering 3').fill('XXXQ');
  await page.getByLabel('Holes of fingering 3').press('Tab');
  await expect(page.getByRole('alert')).toContainText('Write each hole as X, O or h, not “Q”. The old value stays.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('No mistakes found. Changes save themselves.')).toBeVisible();
  await page.getByLabel('Place of point 2').fill('-3');
  await page.getByLabel('Place of point 2').press('Tab');
  await expect(page.getByText('It still has mistakes')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByLabel('Fraction of high G').fill('16/9');
  await page.getByLabel('Fraction of high G').press('Tab');
  await expect(page.locator('.save-state')).toHaveText(/^Saved/);
  await page.reload();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Tarn chanter');
  await expect(page.getByLabel('Fraction of high G')).toHaveValue('16/9');
  const file = await downloaded(page, 'Save as a file');
  await page.goto('/workshop');
  await page.locator('input[type=file]').setInputFiles(await file.path());
  await expect(page.getByText('Tarn chanter was added.')).toBeVisible();
});

test.describe('files that hold no instrument', () => {
  const files: readonly [string, string, string][] = [
    ['text', 'X:1\nT:A tune', 'This is not a JSON file'],
    ['another version', '{"format":"zelpit-instrument","version":7,"instrument":{}}', 'This file has version 7; Zelpit reads version 1.'],
    ['unknown fields', '{"format":"zelpit-instrument","version":1,"instrument":{"colour":"red"}}', '“colour” is not known to Zelpit'],
  ];
  for (const [kind, text, message] of files) {
    test(`${kind} is refused in a sentence, and nothing is saved`, async ({ page }) => {
      await signIn(page, '/workshop');
      await page.locator('input[type=file]').setInputFiles({ name: 'it.json', mimeType: 'application/json', buffer: Buffer.from(text) });
      await expect(page.getByRole('alert')).toContainText(message);
      await expect(page.getByRole('alert')).toContainText('Nothing was saved.');
    });
  }
});

test('a tune for the whistle is tongued or slurred, and moves to another instrument', async ({ page }) => {
  await openTune(page, 'Two Lanterns at Vell Ford');
  await expect(page.locator('.lane-label').first()).toHaveText('L index');
  await page.getByRole('button', { name: /^Tongue: / }).click();
  await page.getByRole('menuitem', { name: 'all tongued' }).click();
  await expect(page.locator('zp-score-line [zpMark]')).toHaveCount(0);
  await page.getByRole('button', { name: /^Tongue: / }).click();
  await page.getByRole('menuitem', { name: 'all slurred' }).click();
  await expect(page.getByRole('button', { name: /C .*to A/ }).first()).toBeVisible();
  await page.getByRole('button', { name: /^Instrument: / }).click();
  await page.getByRole('menuitem', { name: 'soprano recorder, baroque' }).click();
  await expect(page.locator('.lane-label').first()).toHaveText('thumb');
  await expect(page.locator('.save-state')).toHaveText(/^Saved/);
  await page.reload();
  await expect(page.locator('.lane-label').first()).toHaveText('thumb');
});

test('in a tune a note with several fingerings takes the easiest way, and a teacher pins another', async ({ page }) => {
  await openTune(page, 'The Kettle on Skellow Stair');
  const all = page.getByRole('region', { name: 'All changes of the tune' });
  const openChange = async (): Promise<void> => {
    await page.getByRole('button', { name: /hidden by|more/ }).click();
    await all
      .getByRole('button', { name: /C .*to B/ })
      .first()
      .click();
  };
  await openChange();
  await expect(page.getByText(/is \d+\.\d harder/).first()).toBeVisible();
  const row = all.locator('.change-row.is-chosen');
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: /^Fingers for C: / }).click();
  await page.getByRole('menuitem', { name: 'L middle, L ring, R index and R ring covered', exact: true }).click();
  await expect(page.getByText('(fixed by you)').first()).toBeVisible();
  await expect(row).toContainText(/C .*to B/);
  await expect(row.getByRole('checkbox')).toBeChecked();
  await page.reload();
  await openChange();
  await expect(page.getByRole('button', { name: 'Fingers for C: L middle, L ring, R index and R ring covered' }).first()).toBeVisible();
  await page
    .getByRole('button', { name: /^Fingers for C: / })
    .first()
    .click();
  await page.getByRole('menuitem', { name: 'the easiest here' }).click();
  await expect(page.getByText('(fixed by you)')).toHaveCount(0);
});

test('a student sees the own chart and its known notes, and nothing to change', async ({ page, browser, baseURL }) => {
  await signIn(page, '/students');
  await page.getByRole('button', { name: 'Links for Oda' }).click();
  const address = (await page.locator('.link-address').textContent()) ?? '';
  const tablet = await (await browser.newContext({ baseURL, viewport: { width: 768, height: 1024 } })).newPage();
  await tablet.goto(address);
  await tablet.getByRole('button', { name: /Open/ }).first().click();
  await tablet.getByRole('link', { name: 'My chart' }).click();
  await expect(tablet.getByRole('button', { name: 'Instrument: Oda’s soprano' })).toBeVisible();
  await expect(tablet.getByRole('checkbox', { name: 'B is known', exact: true })).toBeDisabled();
  await expect(tablet.getByRole('button', { name: 'Hide this fingering' })).toHaveCount(0);
  await expect(tablet.getByRole('link', { name: 'On paper' })).toHaveCount(0);
  await tablet.context().close();
});
