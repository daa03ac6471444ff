import { chromium } from 'playwright';
import { startServer } from './server.mjs';
import path from 'node:path';
const body = (await import(path.resolve(process.argv[2]))).default;
const server = await startServer();
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const make = async (size = [1280, 800], theme = 'light', touch = false) => {
  const context = await browser.newContext({ viewport: { width: size[0], height: size[1] }, colorScheme: theme, hasTouch: touch, isMobile: touch });
  const page = await context.newPage();
  page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
  page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text().slice(0, 200)));
  await page.goto(server.address + '/sign-in');
  await page.getByRole('button', { name: 'Sign in to the demo' }).click();
  await page.waitForURL('**/tunes');
  return {
    page, context,
    open: (to) => page.goto(server.address + to),
    choose: async (purpose, choice) => { await page.getByRole('button', { name: `${purpose}: ` }).first().click(); await page.getByRole('menuitem', { name: choice, exact: true }).click(); },
    shot: async (name, full = false) => { await page.waitForTimeout(900); await page.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: full }); console.log('shot', name); },
  };
};
try { await body({ make, server, browser }); } catch (e) { console.log("FAILED", e.message.slice(0, 600)); } finally { await browser.close(); await server.stop?.(); process.exit(0); }
