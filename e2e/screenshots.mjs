import { chromium } from '@playwright/test';
import { join } from 'node:path';
import { startServer } from './server.mjs';

const folder = join(import.meta.dirname, '..', 'docs', 'screenshots');
const desk = { width: 1280, height: 800 };
const tablet = { width: 768, height: 1024 };
const phone = { width: 390, height: 844 };
const still = 700;

const server = await startServer();
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--disable-quic', '--disable-background-networking', '--no-first-run'] });

async function visitor(viewport, colorScheme) {
  const page = await (await browser.newContext({ viewport, colorScheme })).newPage();
  await page.goto(`${server.address}/sign-in`);
  await page.getByRole('button', { name: 'Sign in to the demo' }).click();
  await page.waitForURL('**/tunes');
  const places = await page.evaluate(async () => {
    const get = async (path) => (await fetch(path)).json();
    const list = async (path) => (await get(path)).items;
    const tunes = await list('/api/tunes');
    const [sheet] = await list('/api/sheets');
    const { lines } = await get(`/api/sheets/${sheet.id}`);
    return { tune: tunes.find((tune) => tune.title === 'The Blue Wheelbarrow').id, sheet: sheet.id, code: lines[0].code };
  });
  const open = async (path) => {
    await page.goto(`${server.address}${path}`);
    await page.getByRole('main').waitFor();
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(still);
  };
  return { page, places, open };
}

const shoot = (page, name, options = {}) => page.screenshot({ path: join(folder, `${name}.png`), ...options });

try {
  const maker = await visitor(desk, 'light');
  await maker.page.goto(`${server.address}/students`);
  await maker.page.getByRole('button', { name: 'Put away Wren' }).click();
  await maker.page.getByRole('button', { name: 'Undo' }).waitFor();
  const { page, places, open } = await visitor(desk, 'light');
  for (const [name, path] of [
    ['tunes', '/tunes'],
    ['tune', `/tunes/${places.tune}`],
    ['tune-text', `/tunes/${places.tune}/text`],
    ['lines', `/tunes/${places.tune}/lines?ten=1`],
    ['sheets', '/sheets'],
    ['sheet', `/sheets/${places.sheet}`],
    ['students', '/students'],
    ['places', '/places'],
    ['put-away', '/put-away'],
    ['practice', '/practice'],
    ['studio', '/studio'],
  ]) {
    await open(path);
    await shoot(page, name);
  }
  await page.addInitScript("localStorage.setItem('zelpit.chart', 'recorder-soprano-baroque'); localStorage.setItem('zelpit.model.recorder', 'yes');");
  await open('/charts');
  await page.getByRole('button', { name: 'high D', exact: true }).click();
  await page.waitForTimeout(still);
  await shoot(page, 'chart');
  await open(`/sheets/${places.sheet}`);
  const other = await page.context().newPage();
  await other.goto(page.url());
  await other.getByLabel('Words at the head of the sheet').fill('Slowly, and both hands rest between lines');
  await other.getByLabel('What to watch', { exact: true }).first().fill('little finger waits for the ring finger');
  await other.getByText(/^Saved/).waitFor();
  await page.getByLabel('Title of the sheet').fill('Week of the storm');
  await page.getByLabel('What to watch', { exact: true }).first().fill('slow and clean');
  await page.getByText('This sheet was changed elsewhere too.').waitFor();
  await shoot(page, 'two-versions');
  await page.getByRole('button', { name: 'All of theirs' }).click();
  await page.getByText(/^Saved/).waitFor();
  await other.close();
  await open(`/sheets/${places.sheet}/paper`);
  await page
    .locator('svg.sheet-page')
    .first()
    .screenshot({ path: join(folder, 'paper.png') });
  const dark = await visitor(desk, 'dark');
  await dark.open(`/tunes/${places.tune}`);
  await shoot(dark.page, 'tune-dark');
  const onTablet = await visitor(tablet, 'light');
  await onTablet.open(`/tunes/${places.tune}`);
  await shoot(onTablet.page, 'tune-tablet');
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
  const out = await browser.newContext({ viewport: desk });
  const first = await out.newPage();
  await first.goto(`${server.address}/sign-in`);
  await first.getByRole('button', { name: 'Sign in to the demo' }).waitFor();
  await first.waitForTimeout(still);
  await shoot(first, 'sign-in');
} finally {
  await browser.close();
  await server.stop();
}
