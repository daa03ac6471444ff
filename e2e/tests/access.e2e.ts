import axe from 'axe-core';
import type { Locator, Page } from '@playwright/test';
import { choose, expect, signIn, test } from './as-teacher';
import { neverSaidAt, pipingWords, saidBy, wronglySaid } from './words-of-pages';

async function addresses(page: Page): Promise<readonly string[]> {
  return page.evaluate(async () => {
    const list = async (path: string) => ((await (await fetch(path)).json()) as { items: { id: string; isReview?: boolean }[] }).items;
    const [[tune], sheets, [student]] = await Promise.all([list('/api/tunes'), list('/api/sheets'), list('/api/students')]);
    const [sheet, review] = [sheets.find(({ isReview }) => !isReview), sheets.find(({ isReview }) => isReview)];
    if (sheet === undefined || review === undefined) throw new Error('The demo has no sheet or no review.');
    const [lesson] = (await (await fetch('/api/lessons')).json()) as { id: string }[];
    const detail = (await (await fetch(`/api/sheets/${sheet.id}`)).json()) as { lines: { code: string }[] };
    return [
      '/today',
      `/lessons/${lesson.id}`,
      '/tunes',
      `/tunes/${tune.id}`,
      `/tunes/${tune.id}/text`,
      `/tunes/${tune.id}/lines?ten=1`,
      `/tunes/${tune.id}/movements`,
      `/tunes/${tune.id}/bars/1-1`,
      `/tunes/${tune.id}/bars/1-1/paper`,
      `/tunes/${tune.id}/arrange`,
      `/tunes/${tune.id}/along`,
      `/tunes/${tune.id}/take`,
      `/tunes/${tune.id}/about`,
      `/tunes/${tune.id}/new`,
      `/tunes/${tune.id}/paper`,
      '/tunes/next',
      '/charts',
      '/charts/proof',
      '/charts/finder',
      '/changes',
      '/changes/lines',
      '/changes/ear',
      '/changes/take',
      '/changes/held',
      '/changes/keys',
      '/changes/hunt',
      '/movements',
      '/movements/make',
      '/movements/ways',
      '/charts/handout',
      '/charts/compare',
      '/charts/calibrate',
      '/instruments',
      '/workshop',
      '/students',
      `/students/${student.id}/logbook`,
      '/sheets',
      `/sheets/${sheet.id}`,
      `/sheets/${sheet.id}/paper`,
      `/reviews/${review.id}`,
      `/reviews/${review.id}/paper`,
      '/practice',
      `/c/${detail.lines[0].code}`,
      `/c/${detail.lines[0].code}/take`,
      '/put-away',
      '/studio',
      '/teachers',
      '/deeds',
      '/archive',
      '/mine',
      '/mine/logbook',
      '/takes',
      '/outbox',
      '/new-studio',
      '/new-password',
      '/link#no-such-link-at-all',
      '/places',
      '/nowhere-at-all',
    ];
  });
}

/** What moves by itself on the page, for longer than a moment. */
const moving = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() =>
    document
      .getAnimations()
      .filter((each) => Number(each.effect?.getComputedTiming().duration ?? 0) > 1)
      .map((each) => String((each.effect as KeyframeEffect).target?.className)),
  );

/** Another theme changes nothing but colours. */
const colourRules = ['color-contrast', 'link-in-text-block'];
/** A phone, a tablet, the desk, and the desk at 200 % zoom. */
const sizes = [
  [1280, 800],
  [768, 1024],
  [640, 400],
  [390, 844],
] as const;

interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly target: readonly unknown[] }[];
}

/** What axe finds on the page; its source is given to each page once. */
async function barriers(page: Page, address: string, rules?: readonly string[]): Promise<readonly string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const violations = await page.evaluate(async (only): Promise<readonly Violation[]> => {
    const { axe } = window as unknown as { readonly axe: { run: (options: object) => Promise<{ violations: readonly Violation[] }> } };
    // Of what is well nothing is asked, and no rule here looks into style sheets.
    return (await axe.run({ resultTypes: ['violations'], preload: false, ...(only !== undefined && { runOnly: only }) })).violations;
  }, rules);
  const place = (nodes: Violation['nodes']): string =>
    nodes
      .slice(0, 3)
      .map((node) => node.target.join(' '))
      .join(' | ');
  return violations.map((each) => `${address}: ${each.id}, ${place(each.nodes)}`);
}

/**
 * Buttons, links and fields of one name on a page, or without any; links of one name that lead to one place are one. Names are those that a screen reader says. Needs
 * axe on the page.
 */
