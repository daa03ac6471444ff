import type { Page } from '@playwright/test';

/** All time in scripts that each deed on a page takes, handlers and drawing together, as the browser counts it, in ms. */
export async function scriptTimes(page: Page, count: number, act: (index: number) => Promise<void>): Promise<readonly number[]> {
  const client = await page.context().newCDPSession(page);
  await client.send('Performance.enable', { timeDomain: 'timeTicks' });
  const scriptSeconds = async (): Promise<number> => {
    const { metrics } = await client.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? 0;
  };
  const times: number[] = [];
  for (let index = 0; index < count; index += 1) {
    const before = await scriptSeconds();
    await act(index);
    times.push((await scriptSeconds()) * 1000 - before * 1000);
  }
  return times;
}
