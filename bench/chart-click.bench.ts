import { chromium, type Page } from '@playwright/test';
import { startServer } from '../e2e/server.mjs';
import { benchCommand, medianOf, type Figure } from './measure';
import { scriptTimes } from './script-times';

const clicks = 80;
const warmUp = 8;
const args = ['--disable-quic', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'];

/** Clicks one hole after another in the page: ms from each click to the first task after the frame in which the answer is another. */
async function clickHoles(page: Page, count: number): Promise<readonly number[]> {
  return page.evaluate(async (times) => {
    const answer = (): string => document.querySelector('zp-any-fingers [role="status"]')?.textContent ?? '';
    const holes = Array.from(document.querySelectorAll<SVGGElement>('zp-holes g.hole'));
    const found: number[] = [];
    for (let index = 0; index < times; index += 1) {
      const before = answer();
      const start = performance.now();
      holes[(index * 3) % holes.length].dispatchEvent(new MouseEvent('click', { bubbles: true }));
      for (let frame = 0; frame < 30; frame += 1) {
        await new Promise((resolve) => requestAnimationFrame(resolve));
        await new Promise<void>((resolve) => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => resolve();
          port2.postMessage(0);
        });
        if (answer() !== before) break;
      }
      if (answer() === before) throw new Error('The answer stayed the same.');
      found.push(performance.now() - start);
    }
    return found;
  }, count);
}

/** Clicks one hole after another. */
const clickHole =
  (page: Page) =>
  async (index: number): Promise<void> =>
    page.evaluate(
      (hole) =>
        new Promise<void>((resolve) => {
          const holes = document.querySelectorAll('zp-holes g.hole');
          holes[hole % holes.length].dispatchEvent(new MouseEvent('click', { bubbles: true }));
          requestAnimationFrame(() => requestAnimationFrame(() => resolve()));
        }),
      index * 3,
    );

/** A hole clicked on the chart of a recorder, the flue with most patterns, until its answer is painted. */
export async function chartClickFigures(): Promise<readonly Figure[]> {
  const server = await startServer();
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${server.address}/sign-in`);
    await page.getByRole('button', { name: 'Sign in to the demo' }).click();
    await page.waitForURL('**/today');
    await page.goto(`${server.address}/charts`);
    await page.getByRole('button', { name: /^Student: / }).click();
    await page.getByRole('menuitem', { name: 'Oda' }).click();
    await page.getByRole('button', { name: 'Instrument: Oda’s soprano' }).waitFor();
    await clickHoles(page, warmUp);
    const painted = await clickHoles(page, clicks);
    await scriptTimes(page, warmUp, clickHole(page));
    const script = [...(await scriptTimes(page, clicks, clickHole(page)))].sort((one, other) => one - other);
    return figuresOf(medianOf(painted), script[Math.floor(0.95 * (script.length - 1))]);
  } finally {
    await browser.close();
    await server.stop();
  }
}

function figuresOf(painted: number, handled: number): readonly Figure[] {
  const common = { unit: 'ms', better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
  return [
    { ...common, name: 'a hole clicked on the recorder’s chart until its answer is painted', median: painted, goal: 'median under 33 ms', isMet: painted < 33 },
    { ...common, name: 'all script of such a click, 95th percentile', median: handled, goal: 'p95 under 8 ms', isMet: handled < 8 },
  ];
}
