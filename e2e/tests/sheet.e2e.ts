import { readFile } from 'node:fs/promises';
import { readPdf } from './read-pdf';
import { choose, expect, lineTitles as titles, newSheet, openTune, posted, saved, signIn, test } from './as-teacher';

test('ticked changes become lines, a sheet, in another order, with counts, pace and what to watch; all is kept', async ({ page }) => {
  await newSheet(page);
  const before = await titles(page).allTextContents();

  await page.getByRole('button', { name: `Move ${before[0]} down` }).click();
  await expect(titles(page).first()).toHaveText(before[1]);
  await page.keyboard.press('k');
  await expect(titles(page).first()).toHaveText(before[0]);

  const handle = page.locator('.line-number').nth(0);
  const target = page.locator('.line-number').nth(1);
  await handle.hover();
  await page.mouse.down();
  const { x, y } = (await target.boundingBox()) ?? { x: 0, y: 0 };
  await page.mouse.move(x + 20, y + 30, { steps: 12 });
  await page.mouse.move(x + 20, y + 120, { steps: 8 });
  await page.mouse.up();
  await expect(titles(page).first()).toHaveText(before[1]);

  const after = await titles(page).allTextContents();
  expect([...after].sort()).toEqual([...before].sort());

  const first = page.locator('.line-row').first();
  await first.getByLabel(/^Lines in /).fill('5');
  await first.getByLabel('Pace').selectOption('with the click');
  await first.getByLabel(/Beats a minute for/).fill('52');
  await first.getByLabel('What to watch for').fill('little finger waits');
  await page.getByLabel('Title of the sheet').fill('Week 9');
  await saved(page);

  await page.reload();
  await expect(page.getByLabel('Title of the sheet')).toHaveValue('Week 9');
  await expect(titles(page)).toHaveText(after);
  await expect(first.getByLabel(/^Lines in /)).toHaveValue('5');
  await expect(first.getByLabel(/Beats a minute for/)).toHaveValue('52');
  await expect(first.getByLabel('What to watch for')).toHaveValue('little finger waits');
});

test('a line taken off comes back with undo; a number out of range is brought into it', async ({ page }) => {
  await newSheet(page);
  const [name] = await titles(page).allTextContents();
  await page.getByRole('button', { name: `Take ${name} off the sheet` }).click();
  await expect(titles(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo: a line taken off' }).click();
  await expect(titles(page).first()).toHaveText(name);
  await page
    .getByLabel(/^Lines in /)
    .first()
    .fill('900');
  await page.getByLabel('What to watch for').first().focus();
  await expect(page.getByLabel(/^Lines in /).first()).toHaveValue('50');
  await saved(page);
});

for (const [name, width, height] of [
  ['A4', 595, 842],
  ['Letter', 612, 792],
] as const) {
  test(`the PDF on ${name}: its size, embedded fonts, the caution, every line with its code, nothing under 11 pt`, async ({ page }) => {
    await newSheet(page);
    await page.getByLabel('What to watch for').first().fill('Žofie: malíček čeká');
    await saved(page);
    const names = await titles(page).allTextContents();
    const codes = await page.locator('.line-end a').allTextContents();
    await page.getByRole('link', { name: /On paper/ }).click();
    await page.getByRole('button', { name, exact: true }).click();
    await expect(page.getByRole('button', { name: /Save as PDF/ })).toBeEnabled();
    const staff = page.locator('svg.sheet-page .paper-staff .abcjs-staff').first();
    const [staffBox, pageBox] = [await staff.boundingBox(), await page.locator('svg.sheet-page').first().boundingBox()];
    const millimetres = ((staffBox?.height ?? 0) / (pageBox?.width ?? 1)) * (name === 'A4' ? 210 : 215.9);
    expect(millimetres).toBeGreaterThanOrEqual(7);
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /Save as PDF/ }).click()]);
    const path = await download.path();
    const pdf = await readPdf(path);
    expect(pdf.size).toEqual([width, height]);
    for (const text of [...names, ...codes, 'Stop if anything hurts, tingles or goes numb.', 'Watch for: Žofie: malíček čeká']) {
      expect(pdf.text.replace(/\s+/g, '')).toContain(text.replace(/\s+/g, ''));
    }
    expect(pdf.smallest).toBeGreaterThanOrEqual(11);
    const printed = test.info().outputPath('printed.pdf');
    await page.pdf({ path: printed, format: name });
    expect((await readPdf(printed)).pages).toBe(pdf.pages);
    const raw = (await readFile(path)).toString('latin1');
    expect(raw).toContain('/FontFile2');
    expect(raw).not.toMatch(/BaseFont\s*\/(Times|Helvetica|Courier)/);
  });
}

test('a new sheet is shown from the answer that made it, and the paper shows what is not saved yet', async ({ page }) => {
  const asked: string[] = [];
  page.on('request', (request) => {
    if (request.method() === 'GET' && /\/api\/sheets\/[^/?]+$/.test(request.url())) asked.push(request.url());
  });
  await newSheet(page);
  expect(asked).toEqual([]);
  await page.route('**/api/sheets/*', (route) => (route.request().method() === 'PUT' ? route.abort() : route.continue()));
  await page.getByLabel('Title of the sheet').fill('Before the ferry');
  await page.getByRole('link', { name: /On paper/ }).click();
  await expect(page.locator('svg.sheet-page').first()).toContainText('Before the ferry');
});

