import { readFile } from 'node:fs/promises';
import { choose, expect, signIn, test } from './as-teacher';

interface List<T> {
  readonly items: readonly T[];
}

test('a tempo ladder ends at a slip and stands in the log; the logbook says what moved, is corrected and saved as a table', async ({ page }) => {
  await signIn(page);
  const get = async <T>(path: string): Promise<T> => (await (await page.request.get(path)).json()) as T;
  const { items: students } = await get<List<{ id: string; alias: string }>>('/api/students');
  const pim = students.find(({ alias }) => alias === 'Pim')?.id ?? '';
  const sheets = (await get<List<{ id: string; title: string }>>(`/api/sheets?student=${pim}`)).items;
  const sheet = sheets.find(({ title }) => title === 'Ten minutes for Pim') ?? sheets[0];
  const { lines } = await get<{ lines: readonly { code: string; tempo: number | null }[] }>(`/api/sheets/${sheet.id}`);
  const code = lines.find(({ tempo }) => tempo !== null)?.code ?? '';

  await page.goto(`/c/${code}`);
  await page.getByRole('button', { name: /^Tempo ladder up to/ }).click();
  await expect(page.getByRole('list', { name: 'Tempo ladder' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'It slipped' })).toBeVisible();
  await page.keyboard.press(' ');
  await expect(page.getByText(/A slip at \d+\. Next time from \d+ again, or slower\./)).toBeVisible();
  await expect.poll(async () => (await get<List<{ note: string }>>(`/api/attempts?student=${pim}&limit=1`)).items[0].note).toBe('');

  await page.goto('/students');
  await page.getByRole('link', { name: 'Logbook of Pim' }).click();
  await expect(page.getByText(/^Moved most: .+, from \d+ to \d+\.$/)).toBeVisible();
  const tries = page.getByRole('region', { name: 'The last tries' });
  await expect(tries.getByRole('listitem').first()).toContainText('tempo ladder to');
  const first = tries.getByRole('button', { name: /: not yet$/ }).first();
  await first.click();
  await page.getByRole('menuitem', { name: 'nearly', exact: true }).click();
  await expect(tries.getByRole('listitem').first()).toContainText('(Maren Tolvik)');
  await page.keyboard.press('t');
  await expect(page.getByRole('table')).toContainText('best clean tempo');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const file = await (await download).path();
  expect((await readFile(file, 'utf8')).split('\r\n')[0]).toBe('at,title,kind,tempo,count,rating,by,seconds,device,ladder,corrected,corrected by,note');
  await choose(page, 'Student', 'Wren');
  await expect(page.getByRole('table')).toContainText('G to A');
});

test('what is practised without the server is kept and logged later', async ({ page }) => {
  await signIn(page);
  const { items } = (await (await page.request.get('/api/sheets')).json()) as List<{ id: string; title: string }>;
  // The demo's own sheet: other tests of this studio make others.
  const sheet = items.find(({ title }) => title === 'Ten minutes for Pim') ?? items[0];
  const { lines } = (await (await page.request.get(`/api/sheets/${sheet.id}`)).json()) as {
    lines: readonly { code: string; tempo: number | null }[];
  };
  await page.goto(`/c/${lines.find(({ tempo }) => tempo !== null)?.code ?? lines[0].code}`);
  await expect(page.getByRole('button', { name: /^Tempo ladder/ })).toBeVisible();
  await page.route('**/api/attempts', (route) => route.abort());
  await page.keyboard.press('t');
  await expect(page.getByRole('button', { name: 'It slipped' })).toBeVisible();
  const newest = async (): Promise<number> =>
    ((await (await page.request.get('/api/attempts?limit=20')).json()) as List<{ note: string; ladder: object | null }>).items.filter(
      ({ note, ladder }) => note === '' && ladder !== null,
    ).length;
  const before = await newest();
  const failed = page.waitForEvent('requestfailed');
  await page.keyboard.press(' ');
  await expect(page.getByText(/A slip at/)).toBeVisible();
  await failed;
  await page.unroute('**/api/attempts');
  await page.evaluate(() => window.dispatchEvent(new Event('online')));
  // Tried again by itself: once, however often it was sent.
  await expect.poll(newest).toBe(before + 1);
});

test('between two rungs of a ladder the key that starts goes on to the next one', async ({ page }) => {
  await signIn(page);
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  const { items } = (await (await page.request.get('/api/students')).json()) as List<{ id: string }>;
  const line = { home: 'b', other: 'e', repetitions: 1, tempo: 300, point: '', exercise: null };
  const sheet = { studentId: items[0].id, tuneId: null, instrument: 'practice-chanter', title: 'Very fast', note: '', lines: [line] };
  const made = await page.request.post('/api/sheets', { data: sheet, headers: { 'x-zelpit-token': token } });
  const { lines } = (await made.json()) as { lines: readonly { code: string }[] };
  await page.goto(`/c/${lines[0].code}`);
  await page.getByRole('button', { name: /^Tempo ladder up to 300/ }).click();
  const now = page.getByRole('list', { name: 'Tempo ladder' }).locator('[aria-current]');
  await expect(now).toHaveText('180');
  await expect(page.getByRole('group', { name: 'How did it go?' })).toBeVisible();
  await page.keyboard.press(' ');
  // At once, and not after the same rung was played again.
  await expect(now).toHaveText('186', { timeout: 3000 });
});
