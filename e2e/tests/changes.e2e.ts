import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { choose, expect, signIn, stopClock, test } from './as-teacher';

async function openMap(page: Page): Promise<void> {
  await signIn(page, '/changes');
  await page.getByRole('button', { name: /^Instrument: / }).click();
  await page.getByRole('menuitem', { name: 'practice chanter', exact: true }).click();
  await expect(page.getByRole('button', { name: /^D to E, cross across both hands, difficulty \d+\.\d$/ })).toBeVisible();
}

test('the map shows every change, and one of them is taken apart in time', async ({ page }) => {
  await openMap(page);
  await expect(page.locator('.map-cell')).toHaveCount(72);
  await page.getByRole('button', { name: /^B to E, straight swap across both hands/ }).click();
  await expect(page.getByText('Lift left ring just before right ring lands.')).toBeVisible();
  await expect(page.getByRole('row', { name: /^a low note cuts in 3\d / })).toBeVisible();
  await expect(page.getByText('All fingers move at the same instant:')).toBeVisible();
  const ring = page.getByRole('slider', { name: 'R ring lands' });
  await ring.focus();
  await page.keyboard.press('PageDown');
  await expect(ring).toHaveAttribute('aria-valuetext', '10 ms early');
  await expect(page.getByText(/^10 ms of low A \(too low/)).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText(/^11 ms of low A \(too low/)).toBeVisible();
  await page.getByRole('button', { name: 'Clean' }).click();
  await expect(page.getByText(/of low A \(too low/)).toHaveCount(0);
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
  await expect(knob).toHaveAttribute('aria-valuetext', /^[34]\d ms early$/);
  await expect(page.locator('.seam-said').first()).toBeVisible();
});

test('the map is for a level, for lifts ahead, for crosses only, and for another quantity', async ({ page }) => {
  await openMap(page);
  await page.getByRole('button', { name: /^Quantity: / }).click();
  await page.getByRole('menuitem', { name: 'a low note cuts in' }).click();
  await expect(page.getByRole('button', { name: /^D to E, cross across both hands, 3\d of 100 tries$/ })).toBeVisible();
  await page.getByRole('button', { name: /^Level: / }).click();
  await page.getByRole('menuitem', { name: 'a fluent player' }).click();
  await expect(page.getByRole('button', { name: /^D to E, cross across both hands, (1\d|2[0-5]) of 100 tries$/ })).toBeVisible();
  await page.getByRole('button', { name: /^Shown: / }).click();
  await page.getByRole('menuitem', { name: 'crosses only' }).click();
  await expect(page.locator('.map-cell:not(.is-faint)')).toHaveCount(38);
});

test('the map tells the fingerings of a note apart, and each opens its own change', async ({ page }) => {
  await openMap(page);
  await expect(page.getByRole('button', { name: /^Fingerings: / })).toHaveCount(0);
  await choose(page, 'Instrument', 'soprano recorder, German');
  const usual = page.getByRole('button', { name: /^A to B flat, / });
  await expect(usual).toHaveAttribute('aria-label', /difficulty \d+\.\d$/);
  await expect(page.getByRole('button', { name: /^A to B flat \(fingering 2\), / })).toHaveCount(0);
  await choose(page, 'Fingerings', 'every fingering');
  const other = page.getByRole('button', { name: /^A to B flat \(fingering 2\), / });
  await expect(other).toHaveAttribute('aria-label', /difficulty \d+\.\d$/);
  expect(await usual.getAttribute('title')).not.toBe((await other.getAttribute('title'))?.replace(' (fingering 2)', ''));
  await other.click();
  await expect(other).toHaveAttribute('aria-pressed', 'true');
  await expect(usual).toHaveAttribute('aria-pressed', 'false');
  await expect(page.getByRole('region', { name: 'The chosen change' })).toContainText('A to B flat (fingering 2)');
  await page.getByRole('button', { name: /^Fingers for B flat: / }).click();
  await page.getByRole('menuitem', { name: /taught first/ }).click();
  await expect(usual).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('region', { name: 'The chosen change' })).not.toContainText('fingering 2');
});

test('a change is played under a grace note: what is under it is masked, and the risk is less', async ({ page }) => {
  await openMap(page);
  await page.getByRole('button', { name: /^D to low A,/ }).click();
  await choose(page, 'Played', 'under the G grace note');
  await expect(page.getByText(/In \d+ of 100 tries every finger moves while the grace note covers it/)).toBeVisible();
  await page.keyboard.press('f');
  await expect(page.getByText(/ms of the grace note, near /).first()).toBeVisible();
  await page.getByRole('button', { name: /^E to high A,/ }).click();
  await page.getByRole('button', { name: /^Played: bare/ }).click();
  await expect(page.getByRole('menuitem')).toHaveCount(1);
});

test('a recorder has its own ways, its tongue and a pinch that glides', async ({ page }) => {
  await signIn(page, '/changes?from=e5&to=e6');
  await choose(page, 'Instrument', 'soprano recorder, baroque');
  await expect(page.getByText('pinch: the thumb alone')).toBeVisible();
  await expect(page.getByText(/^A glide/)).toBeVisible();
  await choose(page, 'Played', 'tongued');
  await expect(page.getByText(/while the tongue covers it/)).toBeVisible();
});

test('lines of many kinds are made, checked, put on a sheet and practised', async ({ page }) => {
  await signIn(page, '/changes/lines?note=low-a');
  await choose(page, 'Instrument', 'practice chanter');
  await expect(page.getByText('2 lines, from easy to hard.')).toBeVisible();
  await choose(page, 'Lines', 'all crosses, note by note');
  await expect(page.getByText('38 lines.')).toBeVisible();
  const homes = (await page.locator('.line-row .line-title').allTextContents()).map((title) => title.trim().split(' to ')[0]);
  expect([...new Set(homes)]).toEqual(['low A', 'B', 'C', 'D', 'E', 'F', 'high G', 'high A']);
  expect(homes.filter((home, index) => home !== homes[index - 1])).toHaveLength(8);
  await expect(page.getByText('no pair of this set is missing.')).toBeVisible();
  await choose(page, 'Layout', 'a bar for each change');
  await expect(page.getByText('8 lines.')).toBeVisible();
  await choose(page, 'Lines', 'wide slurred leaps from');
  await expect(page.getByRole('heading', { name: 'Wide leaps from low A, slurred' })).toBeVisible();
  await choose(page, 'Lines', 'my own choice');
  await page.getByRole('button', { name: 'Add this line' }).click();
  await expect(page.getByText('1 line.')).toBeVisible();
  await choose(page, 'Lines', 'five rhythms (even, dotted, cut, triplets, tied):');
  await choose(page, 'Focus', 'the timing, with the click');
  await page.getByRole('button', { name: /^New sheet for / }).click();
  await expect(page.getByLabel('Title of the sheet')).toHaveValue(/^Five rhythms .*low A and E for /);
  await expect(page.locator('.line-row')).toHaveCount(5);
  await page.getByRole('link', { name: /^Practise low A to E, triplets, code / }).click();
  await expect(page.getByRole('heading', { name: 'low A to E, triplets' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'Finger lanes of low A and E' })).toBeVisible();
});

test('lines go out as ABC, MusicXML, MIDI, WAV and PDF', async ({ page }) => {
  await signIn(page, '/changes/lines?note=c');
  await choose(page, 'Instrument', 'practice chanter');
  const saved = async (name: RegExp): Promise<Buffer> => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as a file' }).click();
    await page.getByRole('button', { name }).click();
    return readFile(await (await download).path());
  };
  expect((await saved(/^ABC/)).toString()).toContain('T:C to E');
  const xml = (await saved(/^MusicXML/)).toString();
  expect(xml).toContain('<score-partwise version="4.0">');
  expect(xml.match(/<measure /g)).toHaveLength(24);
  expect((await saved(/^MIDI/)).subarray(0, 4).toString()).toBe('MThd');
  const wave = await saved(/^WAV/);
  expect(wave.subarray(0, 4).toString()).toBe('RIFF');
  expect(wave.length).toBeGreaterThan(1_000_000);
  expect((await saved(/^PDF/)).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a PDF whose fonts do not come says so, and can be tried again', async ({ browser, baseURL }) => {
  // A page of its own: that a font is not there stands in its console.
  const page = await (await browser.newContext({ baseURL })).newPage();
  await signIn(page, '/changes/lines?note=c');
  await page.route('**/fonts/*.ttf', (route) => route.fulfill({ status: 503, body: '' }));
  const asPdf = async (): Promise<void> => {
    await page.getByRole('button', { name: 'Save as a file' }).click();
    await page.getByRole('button', { name: /^PDF/ }).click();
  };
  await asPdf();
  await expect(page.getByText('The PDF could not be made because its fonts did not load. Try again.')).toBeVisible();
  await page.unroute('**/fonts/*.ttf');
  const download = page.waitForEvent('download');
  await asPdf();
  expect((await readFile(await (await download).path())).subarray(0, 5).toString()).toBe('%PDF-');
});

test('fingers on keys are judged, and their own timing is kept and reckoned with', async ({ page }) => {
  await signIn(page, '/changes/keys?from=b&to=e');
  await choose(page, 'Instrument', 'practice chanter');
  await expect(page.getByText('Set your fingers for B.')).toBeVisible();
  // On B the right ring and little finger are off: those two keys are held, then left ring lifts and right ring lands.
  await page.keyboard.down('l');
  await page.keyboard.down(';');
  await expect(page.getByText('Now B to E.')).toBeVisible();
  // The page's own clock stands still but for what it is told: how busy the machine is does not matter.
  const pass = await stopClock(page);
  for (let turn = 0; turn < 5; turn += 1) {
    await page.keyboard.up('l');
    await pass(40);
    await page.keyboard.down('s');
    await pass(60);
    await page.keyboard.up('s');
    await pass(40);
    await page.keyboard.down('l');
    await pass(60);
  }
  await expect(page.getByText(/^B to E: low A cuts in for 40 ms\.$|^E to B: low A cuts in for 40 ms\.$/)).toBeVisible();
  await expect(page.getByText(/From 10 changes: your fingers vary by \d+ ms/)).toBeVisible();
  await page.clock.resume();
  await page.keyboard.up('l');
  await page.keyboard.up(';');
  await page.getByRole('button', { name: /^Use this timing for / }).click();
  await expect(page.getByText(/now use this timing for/)).toBeVisible();
  await page.getByRole('link', { name: 'Changes', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Whose fingers: .*, as measured$/ })).toBeVisible();
});

