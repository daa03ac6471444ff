import { cpus } from 'node:os';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { acousticFigures } from './acoustics.bench';
import { allTestsFigures } from './all-tests.bench';
import { changeFigures } from './changes.bench';
import { firstLoadFigures } from './first-load.bench';
import { killFigures } from './kill.bench';
import { loadFigures } from './load.bench';
import type { Figure } from './measure';
import { soundFigures } from './sound.bench';

const folder = import.meta.dirname;
/** `--quick` leaves out what takes minutes and keeps its figures from the run before. */
const isQuick = process.argv.includes('--quick');

const digits = (value: number): string => (value >= 100 ? value.toFixed(0) : value.toPrecision(3));

function table(figures: readonly Figure[]): string {
  const rows = figures.map((each) => {
    const baseline = each.baseline === null ? '' : `${each.baseline.name}: ${digits(each.baseline.median)}`;
    return `| ${each.name} | ${digits(each.median)} ${each.unit} | ${each.goal} | ${each.isMet ? 'yes' : 'NO'} | ${baseline} | ${each.ratio === null ? '' : digits(each.ratio)} |`;
  });
  return ['| what | median | goal | met | baseline in the same run | ratio |', '| --- | --- | --- | --- | --- | --- |', ...rows].join('\n');
}

async function earlier(names: RegExp): Promise<readonly Figure[]> {
  const text = await readFile(join(folder, 'results.json'), 'utf8').catch(() => '[]');
  return (JSON.parse(text) as Figure[]).filter((each) => names.test(each.name));
}

const figures: Figure[] = [...changeFigures(), ...acousticFigures(), ...soundFigures(), ...(await firstLoadFigures())];
figures.push(
  ...(isQuick ? await earlier(/SIGKILL|a kill|of a save|npm test/) : [...(await killFigures()), ...(await loadFigures()), ...(await allTestsFigures())]),
);
const day = new Date().toISOString().slice(0, 10);
const head = `# Measured\n\nWritten by \`npm run bench\` on ${day}, Node ${process.versions.node}, ${cpus().length} cores. Medians; a ratio is the figure over its baseline, both from the same run.\n`;
await writeFile(join(folder, 'RESULTS.md'), `${head}\n${table(figures)}\n`);
await writeFile(join(folder, 'results.json'), `${JSON.stringify(figures, null, 2)}\n`);
process.stdout.write(`${table(figures)}\n`);
process.exitCode = figures.every((each) => each.isMet) ? 0 : 1;
