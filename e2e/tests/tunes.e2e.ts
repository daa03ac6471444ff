import { expect, pasteTune, saved, signIn, test } from './as-teacher';

const mixedBook = `X:1
T:The Good One
M:2/4
L:1/8
K:HP
{g}A>c {gcd}c>e|{Gdc}d2 c2|

X:2
T:The Broken One
M:2/4
L:1/8
K:HP
{g}A>c {gcd c>e|d2 c2|
`;

test('the tunes are there, found by name', async ({ page }) => {
  await signIn(page);
  // Another test may have brought in tunes of its own.
  for (const title of ['Evening over Skellow Tarn', 'The Paper Lighthouse', 'Turf Smoke over Orrin Sound'])
    await expect(page.getByRole('link', { name: title }).first()).toBeVisible();
  await page.getByLabel('Find a tune').fill('lighth');
  const found = page.getByRole('link', { name: /bars/ });
  await expect(found.filter({ hasNotText: 'The Paper Lighthouse' })).toHaveCount(0);
  await expect(found.first()).toBeVisible();
});

test('a file with a fault: the good tune comes in, the other is named with line, character and what was expected', async ({ page }) => {
  await signIn(page);
  await pasteTune(page, mixedBook);
  await expect(page.getByText('1 tune added:')).toBeVisible();
  await expect(page.getByText('The Broken One was not saved:')).toBeVisible();
  await expect(page.getByText('Line 13, character 8: A group of grace notes starts here and is never closed.')).toBeVisible();
  await expect(page.getByText('Expected: "}" after the last grace note.')).toBeVisible();
  await expect(page.getByRole('link', { name: /The Broken One/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put away The Good One' }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeVisible();
});

test('a dropped file comes in, in the old code page too, and markup in a title stays text', async ({ page }) => {
  await signIn(page);
  const title = 'Café <script>window.hacked = true</script>';
  const bytes = [...Buffer.from(`X:1\nT:${title}\nM:4/4\nL:1/4\nK:Hp\nA c e a|\n`, 'latin1')];
  const transfer = await page.evaluateHandle((content) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(content)], 'old.abc'));
    return data;
  }, bytes);
  await page.locator('zp-tune-list').dispatchEvent('drop', { dataTransfer: transfer });
  await page.getByRole('link', { name: title }).first().click();
  await expect(page.getByRole('button', { name: `Tune: ${title}` })).toBeVisible();
  expect(await page.evaluate(() => 'hacked' in window)).toBe(false);
  await page.goto('/tunes');
  await page.getByRole('button', { name: `Put away ${title}` }).click();
});

for (const [name, text, message] of [
  ['nothing', ' ', /empty/i],
  ['no ABC at all', 'Dear teacher, the tune goes like this.', /not ABC/],
] as const) {
  test(`${name} is refused with a sentence and saves nothing`, async ({ page }) => {
    await signIn(page);
    const saved = async (): Promise<number> => ((await (await page.request.get('/api/tunes')).json()) as { items: unknown[] }).items.length;
    const before = await saved();
    await pasteTune(page, text);
    await expect(page.getByRole('alert')).toContainText(message);
    await expect(page.getByRole('alert')).toContainText('Nothing was saved.');
    expect(await saved()).toBe(before);
  });
}

test('notes that the chanter does not have are named, the rest works, and moving the key is offered', async ({ page }) => {
  await signIn(page);
  // The choices are whole once students and instruments are here.
  await page.waitForLoadState('networkidle');
  await page.getByRole('button', { name: /^Instrument: / }).click();
  await page.getByRole('menuitem', { name: 'practice chanter', exact: true }).click();
  await pasteTune(page, 'X:1\nT:Too Low\nM:4/4\nL:1/4\nK:G\nG A B c|d c B A|G2 D2|\n');
  await page.getByRole('link', { name: 'Too Low' }).first().click();
  await expect(page.getByText(/On the practice chanter: C natural cannot be played \(bar 1, beat 4\)/)).toBeVisible();
  await page.getByRole('button', { name: /^Move it to .*: all notes fit/ }).click();
  await expect(page.getByText(/^The tune is in .* now/)).toBeVisible();
  await expect(page.getByText(/On the practice chanter:/)).toHaveCount(0);
  await page.goto('/tunes');
  await page.getByRole('button', { name: 'Put away Too Low' }).click();
});

test('the text of a tune is corrected in place; a fault in it is shown and nothing is lost', async ({ page }) => {
  await signIn(page);
  await pasteTune(page, 'X:1\nT:Draft\nM:4/4\nL:1/4\nK:HP\nA c e a|\n');
  await page.getByRole('link', { name: 'Draft' }).first().click();
  await page.getByRole('link', { name: 'Text' }).click();
  const field = page.getByLabel('ABC (standard 2.1)');
  await field.fill('X:1\nT:Draft\nM:4/4\nL:1/4\nK:HP\n{g A c e a|\n');
  await expect(page.getByText(/Line 6, character 1/)).toBeVisible();
  await expect(page.locator('.save-state')).toHaveText('Not saved yet; kept in this browser');
  await field.fill('X:1\nT:Draft Two\nM:4/4\nL:1/4\nK:HP\n{g}A c e f|\n');
  await saved(page);
  await page.getByRole('link', { name: 'Back to the tune' }).click();
  await expect(page.getByRole('button', { name: 'Tune: Draft Two' })).toBeVisible();
  await page.goto('/tunes');
  await page.getByRole('button', { name: 'Put away Draft Two' }).click();
});