test('a line opened by its code shows the fingers of the student’s own instrument, as the sheet does', async ({ page }) => {
  await signIn(page);
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  const { items } = (await (await page.request.get('/api/instruments')).json()) as { items: { id: string; model: string; owner: { id: string } }[] };
  const own = items.find(({ model }) => model === 'practice-chanter');
  const { owner, id, ...rest } = own as { id: string; owner: { id: string } };
  const turned = await page.request.put(`/api/instruments/${id}`, { data: { ...rest, hands: 'right-on-top' }, headers: { 'x-zelpit-token': token } });
  expect(turned.status()).toBe(200);
  // A sheet of its own: what another test left with this student may be a review that was not sent, which opens elsewhere.
  const line = { kind: 'line', home: 'c', other: 'e', repetitions: 8, tempo: 60, speeds: null, point: '', exercise: null };
  const data = { studentId: owner.id, tuneId: null, instrument: 'practice-chanter', title: 'By the other hand', note: '', lines: [line] };
  const sheet = (await posted(page, '/api/sheets', data)) as { id: string };
  await page.goto(`/sheets/${sheet.id}`);
  const advice = ((await page.locator('.line-advice b').first().textContent()) ?? '').trim();
  expect(advice).not.toBe('');
  await page.locator('.line-end a').first().click();
  await expect(page.locator('.runner-advice')).toContainText(advice);
});

test('the lines go out as ABC that Zelpit reads again', async ({ page }) => {
  await newSheet(page);
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^ABC/ }).click()]);
  const abc = await readFile(await download.path(), 'utf8');
  expect(abc.match(/^X:/gm)).toHaveLength(3);
  expect(abc).toContain('K:HP');
  await page.goto('/tunes');
  await page.locator('input[type=file]').setInputFiles({ name: 'lines.abc', mimeType: 'text/plain', buffer: Buffer.from(abc) });
  await expect(page.getByText('3 tunes added:')).toBeVisible();
  const lines = page.getByRole('listitem').filter({ hasText: '4/4 · 4 bars' });
  for (let left = 3; left > 0; left -= 1) {
    await expect(lines).toHaveCount(left);
    await lines
      .first()
      .getByRole('button', { name: /^Put away/ })
      .click();
  }
  await expect(lines).toHaveCount(0);
});

test('the ten-minute sheet is one key away and says what it holds', async ({ page }) => {
  await openTune(page, 'The Paper Lighthouse');
  await page.keyboard.press('m');
  await expect(page.getByText(/lines cover \d+ of the \d+ places in the tune that can go wrong/)).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByLabel('Message at the top of the sheet')).toHaveValue(/that can go wrong/);
});

test('the code beside a line opens it with the count-in ready; one key plays it', async ({ page }) => {
  await signIn(page, '/practice');
  await page.getByLabel('Which line?').fill('0000');
  await page.getByRole('button', { name: 'Open the line' }).click();
  await expect(page.getByRole('alert')).toContainText('four letters or digits');
  await page.getByLabel('Which line?').fill('ZZZZ');
  await page.getByRole('button', { name: 'Open the line' }).click();
  await expect(page.getByRole('alert')).toContainText('No line in this studio has that code.');
  const code = await page.evaluate(async () => {
    const [sheet] = ((await (await fetch('/api/sheets')).json()) as { items: { id: string }[] }).items;
    const detail = (await (await fetch(`/api/sheets/${sheet.id}`)).json()) as { lines: { code: string }[] };
    return detail.lines[0].code;
  });
  await page.getByLabel('Which line?').fill(code.toLowerCase());
  await page.getByRole('button', { name: 'Open the line' }).click();
  await expect(page).toHaveURL(new RegExp(`/c/${code}$`));
  await expect(page.getByRole('button', { name: 'Start' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByText('count-in')).toBeVisible();
  await expect(page.locator('.runner-said').getByRole('status')).toHaveText(/^\s*1 of \d/, { timeout: 15_000 });
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Start' })).toBeVisible();
});

test('a line is practised in other fingers: so it is named and drawn on the sheet, on paper and in the runner, and so it stays', async ({ page }) => {
  await signIn(page);
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  const { items: students } = (await (await page.request.get('/api/students')).json()) as { items: { id: string }[] };
  const line = { home: 'a5', other: 'bb5', repetitions: 8, tempo: null, point: '' };
  const sheet = { studentId: students[0].id, tuneId: null, instrument: 'recorder-soprano-baroque', title: 'Both B flats', note: '', lines: [line, line] };
  const made = await page.request.post('/api/sheets', { data: sheet, headers: { 'x-zelpit-token': token } });
  const { id, lines } = (await made.json()) as { id: string; lines: { code: string }[] };
  await page.goto(`/sheets/${id}`);
  const figures = page.locator('.line-figure');
  const usual = await figures.nth(1).innerHTML();
  await choose(page, 'Fingers for B flat', 'thumb, left index, ring, right middle and ring down');
  await expect(titles(page)).toHaveText(['A to B flat (fingering 2)', 'A to B flat']);
  expect(await figures.nth(1).innerHTML()).toBe(usual);
  expect(await figures.nth(0).innerHTML()).not.toBe(usual);
  await saved(page);
  await page.getByRole('button', { name: /^Undo: the fingers of/ }).click();
  await expect(titles(page)).toHaveText(['A to B flat', 'A to B flat']);
  await page.getByRole('button', { name: /^Redo: the fingers of/ }).click();
  await saved(page);
  await page.reload();
  await expect(titles(page)).toHaveText(['A to B flat (fingering 2)', 'A to B flat']);
  await page.getByRole('link', { name: /On paper/ }).click();
  await expect(page.locator('svg.sheet-page').first()).toContainText('A to B flat (fingering 2)');
  const drawn: string[] = [];
  for (const { code } of lines) {
    await page.goto(`/c/${code}`);
    await expect(page.getByRole('img', { name: 'Finger lanes of A and B flat' })).toBeVisible();
    drawn.push(await page.locator('g[zpLanes]').first().innerHTML());
  }
  expect(drawn[0]).not.toBe(drawn[1]);
});