test('touches on a tablet cover the holes, and what keys cannot tell is said', async ({ page }) => {
  await signIn(page, '/changes/keys?from=e5&to=e6');
  await choose(page, 'Instrument', 'soprano recorder, baroque');
  await expect(page.getByText(/Keys and pads cannot show half covers or breath/)).toBeVisible();
  await choose(page, 'Instrument', 'practice chanter');
  await page.getByRole('button', { name: 'Let a pretend student play' }).click();
  await expect(page.getByText(/80 played: \d+ clean/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Use this timing/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Start over' }).click();
  const pad = page.getByRole('button', { name: /^R ring, / });
  await pad.dispatchEvent('pointerdown', { pointerId: 5, pointerType: 'touch' });
  await expect(pad).toHaveAttribute('aria-pressed', 'true');
  await pad.dispatchEvent('pointerup', { pointerId: 5, pointerType: 'touch' });
  await expect(pad).toHaveAttribute('aria-pressed', 'false');
});

test('a blind test asks which was crossed, and keeps what the ear tells', async ({ page }) => {
  await signIn(page, '/changes/ear?from=c&to=d');
  await choose(page, 'Instrument', 'practice chanter');
  await expect(page.getByText('Nothing can cut in from C to D.')).toBeVisible();
  await choose(page, 'To', 'E');
  await page.getByRole('button', { name: 'Start' }).click();
  const first = page.getByRole('button', { name: 'The first' });
  for (let answer = 0; answer < 12; answer += 1) {
    await expect(first).toBeEnabled({ timeout: 5000 });
    await page.keyboard.press('1');
    await expect(page.getByText(new RegExp(`${answer + 1} answered`))).toBeVisible();
  }
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText(/From C to E, a fault of \d+ ms can just be heard\./)).toBeVisible();
  await expect(page.getByRole('row', { name: /^C to E \d+ ms/ })).toBeVisible();
});

test('the faults of a simulated student are hunted by ear, and the answer says the result', async ({ page }) => {
  await signIn(page, '/changes/hunt?round=2');
  await choose(page, 'Instrument', 'practice chanter');
  await choose(page, 'Level', 'a beginner (fingers vary by 25 ms)');
  const cards = page.locator('.hunt-change');
  await expect(cards.first()).toBeVisible();
  for (const card of await cards.all()) await card.click();
  await page.getByRole('button', { name: 'Show answers' }).click();
  const [, found, faults] = /You found (\d+) of (\d+) faults/.exec((await page.getByRole('status').filter({ hasText: 'found' }).textContent()) ?? '') ?? [];
  expect(found).toBe(faults);
  expect(Number(faults)).toBeGreaterThan(0);
  await choose(page, 'Music', 'The Blue Wheelbarrow');
  await expect(cards.nth(5)).toBeVisible();
});
