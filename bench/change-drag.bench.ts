import { chromium, type Page } from '@playwright/test';
import { startServer } from '../e2e/server.mjs';
import { benchCommand, type Figure } from './measure';
import { scriptTimes } from './script-times';

const moves = 160;
const warmUp = 20;
const args = ['--disable-quic', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'];

/** Moves a finger of the change back and forth: ms of each handler with the drawing that follows from it, until the picture is another. */
async function dragTimes(page: Page, count: number): Promise<readonly number[]> {
  return page.evaluate(async (times) => {
    const svg = document.querySelector('.change-lanes') as SVGSVGElement;
    const knob = svg.querySelector('.moment') as SVGGElement;
    const box = (knob.querySelector('circle') as SVGCircleElement).getBoundingClientRect();
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    const event = (type: string, clientX: number): PointerEvent => new PointerEvent(type, { bubbles: true, clientX, clientY: y, pointerId: 1 });
    knob.dispatchEvent(event('pointerdown', x));
    const found: number[] = [];
    for (let index = 0; index < times; index += 1) {
      const before = knob.getAttribute('aria-valuetext');
      const begin = performance.now();
      svg.dispatchEvent(event('pointermove', x + 12 + 90 * Math.sin(index)));
      const handled = performance.now() - begin;
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      if (knob.getAttribute('aria-valuetext') === before && index > 0) continue;
      found.push(handled);
    }
    svg.dispatchEvent(event('pointerup', x));
    return found;
  }, count);
}

/** Moves the finger that has the focus back and forth by keys, and makes sure that it moved. */
async function nudge(page: Page, index: number): Promise<void> {
  const text = (): Promise<string | null> => page.evaluate(() => document.activeElement?.getAttribute('aria-valuetext') ?? null);
  const before = index === 0 ? await text() : null;
  await page.evaluate(
    (key) =>
      new Promise<void>((resolve) => {
        document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
        requestAnimationFrame(() => requestAnimationFrame(() => resolve()));
      }),
    index % 8 < 4 ? 'ArrowRight' : 'ArrowLeft',
  );
  if (index === 0 && (await text()) === before) throw new Error('The finger did not move.');
}

const p95 = (values: readonly number[]): number => [...values].sort((one, other) => one - other)[Math.floor(0.95 * (values.length - 1))];

/** A finger of the change that moves most fingers, dragged in time. */
export async function changeDragFigures(): Promise<readonly Figure[]> {
  const server = await startServer();
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${server.address}/sign-in`);
    await page.getByRole('button', { name: 'Sign in to the demo' }).click();
    await page.waitForURL('**/today');
    await page.goto(`${server.address}/changes?from=c&to=high-a`);
    await page.getByRole('button', { name: /^Instrument: / }).click();
    await page.getByRole('menuitem', { name: 'practice chanter', exact: true }).click();
    await page.getByRole('button', { name: /^C to high A, .* hard$/ }).waitFor();
    await dragTimes(page, warmUp);
    const handled = p95(await dragTimes(page, moves));
    await page.locator('.moment').first().focus();
    await scriptTimes(page, warmUp, (index) => nudge(page, index));
    const script = p95(await scriptTimes(page, moves, (index) => nudge(page, index)));
    const common = { unit: 'ms', better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
    return [
      { ...common, name: 'a finger dragged in time: handler, 95th percentile', median: handled, goal: 'p95 under 8 ms', isMet: handled < 8 },
      { ...common, name: 'a finger dragged in time: all script with the drawing, 95th percentile', median: script, goal: 'p95 under 8 ms', isMet: script < 8 },
    ];
  } finally {
    await browser.close();
    await server.stop();
  }
}
