import { chromium } from '@playwright/test';
import { join } from 'node:path';
import { playedTake } from './played-take.mjs';
import { startServer } from './server.mjs';

const folder = join(import.meta.dirname, '..', 'docs', 'screenshots');
const desk = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };
const still = 700;

const server = await startServer();
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--disable-quic', '--disable-background-networking', '--no-first-run'] });

async function visitor(viewport, colorScheme) {
  const page = await (await browser.newContext({ viewport, colorScheme })).newPage();
  // What the lanes mean was read and closed.
  await page.addInitScript("localStorage.setItem('zelpit.lanes', 'known')");
  await page.goto(`${server.address}/sign-in`);
  await page.getByRole('button', { name: 'Sign in to the demo' }).click();
  await page.waitForURL('**/today');
  const places = await page.evaluate(async () => {
    const get = async (path) => (await fetch(path)).json();
    const list = async (path) => (await get(path)).items;
    const tunes = await list('/api/tunes');
    const sheet = (await list('/api/sheets')).find(({ title }) => title === 'Ten minutes for Pim');
    const { lines } = await get(`/api/sheets/${sheet.id}`);
    const idOf = (title) => tunes.find((tune) => tune.title === title).id;
    return {
      tune: idOf('The Blue Wheelbarrow'),
      march: idOf('The Paper Lighthouse'),
      hymn: idOf('Hymn for the Lamplighter'),
      song: idOf('Owl on the Gatepost'),
      sheet: sheet.id,
      pim: (await list('/api/students')).find(({ alias }) => alias === 'Pim').id,
      code: lines[0].code,
    };
  });
  const open = async (path) => {
    await page.goto(`${server.address}${path}`);
    await page.getByRole('main').waitFor();
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(still);
  };
  // Whose chanter it is: of the student who plays one.
  await open('/changes');
  await page.getByRole('button', { name: /^Student: / }).click();
  await page.getByRole('menuitem', { name: 'Pim', exact: true }).click();
  return { page, places, open };
}

const shoot = (page, name, options = {}) => page.screenshot({ path: join(folder, `${name}.png`), ...options });

try {
  const { page, places, open } = await visitor(desk, 'light');
  for (const [name, path] of [
    ['tune', `/tunes/${places.tune}`],
    ['sheet', `/sheets/${places.sheet}`],
  ]) {
    await open(path);
    await shoot(page, name);
  }
  const choose = async (purpose, name) => {
    await page
      .getByRole('button', { name: new RegExp(`^${purpose}: `) })
      .first()
      .click();
    await page.getByRole('menuitem', { name, exact: true }).click();
  };
  await open('/changes');
  await choose('Student', 'Pim');
  await page.waitForTimeout(3000);
  await page.getByRole('button', { name: /^B to E,/ }).click();
  await page.keyboard.press('f');
  await page.evaluate('window.scrollTo(0, 0)');
  await page.waitForTimeout(still);
  await shoot(page, 'changes');
  await open(`/students/${places.pim}/logbook`);
  await shoot(page, 'logbook');
  await open('/today');
  await page.getByText('Moved most').waitFor();
  await shoot(page, 'today');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/lessons/*');
  await page.locator('.lesson-item svg').first().waitFor();
  for (const key of ['1', '1', '4', '2', '1']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(still / 2);
  }
  await page.getByText('3 of 5 clean').waitFor();
  await shoot(page, 'lesson');
  await page.getByRole('button', { name: 'End and review' }).click();
  await page.waitForURL('**/reviews/*');
  await page.locator('.review-items > li').first().waitFor();
  await page.waitForTimeout(still);
  await shoot(page, 'review');
  await page.keyboard.press('Control+Enter');
  await page.getByText(/Sent at/).waitFor();
  await page.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('p');
  await page.locator('svg.sheet-page').first().waitFor();
  await page.waitForTimeout(2 * still);
  await page
    .locator('svg.sheet-page')
    .first()
    .screenshot({ path: join(folder, 'review-paper.png') });
  await open(`/tunes/${places.march}/bars/2-2`);
  await page.waitForTimeout(2 * still);
  await shoot(page, 'chunk');
  await open('/movements');
  await choose('Movement', 'taorluath');
  await page.getByRole('button', { name: /^E to low A: / }).click();
  await page.keyboard.press('2');
  await page.waitForTimeout(2 * still);
  await shoot(page, 'movement');
  await open(`/tunes/${places.hymn}/arrange`);
  await choose('Student', 'Wren');
  await page.getByRole('button', { name: 'Try it' }).click();
  await page.getByRole('button', { name: 'a few' }).click();
  await page.waitForTimeout(2 * still);
  await shoot(page, 'arrange');
  await open('/tunes/next');
  await choose('Student', 'Oda');
  await page.getByText('One new note opens').waitFor();
  await page.waitForTimeout(still);
  await shoot(page, 'next-tunes');
  await page.evaluate("localStorage.setItem('zelpit.words', 'letters')");
  await open(`/tunes/${places.song}/paper`);
  await page.waitForTimeout(2 * still);
  await page
    .locator('svg.sheet-page')
    .first()
    .screenshot({ path: join(folder, 'tune-paper.png') });
  await page.evaluate("localStorage.removeItem('zelpit.words')");
  await open('/charts');
  await choose('Student', 'Oda');
  await page.getByRole('button', { name: 'high D', exact: true }).click();
  await page.waitForTimeout(still);
  await shoot(page, 'chart');
  await open('/workshop');
  await page.getByRole('button', { name: 'Copy it' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Tarn chanter');
  await page.getByLabel('Name', { exact: true }).press('Tab');
  await page.getByText(/^Saved/).waitFor();
  await page.waitForTimeout(still);
  await shoot(page, 'workshop');
  // Kept before the page is left: else the next one says that it was.
  const kept = page.waitForResponse((response) => response.request().method() === 'PUT' && response.url().includes('/api/models/'));
  await page.getByRole('button', { name: 'Undo' }).click();
  await kept;
  await open(`/sheets/${places.sheet}/paper`);
  await page
    .locator('svg.sheet-page')
    .first()
    .screenshot({ path: join(folder, 'paper.png') });
  await open('/changes/take?from=b&to=e');
  await choose('Student', 'Pim');
  await page.locator('#take-file').setInputFiles({ name: 'B to E.wav', mimeType: 'audio/wav', buffer: await playedTake() });
  await page.getByRole('status', { name: 'What was heard' }).waitFor();
  await page.waitForTimeout(still);
  await shoot(page, 'take');
  for (const colorScheme of ['light', 'dark']) {
    const runner = await visitor(phone, colorScheme);
    await runner.open(`/c/${places.code}`);
    if (colorScheme === 'dark') {
      await runner.page.keyboard.press('Space');
      await runner.page.locator('.runner-said', { hasText: /1 of \d/ }).waitFor({ timeout: 15_000 });
      await runner.page.waitForTimeout(1300);
    }
    await shoot(runner.page, `runner-${colorScheme}`);
  }
} finally {
  await browser.close();
  await server.stop();
}
