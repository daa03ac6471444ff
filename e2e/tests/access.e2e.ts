import AxeBuilder from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
import { expect, signIn, test } from './as-teacher';

async function addresses(page: Page): Promise<readonly string[]> {
  return page.evaluate(async () => {
    const list = async (path: string) => ((await (await fetch(path)).json()) as { items: { id: string }[] }).items;
    const [[tune], [sheet]] = await Promise.all([list('/api/tunes'), list('/api/sheets')]);
    const detail = (await (await fetch(`/api/sheets/${sheet.id}`)).json()) as { lines: { code: string }[] };
    return [
      '/tunes',
      `/tunes/${tune.id}`,
      `/tunes/${tune.id}/text`,
      `/tunes/${tune.id}/lines?ten=1`,
      '/charts',
      '/charts/proof',
      '/charts/finder',
      '/changes',
      '/changes/lines',
      '/changes/ear',
      '/changes/keys',
      '/changes/hunt',
      '/movements',
      '/charts/handout',
      '/charts/compare',
      '/charts/calibrate',
      '/instruments',
      '/workshop',
      '/students',
      '/sheets',
      `/sheets/${sheet.id}`,
      `/sheets/${sheet.id}/paper`,
      '/practice',
      `/c/${detail.lines[0].code}`,
      '/put-away',
      '/studio',
      '/teachers',
      '/deeds',
      '/archive',
      '/mine',
      '/outbox',
      '/new-studio',
      '/new-password',
      '/link#no-such-link-at-all',
      '/places',
      '/nowhere-at-all',
    ];
  });
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`no view has a barrier that axe finds, ${colorScheme}`, async ({ page }) => {
    test.setTimeout(400_000);
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await page.goto('/sign-in');
    await expect(page.getByRole('button', { name: 'Sign in to the demo' })).toBeVisible();
    expect((await new AxeBuilder({ page }).analyze()).violations.map((each) => `sign-in: ${each.id} ${each.nodes[0].html}`)).toEqual([]);
    await signIn(page);
    const found: string[] = [];
    for (const address of await addresses(page)) {
      await page.goto(address);
      await expect(page.getByRole('main')).toBeVisible();
      await expect(page.locator('[role=status]', { hasText: '…' })).toHaveCount(0);
      const { violations } = await new AxeBuilder({ page }).analyze();
      found.push(
        ...violations.map(
          (each) =>
            `${address}: ${each.id}, ${each.nodes
              .map((node) => node.target.join(' '))
              .slice(0, 3)
              .join(' | ')}`,
        ),
      );
    }
    expect(found).toEqual([]);
  });
}

test('no view is wider than a phone, a tablet, the desk, or the desk at 200 % zoom', async ({ page }) => {
  test.setTimeout(400_000);
  await signIn(page);
  const all = await addresses(page);
  for (const [width, height] of [
    [390, 844],
    // The desk at 200 % zoom.
    [640, 400],
    [768, 1024],
    [1280, 800],
  ]) {
    await page.setViewportSize({ width, height });
    for (const address of all) {
      await page.goto(address);
      await expect(page.getByRole('main')).toBeVisible();
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide, `${address} at ${width}`).toBeLessThanOrEqual(width);
    }
  }
});

/** Presses Tab until the thing has the focus, as somebody without a mouse does. */
async function tabTo(page: Page, wanted: Locator): Promise<void> {
  for (let presses = 0; presses < 120; presses += 1) {
    if (await wanted.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('The focus never came there.');
}

test('the whole main job is done by keyboard: from signing in to the PDF', async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto('/sign-in');
  await tabTo(page, page.getByLabel('E-mail address'));
  await page.keyboard.type('maren@orrin-stair.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('clean and slow');
  await page.keyboard.press('Enter');
  const tune = page.getByRole('link', { name: 'The Blue Wheelbarrow' });
  await expect(tune).toBeVisible();
  await tabTo(page, tune);
  await page.keyboard.press('Enter');
  await expect(page.locator('zp-score-line .score-music svg').first()).toBeVisible();
  await page.keyboard.press('c');
  await expect(page.getByRole('button', { name: /Stop/ })).toBeVisible();
  await page.keyboard.press('Space');
  await page.keyboard.press('t');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('t');
  await page.keyboard.press('l');
  await expect(page.locator('.line-row')).toHaveCount(2);
  await page.keyboard.press('s');
  const title = page.getByLabel('Title of the sheet');
  await expect(title).toBeVisible();
  const [first] = await page.locator('.line-row .line-title').allTextContents();
  await page.keyboard.press('j');
  await expect(page.locator('.line-row .line-title').nth(1)).toHaveText(first);
  await tabTo(page, title);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('By keyboard');
  await tabTo(page, page.getByLabel('What to watch', { exact: true }).first());
  await page.keyboard.type('slowly');
  await expect(page.locator('.save-state')).toHaveText(/^Saved/);
  await tabTo(page, page.getByRole('link', { name: /On paper/ }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /Save as PDF/ })).toBeEnabled();
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('s')]);
  expect(download.suggestedFilename()).toBe('By keyboard.pdf');
});

test('nothing moves by itself for who asked for less motion', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await signIn(page);
  for (const address of await addresses(page)) {
    await page.goto(address);
    await expect(page.getByRole('main')).toBeVisible();
    const moving = await page.evaluate(() =>
      document
        .getAnimations()
        .filter((each) => Number(each.effect?.getComputedTiming().duration ?? 0) > 1)
        .map((each) => (each.effect as KeyframeEffect).target?.className),
    );
    expect(moving, address).toEqual([]);
  }
});
