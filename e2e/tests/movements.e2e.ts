import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { choose, expect, openTune, signIn, stopClock, test, pasteTune, saved } from './as-teacher';

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
  await expect(page.getByText(/The thumb is up on high A, so there is no opening grace note\./)).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.getByRole('img', { name: 'Fingers of {cd}c' })).toBeVisible();
});

test('a movement is found by a misspelt name; its classic fault is named and heard', async ({ page }) => {
  await openMovements(page);
  await page.getByLabel('Find a movement by any of its names').fill('torluath');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Movement: taorluath' })).toBeVisible();
  await page.getByRole('button', { name: /^E to low A: \{GdGe\}A/ }).click();
  await page.keyboard.press('2');
  // What is the worse of the two depends on the timing that another test may have measured for the student in hand.
  await expect(
    page
      .getByText(/From low G to the E grace note move L ring, R little together, or a (?:note in between slips|low note cuts) in: \d+ of 100 tries\./)
      .first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Hear it go wrong from low G to the E grace note' }).click();
  await page.getByRole('button', { name: /at speed/ }).click();
  await expect(page.getByRole('button', { name: /at 40 % of the speed/ })).toBeVisible();
  await page.getByLabel('Find a movement by any of its names').fill('zzzzzzz');
  await expect(page.getByText('No movement has that name. Try another spelling.')).toBeVisible();
});

test('how the studio plays is chosen once and changes the forms; lines of a movement go onto a sheet and are practised', async ({ page }) => {
  await openMovements(page);
  await choose(page, 'Movement', 'grip');
  await expect(page.getByRole('button', { name: /^low G to E: \{dG\}e/ })).toBeVisible();
  await page.getByRole('link', { name: 'How we play and count' }).click();
  await choose(page, 'From low G', 'in full');
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.goto('/movements?movement=grip');
  await expect(page.getByRole('button', { name: /^low G to E: \{GdG\}e/ })).toBeVisible();
  await choose(page, 'Movement', 'grace note');
  await page.keyboard.press('3');
  await expect(page.getByRole('heading', { name: 'Grace note scale (1 of 2)' })).toBeVisible();
  await choose(page, 'Exercise', 'into this note from every other');
  await expect(page.getByRole('heading', { name: 'Grace note on C from every note (1 of 2)' })).toBeVisible();
  await choose(page, 'Exercise', 'on each note, up and down');
  await choose(page, 'Speed', 'slow, a little faster, full speed');
  await page.getByRole('button', { name: /^New sheet for / }).click();
  await expect(page.getByLabel('Title of the sheet')).toHaveValue(/^Grace note, on each note, up and down for /);
  // One line each, with its three speeds.
  await expect(page.locator('.line-row')).toHaveCount(2);
  await expect(page.getByLabel('Speeds, until the first slip').first()).toHaveValue('38, 56, 75');
  await page.getByRole('link', { name: /^Practise Grace note scale \(1 of 2\), code / }).click();
  await page.waitForURL('**/c/*');
  await expect(page.getByRole('heading', { name: 'Grace note scale (1 of 2)' })).toBeVisible();
  await page.goto('/movements/ways');
  await choose(page, 'From low G', 'short, because low G is sounding already');
  await expect(page.getByText('Saved.')).toBeVisible();
});

test('a built-in movement is confirmed once, with author, and that can be taken back', async ({ page }) => {
  await openMovements(page);
  await choose(page, 'Movement', 'taorluath');
  const asked = page.getByRole('region', { name: 'Is this how you play it?' });
  await expect(asked.getByText('On low G the D grace note, or B where the note before has that letter')).toBeVisible();
  await asked.getByRole('button', { name: 'Yes, this is it' }).click();
  const kept = page.getByText(/^Confirmed by Maren Tolvik, .*\. Show how it is played$/);
  await expect(kept).toBeVisible();
  await page.reload();
  await choose(page, 'Movement', 'taorluath');
  await kept.click();
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await expect(asked).toBeVisible();
});

test('a movement of one’s own is typed, looked over on every start, kept, found, taken out as a file and brought in again', async ({ page }) => {
  await signIn(page, '/movements/make');
  const written = page.getByLabel(/^As it is written/);
  await written.fill('gcd c');
  await expect(page.getByRole('alert')).toContainText('in braces');
  await written.fill('{gxd}c');
  await expect(page.getByRole('alert')).toContainText('“x” is not a note');
  await written.fill('{gcdc}c');
  await expect(page.getByRole('button', { name: 'Save it' })).toBeDisabled();
  await page.getByLabel('Name').fill('Doubling');
  await expect(page.getByText('There is already a movement with that name.')).toBeVisible();
  await page.getByLabel('Name').fill('lantern step');
  await expect(page.getByRole('region', { name: 'How Zelpit reads it' }).getByText('The theme note for a moment')).toHaveCount(2);
  await expect(page.getByRole('cell', { name: '{acdc}c' })).toBeVisible();
  await page.getByRole('button', { name: 'Save it' }).click();
  await expect(page.getByRole('button', { name: 'Movement: lantern step' })).toBeVisible();
  await expect(page.getByText(/^Made by Maren Tolvik/)).toBeVisible();
  await page.getByLabel('Find a movement by any of its names').fill('lantren');
  await expect(page.getByRole('button', { name: 'lantern step', exact: true })).toBeVisible();
  await page.goto('/movements/make');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save them as a file' }).click()]);
  const file = await readFile(await download.path());
  const data = JSON.parse(file.toString('utf8')) as { format: string; movements: { id: string; author: string }[] };
  expect([data.format, data.movements.map(({ id }) => id)]).toEqual(['zelpit-movements', expect.arrayContaining(['lantern-step', 'stair-step'])]);
  await page.getByRole('button', { name: 'Delete lantern step' }).click();
  await expect(page.getByRole('button', { name: 'lantern step', exact: true })).toHaveCount(0);
  const bring = (name: string, buffer: Buffer) => page.getByLabel('A file of movements').setInputFiles({ name, mimeType: 'application/json', buffer });
  await bring('notes.json', Buffer.from('no json'));
  await expect(page.getByRole('alert')).toContainText('This is not a JSON file. Nothing was changed.');
  await bring('odd.json', Buffer.from(JSON.stringify({ ...data, movements: [{ ...data.movements[0], arrivals: ['h'] }] })));
  await expect(page.getByRole('alert')).toContainText('names h, which the practice chanter does not have');
  await bring('movements.json', file);
  await expect(page.getByText('2 movements added.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'lantern step', exact: true })).toBeVisible();
});

test('a built-in movement is changed for this studio, arrives where it did, and is taken back', async ({ page }) => {
  await openMovements(page);
  await page.goto('/movements/make?from=grip');
  await page.getByLabel(/^As it is written/).fill('{GdGd}A');
  await expect(page.getByRole('cell', { name: '{GdGd}B', exact: true }).first()).toBeVisible();
  await page.goto('/movements/make?from=taorluath');
  await page.getByLabel(/^As it is written/).fill('{GdGeG}A');
  await expect(page.getByRole('cell', { name: '{GdGeG}B', exact: true }).first()).toBeVisible();
  await expect(page.getByRole('cell', { name: '{GdGeG}f', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Save the change' }).click();
  await expect(page.getByRole('button', { name: /^E to B: \{GdGeG\}B/ })).toBeVisible();
  await page.getByText(/^Changed by Maren Tolvik/).click();
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByRole('button', { name: /^E to B: \{GdGe\}B/ })).toBeVisible();
});

test('one start and arrival of a built-in movement is written as the teacher wants it, and shown as the teacher’s', async ({ page }) => {
  await openMovements(page);
  await page.goto('/movements/make?from=half-doubling');
  await page.getByLabel(/^As it is written/).fill('{ce}c');
  await choose(page, 'Arrives', 'as before, except between these two notes');
  await expect(page.getByText(/^Here the rule gives \{cd\}c\. Your own version is used between these two notes/)).toBeVisible();
  await page.getByRole('button', { name: 'Save the change' }).click();
  await expect(page.getByRole('button', { name: /^E to C: \{ce\}c\..*Your own form, not the usual one/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^F to C: \{cd\}c\./ })).toBeVisible();
  await page.getByText(/^Changed by Maren Tolvik/).click();
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByRole('button', { name: /^E to C: \{cd\}c\./ })).toBeVisible();
});

test('a movement of one’s own is played on the chart; what is no element is named and nothing is lost', async ({ page }) => {
  await signIn(page, '/movements/make');
  const add = page.getByRole('button', { name: 'Add this element' });
  await page.getByRole('button', { name: 'L index, covered' }).click();
  await add.click();
  await page.getByRole('button', { name: 'L index, open' }).click();
  await add.click();
  await page.getByRole('button', { name: 'L middle, covered' }).click();
  await page.getByRole('button', { name: 'R index, covered' }).click();
  await add.click();
  await expect(page.getByRole('alert')).toContainText('Step 3 is not a note, grace note or tap');
  await page.getByRole('button', { name: 'L middle, open' }).click();
  await add.click();
  await expect(page.getByLabel(/^As it is written/)).toHaveValue('{gcd}c');
});

test('what a student has is kept, and says whether the student is ready', async ({ page }) => {
  await signIn(page, '/movements');
  await choose(page, 'Student', 'Pim');
  await choose(page, 'Instrument', 'Pim’s practice chanter');
  await choose(page, 'Movement', 'doubling');
  await page.keyboard.press('2');
  await expect(page.getByText('Pim is ready for it.')).toBeVisible();
  await choose(page, 'Movement', 'taorluath');
  await expect(page.getByText('Learn first: grip, E grace note.')).toBeVisible();
  await page.getByRole('button', { name: 'grip not yet' }).click();
  await expect(page.getByText('Learn first: E grace note.')).toBeVisible();
  await page.reload();
  await choose(page, 'Movement', 'taorluath');
  await page.keyboard.press('2');
  await expect(page.getByRole('button', { name: 'grip can play it' })).toBeVisible();
});

test('counts and syllables stand over the fingers; a beat too short for it says so, with the layers that fit', async ({ page }) => {
  await openMovements(page);
  await choose(page, 'Movement', 'crunluath');
  await choose(page, 'Length', 'a beginner: 90 ms');
  await page.keyboard.press('2');
  await choose(page, 'Tempo', '120');
  await expect(page.getByText(/^A beat at 120 is too short for this movement\./)).toBeVisible();
  await expect(page.getByText(/^The note lasts 500 ms: too short for all of it\. There is time for: bare, one grace note/)).toBeVisible();
  await choose(page, 'Tempo', '40');
  await page.getByRole('button', { name: 'Hear it with the click' }).click();
  await choose(page, 'Above the fingers', 'syllables');
  await expect(page.locator('.ms-label', { hasText: 'om' }).first()).toBeVisible();
  await choose(page, 'Movement', 'strike after a grace note');
  await page.getByRole('button', { name: /^starts before the grace note ends, element 3/ }).click();
  await page.getByRole('button', { name: /^too light, element 3/ }).click();
});

test('on a sheet a line stands at any layer, note by note; letters and syllables stand under it, on paper too', async ({ page }) => {
  await openMovements(page);
  await page.keyboard.press('3');
  await choose(page, 'Exercise', 'between these two notes');
  await page.getByRole('button', { name: /^New sheet for / }).click();
  await expect(page.locator('.line-row')).toHaveCount(1);
  const layers = page.locator('.line-layers');
  await layers.getByText('Grace notes: in full').click();
  await choose(page, 'Grace notes of note 2', 'one grace note {g}');
  await expect(layers.getByText('Grace notes: note by note')).toBeVisible();
  await page.getByRole('button', { name: 'Undo: the layers of Doubling, E to C' }).click();
  await expect(layers.getByText('Grace notes: in full')).toBeVisible();
  await page.locator('.line-layers').getByRole('button', { name: 'bare', exact: true }).click();
  await expect(layers.getByText('Grace notes: bare')).toBeVisible();
  await expect(page.locator('.save-state')).toHaveText(/^Saved/);
  await page.reload();
  await expect(page.getByText('Grace notes: bare')).toBeVisible();
  await choose(page, 'Under the notes', 'syllables');
  await expect(page.locator('.score-music text', { hasText: 'eh' }).first()).toBeVisible();
  await page.getByRole('link', { name: /On paper/ }).click();
  await expect(page.locator('svg.sheet-page text', { hasText: 'eh' }).first()).toBeVisible();
  await choose(page, 'Under the notes', 'nothing');
  await expect(page.locator('svg.sheet-page text', { hasText: /^eh$/ })).toHaveCount(0);
});

test('the movements of a tune are named where they stand; on a whistle repeated notes are parted', async ({ page }) => {
  await openTune(page, 'The Blue Wheelbarrow');
  await page.getByRole('link', { name: 'Movements' }).click();
  await expect(page.getByRole('row', { name: /bar 1, beat 1 \{gcd\}c Doubling/ })).toBeVisible();
  await openTune(page, 'The Kettle on Skellow Stair');
  await page.getByRole('link', { name: 'Movements' }).click();
  await choose(page, 'Density', 'plain: no ornaments');
  await expect(page.getByRole('row', { name: /the tongue separates it/ }).first()).toBeVisible();
  await expect(page.getByRole('row', { name: /a long roll/ })).toHaveCount(0);
  await choose(page, 'Density', 'as in a session: wherever one fits');
  await expect(page.getByRole('row', { name: /a (long|short) roll/ }).first()).toBeVisible();
});

test('a wrong start is found, counted, and written right into the text with one key; undo brings it back', async ({ page }) => {
  await signIn(page, '/tunes');
  const music = '|:g4 {gcd}c4|a4 {g}e4|d4 {GdG}e4|e4{gbd}B4|{GdGe}A4 {g}e2 {gef}e2:|';
  await pasteTune(page, `X:1\nT:Four Tin Roofs\nM:4/4\nL:1/8\nQ:1/4=60\nK:HP\n${music}\n`);
  await page.getByRole('link', { name: 'Four Tin Roofs' }).first().click();
  await page.getByRole('link', { name: 'Movements' }).click();
  const found = page.getByRole('region', { name: 'What is found' });
  await expect(found).toContainText('3 groups start wrongly for the note before.');
  await expect(page.getByRole('row', { name: /bar 1, beat 3 \{gcd\}c Doubling ▲ A wrong start/ })).toBeVisible();
  await page.keyboard.press('w');
  await expect(page.getByRole('row', { name: /bar 1, beat 3 \{acd\}c Doubling$/ })).toBeVisible();
  await expect(found).toContainText('2 groups start wrongly');
  await page.getByRole('button', { name: 'Leave e plain in bar 2, beat 3', exact: true }).last().click();
  await expect(found).toContainText('1 group starts wrongly');
  await page.getByRole('button', { name: 'Write {GBG}e in bar 3, beat 3' }).last().click();
  await expect(found).toContainText('Every note is long enough');
  await expect(found).not.toContainText('wrongly');
  await page.getByRole('button', { name: 'Write {gBd}B in bar 4, beat 3' }).last().click();
  await expect(found).toContainText('Every group of grace notes is a movement with a name.');
  await saved(page);
  await page.goto(page.url().replace(/movements$/, 'text'));
  await expect(page.getByLabel(/ABC \(standard 2\.1\)/)).toHaveValue(/\|:g4 \{acd\}c4\|a4 e4\|d4 \{GBG\}e4\|e4\{gBd\}B4\|/);
  for (let step = 0; step < 4; step += 1) await page.getByRole('button', { name: /^Undo: the grace notes in bar/ }).click();
  await expect(page.getByLabel(/ABC \(standard 2\.1\)/)).toHaveValue(new RegExp(music.replace(/[|{}]/g, '\\$&')));
  await saved(page);
});

test('a whistle has its cuts in two schools, rolls, and crans on the lowest note; a recorder has trills', async ({ page }) => {
  await signIn(page, '/movements');
  await choose(page, 'Instrument', 'whistle in D');
  await expect(page.getByRole('button', { name: 'long roll on E: R middle cuts, then R ring taps' })).toBeVisible();
  await choose(page, 'School', 'the same two fingers cut');
  await expect(page.getByRole('button', { name: 'long roll on E: L ring cuts, then R ring taps' })).toBeVisible();
  await page.getByRole('button', { name: /^short cran on D: L ring cuts, then R index cuts/ }).click();
  await expect(page.getByRole('button', { name: /^short cran on E:/ })).toHaveCount(0);
  await choose(page, 'Note', 'C');
  await choose(page, 'Cut finger', 'with L middle');
  await expect(page.getByText('Saved.').first()).toBeVisible();
  await page.getByText(/^How each is played: 0 of 10 confirmed$/).click();
  await page.getByRole('button', { name: 'Yes, so a long roll is' }).click();
  await expect(page.getByText(/^How each is played: 1 of 10 confirmed$/)).toBeVisible();
  await choose(page, 'Crans', 'on D and E');
  await expect(page.getByRole('button', { name: /^short cran on E:/ })).toBeVisible();
  await choose(page, 'Exercise', 'crans on the lowest note');
  await page.getByRole('button', { name: /^New sheet for / }).click();
  await expect(page.locator('.line-row')).not.toHaveCount(0);
  await page.goto('/movements');
  await choose(page, 'Instrument', 'soprano recorder, baroque');
  await expect(page.getByRole('button', { name: /^trill on G: / })).toHaveText('1 finger');
  await page.getByRole('button', { name: /^mordent downwards on G: / }).click();
  await page.getByRole('button', { name: 'Yes, that is how we play it' }).click();
  await expect(page.getByText(/Confirmed by Maren Tolvik/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^mordent downwards on G: / })).toHaveText(/✓$/);
});

test('a movement is played on keys and judged, element by element', async ({ page }) => {
  await openMovements(page);
  await choose(page, 'Movement', 'grip');
  await page.getByRole('button', { name: /^low A to E: \{GdG\}e/ }).click();
  await page.keyboard.press('3');
  await page.getByRole('button', { name: 'Play {GdG}e' }).click();
  await expect(page.getByText('Set your fingers for low A.')).toBeVisible();
  // Keys lift: on low A the right little finger is off.
  await page.keyboard.down(';');
  await expect(page.getByText('Now play it, and stay on the last note.')).toBeVisible();
  const [lowG, pause] = [90, 60];
  const pass = await stopClock(page);
  await page.keyboard.up(';');
  await pass(lowG);
  await page.keyboard.down('j');
  await pass(pause);
  await page.keyboard.up('j');
  await pass(lowG);
  await page.keyboard.down('s');
  await page.keyboard.down(';');
  await page.clock.resume();
  await expect(page.getByRole('status').filter({ hasText: /Go back to low A for the next one\.$/ })).toBeVisible();
  await page.keyboard.up('s');
  await expect(page.getByText('Now play it, and stay on the last note.')).toBeVisible();
  await page.keyboard.down('s');
  await expect(page.getByText(/Element 1, low G, is missing; element 2, D, is missing/)).toBeVisible();
});

test('a student’s own tablet has the movements, to hear and to play, and nothing to change them with', async ({ page, browser, baseURL }) => {
  await signIn(page, '/students');
  await page.getByRole('button', { name: 'Links for Pim' }).click();
  const address = (await page.locator('.link-address').textContent()) ?? '';
  const tablet = await (await browser.newContext({ baseURL, viewport: { width: 768, height: 1024 } })).newPage();
  await tablet.goto(address);
  await tablet.getByRole('button', { name: /Open/ }).first().click();
  await tablet.getByRole('link', { name: 'Movements' }).click();
  await choose(tablet, 'Instrument', 'Pim’s practice chanter');
  await choose(tablet, 'Movement', 'taorluath');
  await tablet.getByRole('button', { name: /at speed/ }).click();
  await tablet.keyboard.press('Space');
  await expect(tablet.getByRole('button', { name: /at 40 % of the speed/ })).toBeVisible();
  await tablet.getByRole('button', { name: /^Practise it/ }).click();
  await expect(tablet.getByRole('button', { name: /^Play \{/ })).toBeVisible();
  for (const name of ['How we play and count', 'Make your own']) await expect(tablet.getByRole('link', { name })).toHaveCount(0);
  await expect(tablet.getByRole('button', { name: /^New sheet for|^Yes, this is it/ })).toHaveCount(0);
  await tablet.goto('/movements/make');
  await expect(tablet).toHaveURL(/\/mine$/);
  await tablet.context().close();
});
