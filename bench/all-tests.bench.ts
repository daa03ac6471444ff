import { spawn } from 'node:child_process';
import { benchCommand, type Figure } from './measure';

/** Wall time of `npm test`, once. */
export async function allTestsFigures(): Promise<readonly Figure[]> {
  const start = performance.now();
  const code = await new Promise<number | null>((resolve) => spawn('npm', ['test'], { stdio: 'ignore' }).on('exit', resolve));
  if (code !== 0) throw new Error('npm test failed; its time says nothing.');
  const seconds = (performance.now() - start) / 1000;
  return [
    {
      name: 'wall time of npm test, packages installed',
      median: seconds,
      unit: 's',
      goal: 'under 480 s',
      isMet: seconds < 480,
      better: 'lower',
      baseline: null,
      ratio: null,
      command: benchCommand,
    },
  ];
}
