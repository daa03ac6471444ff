import { chromium, type Browser } from '@playwright/test';
import { startServer } from '../e2e/server.mjs';
import { benchCommand, medianOf, type Figure } from './measure';

interface Load {
  /** Compressed bytes over the wire, without engraver and fonts. */
  readonly own: number;
  readonly engraver: number;
  readonly fonts: number;
  /** From the start of the navigation until music, lanes and changes stand on the page, in ms. */
  readonly usable: number;
}

const rounds = 7;
const args = ['--disable-quic', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'];

/** Runs in the page: notes when music, lanes and the list of changes stand, in ms since the navigation began. */
function watchUsable(): void {
  const wanted = ['zp-score-line .score-music svg', 'zp-score-line path[stroke-linecap="round"]', '.change-button'];
  const look = (): void => {
    if (wanted.every((selector) => document.querySelector(selector) !== null)) (window as unknown as { usableAt?: number }).usableAt = performance.now();
    else requestAnimationFrame(look);
  };
  look();
}

/** Opens the tune page in a fresh browser profile with nothing but the session's cookie. */
async function loadOnce(
  browser: Browser,
  address: string,
  path: string,
  cookies: Parameters<Awaited<ReturnType<Browser['newContext']>>['addCookies']>[0],
): Promise<Load> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies(cookies);
  const page = await context.newPage();
  const client = await context.newCDPSession(page);
  await client.send('Network.enable');
  const kinds = new Map<string, string>();
  const sizes = new Map<string, number>();
  client.on('Network.responseReceived', ({ requestId, response }) => kinds.set(requestId, response.url));
  client.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => sizes.set(requestId, encodedDataLength));
  await page.addInitScript(watchUsable);
  await page.goto(`${address}${path}`, { waitUntil: 'commit' });
  const usable = await (await page.waitForFunction(() => (window as unknown as { usableAt?: number }).usableAt)).jsonValue();
  if (usable === undefined) throw new Error('The page did not say when it was usable.');
  await page.waitForLoadState('networkidle');
  const sums = { own: 0, engraver: 0, fonts: 0 };
  for (const [id, bytes] of sizes) {
    const url = kinds.get(id) ?? '';
    if (/\.(woff2?|ttf)$/.test(url)) sums.fonts += bytes;
    else if (url.endsWith('.js') && (await isEngraver(page.request, url))) sums.engraver += bytes;
    else sums.own += bytes;
  }
  await context.close();
  return { ...sums, usable };
}

async function isEngraver(request: { get(url: string): Promise<{ text(): Promise<string> }> }, url: string): Promise<boolean> {
  const text = await (await request.get(url)).text();
  return text.includes('abcjs-dragging-in-progress');
}

export async function firstLoadFigures(): Promise<readonly Figure[]> {
  const server = await startServer();
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args });
  try {
    const context = await browser.newContext();
    const page = await context.newPage();
    await page.goto(`${server.address}/sign-in`);
    await page.getByRole('button', { name: 'Sign in to the demo' }).click();
    await page.waitForURL('**/today');
    await page.goto(`${server.address}/tunes`);
    await page.getByRole('link', { name: 'The Paper Lighthouse' }).click();
    await page.waitForURL('**/tunes/*');
    const cookies = await context.cookies();
    const path = new URL(page.url()).pathname;
    const loads: Load[] = [];
    for (let round = 0; round < rounds; round += 1) loads.push(await loadOnce(browser, server.address, path, cookies));
    return figuresOf(loads);
  } finally {
    await browser.close();
    await server.stop();
  }
}

function figuresOf(loads: readonly Load[]): readonly Figure[] {
  const kilobytes = (pick: (load: Load) => number): number => medianOf(loads.map(pick)) / 1000;
  const own = kilobytes((load) => load.own);
  const usable = medianOf(loads.map((load) => load.usable));
  const size = { unit: 'kB', better: 'lower', command: benchCommand } as const;
  return [
    {
      ...size,
      name: 'first load of the tune page, signed in, cold cache, without engraver and fonts',
      median: own,
      goal: 'under 250 kB compressed',
      isMet: own < 250,
      baseline: null,
      ratio: null,
    },
    { ...size, name: 'the engraver, counted apart', median: kilobytes((load) => load.engraver), goal: 'none set', isMet: true, baseline: null, ratio: null },
    { ...size, name: 'the fonts, counted apart', median: kilobytes((load) => load.fonts), goal: 'none set', isMet: true, baseline: null, ratio: null },
    {
      name: 'the same page usable: music, lanes and changes stand',
      median: usable,
      unit: 'ms',
      goal: 'under 1000 ms',
      isMet: usable < 1000,
      better: 'lower',
      baseline: null,
      ratio: null,
      command: benchCommand,
    },
  ];
}