const namesakes = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    interface Axe {
      readonly setup: () => void;
      readonly teardown: () => void;
      readonly commons: { readonly text: { readonly accessibleText: (element: Element) => string } };
    }
    const { axe } = window as unknown as { readonly axe: Axe };
    axe.setup();
    const controls = [...document.querySelectorAll<HTMLElement>('button, a[href], input:not([type=hidden]), select, textarea, [role=button], summary')];
    const seen = controls.filter((each) => each.checkVisibility());
    const named = seen.map((each) => ({ name: axe.commons.text.accessibleText(each).trim(), to: each.getAttribute('href') ?? '' }));
    axe.teardown();
    const places = new Map<string, number>();
    const single = named.filter(({ name, to }, at) => to === '' || named.findIndex((other) => other.name === name && other.to === to) === at);
    for (const { name } of single) places.set(name, (places.get(name) ?? 0) + 1);
    return [...places].filter(([name, count]) => name === '' || count > 1).map(([name, count]) => `${count} controls are called “${name}”`);
  });

/** Everything that is asked of a view, on one visit: its names and words, axe in the light and in the dark, nothing that moves, and no width that it does not fit. */
async function faultsOf(page: Page, address: string): Promise<readonly string[]> {
  const faults = [...(await barriers(page, address)), ...(await moving(page)).map((each) => `${address}: ${each} moves`)];
  faults.push(...[...(await namesakes(page)), ...wronglySaid(await saidBy(page), neverSaidAt(address))].map((each) => `${address}: ${each}`));
  await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
  faults.push(...(await barriers(page, `${address} in the dark`, colourRules)));
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  for (const [width, height] of sizes) {
    await page.setViewportSize({ width, height });
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth), { message: `${address} at ${width}`, timeout: 3000 })
      .toBeLessThanOrEqual(width);
  }
  await page.setViewportSize({ width: sizes[0][0], height: sizes[0][1] });
  return faults;
}

test.describe('every view', () => {
  test.describe.configure({ mode: 'parallel' });
  const parts = 4;
  for (let part = 0; part < parts; part += 1) {
    test(`has no barrier that axe finds in either theme, does not move for who asked for less, and fits every width (part ${part + 1} of ${parts})`, async ({
      page,
    }) => {
      test.setTimeout(240_000);
      await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
      const found: string[] = [];
      if (part === 0) {
        await page.goto('/sign-in');
        await expect(page.getByRole('button', { name: 'Sign in to the demo' })).toBeVisible();
        found.push(...(await faultsOf(page, 'sign-in')));
      }
      await signIn(page);
      for (const address of (await addresses(page)).filter((_, index) => index % parts === part)) {
        await page.goto(address);
        await expect(page.getByRole('main')).toBeVisible();
        await expect(page.locator('[role=status]', { hasText: '…' })).toHaveCount(0);
        found.push(...(await faultsOf(page, address)));
      }
      expect(found).toEqual([]);
    });
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
  // The day comes first; from there to the tunes.
  await expect(page.getByRole('list', { name: 'Lessons of the day' })).toBeVisible();
  await tabTo(page, page.getByRole('link', { name: 'Tunes', exact: true }).first());
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
  await page.keyboard.press('n');
  const title = page.getByLabel('Title of the sheet');
  await expect(title).toBeVisible();
  const [first] = await page.locator('.line-row .line-title').allTextContents();
  await page.keyboard.press('j');
  await expect(page.locator('.line-row .line-title').nth(1)).toHaveText(first);
  await tabTo(page, title);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('By keyboard');
  await tabTo(page, page.getByLabel(/^What to watch for/).first());
  await page.keyboard.type('slowly');
  await expect(page.locator('.save-state')).toHaveText(/^Saved/);
  await tabTo(page, page.getByRole('link', { name: /On paper/ }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /Save as PDF/ })).toBeEnabled();
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('d')]);
  expect(download.suggestedFilename()).toBe('By keyboard.pdf');
});

test('a recorder player’s pages use no words of the pipes', async ({ page }) => {
  await signIn(page, '/tunes');
  await choose(page, 'Student', 'Oda');
  for (const address of ['/tunes', '/changes', '/movements', '/charts', '/changes/lines']) {
    await page.goto(address);
    await expect(page.getByRole('main')).toBeVisible();
    if (address === '/tunes') await page.getByRole('button', { name: 'Paste ABC' }).click();
    expect(wronglySaid(await saidBy(page), pipingWords)).toEqual([]);
  }
});
