import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, signIn, test } from './as-teacher';

async function addresses(page: Page): Promise<readonly string[]> {
  return page.evaluate(async () => {
    const get = async (path: string) => (await fetch(path)).json() as Promise<{ id: string; lines: { code: string }[] }[]>;
    const [[tune], [sheet]] = await Promise.all([get('/api/tunes'), get('/api/sheets')]);
    const detail = (await (await fetch(`/api/sheets/${sheet.id}`)).json()) as { lines: { code: string }[] };
    return [
      '/tunes',
      `/tunes/${tune.id}`,
      `/tunes/${tune.id}/text`,
      `/tunes/${tune.id}/lines?ten=1`,
      '/students',
      '/sheets',
      `/sheets/${sheet.id}`,
      `/sheets/${sheet.id}/paper`,
      '/practice',
      `/c/${detail.lines[0].code}`,
      '/put-away',
      '/studio',
      '/places',
      '/nowhere-at-all',
    ];
  });
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`no view has a barrier that axe finds, ${colorScheme}`, async ({ page }) => {
    test.setTimeout(120_000);
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

test('no view is wider than a phone, a tablet or the desk', async ({ page }) => {
  test.setTimeout(120_000);
  await signIn(page);
  const all = await addresses(page);
  for (const [width, height] of [
    [390, 844],
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
