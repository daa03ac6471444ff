import { cpus } from 'node:os';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

import { acousticFigures } from './acoustics.bench';
import { allTestsFigures } from './all-tests.bench';
import { arrangingFigures } from './arranging.bench';
import { changeFigures } from './changes.bench';
import { changeDragFigures } from './change-drag.bench';
import { chartClickFigures } from './chart-click.bench';
import { firstLoadFigures } from './first-load.bench';
import { killFigures } from './kill.bench';
import { listeningFigures, synthesizerFigures } from './listening.bench';
import { lackedBySynthesizer } from './listening/synthesizer';
import { loadFigures } from './load.bench';
import type { Figure } from './measure';
import { movementFigures } from './movements.bench';
import { playerFigures } from './players.bench';
import { studioFigures } from './studios.bench';
import { practiceFigures } from './practice.bench';
import { clickFigures } from './click.bench';
import { soundFigures } from './sound.bench';
import { timingFigures } from './timing.bench';
import { tuneFigures } from './tunes.bench';

const folder = import.meta.dirname;

/** What can be measured, by its name; `figures` says which of the written figures are its own, `lacks` what this machine lacks for it. */
const groups: readonly {
  readonly name: string;
  readonly measure: () => readonly Figure[] | Promise<readonly Figure[]>;
  readonly figures: RegExp;
  readonly lacks?: () => string | undefined;
}[] = [
  { name: 'changes', measure: changeFigures, figures: /^changes of/ },
  { name: 'acoustics', measure: acousticFigures, figures: /patterns of the practice chanter|recorder, \d forks|chanters hidden|one such fit/ },
  { name: 'timing', measure: timingFigures, figures: /map of 72|closed form|path finder/ },
  { name: 'players', measure: playerFigures, figures: /simulated (listeners|players)/ },
  { name: 'movements', measure: movementFigures, figures: /of one movement|^(?!listening|a synthesizer).*grace notes of/ },
  { name: 'sound', measure: soundFigures, figures: /minute of sound/ },
  { name: 'page', measure: firstLoadFigures, figures: /first load|counted apart|page usable/ },
  { name: 'chart', measure: chartClickFigures, figures: /hole clicked|such a click/ },
  { name: 'drag', measure: changeDragFigures, figures: /finger dragged/ },
  { name: 'kill', measure: killFigures, figures: /SIGKILL|from a kill/ },
  { name: 'load', measure: loadFigures, figures: /of a save/ },
  { name: 'studios', measure: studioFigures, figures: /reads of|hostile texts|during it|another studio|backup of a studio|a fresh server grows/ },
  { name: 'tunes', measure: tuneFigures, figures: /^(corpus|generated|MusicXML|MIDI|1 000 tunes)/ },
  { name: 'arranging', measure: arrangingFigures, figures: /^form/ },
  { name: 'practice', measure: practiceFigures, figures: /^practice:/ },
  { name: 'click', measure: clickFigures, figures: /^click:/ },
  { name: 'listening', measure: listeningFigures, figures: /^listening[,:]/ },
  { name: 'synthesizer', measure: synthesizerFigures, figures: /^a synthesizer/, lacks: lackedBySynthesizer },
  { name: 'tests', measure: allTestsFigures, figures: /npm test/ },
];
const quick = ['changes', 'acoustics', 'timing', 'players', 'movements', 'sound', 'page', 'chart', 'drag'];

/** `--quick` leaves out what takes minutes; `--only kill,load` measures these. What is left out keeps its figures from before. */
function chosenGroups(): readonly string[] {
  const at = process.argv.indexOf('--only');
  if (at !== -1) return (process.argv[at + 1] ?? '').split(',');
  return process.argv.includes('--quick') ? quick : groups.map(({ name }) => name);
}

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

/** Writes what is measured so far: the last figures take minutes, and what came before them is not to be lost. */
async function write(figures: readonly Figure[]): Promise<void> {
  const day = new Date().toISOString().slice(0, 10);
  const head = `# Measured\n\nWritten by \`npm run bench\` on ${day}, Node ${process.versions.node}, ${cpus().length} cores. Medians; a ratio is the figure over its baseline, both from the same run.\n`;
  await writeFile(join(folder, 'RESULTS.md'), `${head}\n${table(figures)}\n`);
  await writeFile(join(folder, 'results.json'), `${JSON.stringify(figures, null, 2)}\n`);
}

const chosen = chosenGroups();
const measured = new Map<string, readonly Figure[]>();
for (const { name, figures } of groups) measured.set(name, await earlier(figures));
for (const { name, measure, lacks } of groups) {
  if (!chosen.includes(name)) continue;
  const lacking = lacks?.();
  if (lacking !== undefined) {
    process.stderr.write(`Not measured: ${name}. ${lacking}\n`);
    continue;
  }
  measured.set(name, await measure());
  await write([...measured.values()].flat());
}
const figures = [...measured.values()].flat();
process.stdout.write(`${table(figures)}\n`);
process.exitCode = figures.every((each) => each.isMet) ? 0 : 1;
