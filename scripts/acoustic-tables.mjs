import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { endWith, exitCode, say } from './lib/run.mjs';

const folder = join(root, 'packages', 'core', 'src', 'acoustics');

async function bundled() {
  const { build } = await import('esbuild');
  const outfile = join(root, 'dist', 'acoustic-tables.mjs');
  const contents = `
    export { holeSign, instruments } from './fingering';
    export { startingGeometries } from './acoustics/starting-geometries.data';
    export { chartedTarget } from './acoustics/charted';
    export { centsNear } from './acoustics/fit-geometry';
    export { seededRandom } from './timing/seeded-random';
    export { fittedToChart, soundTable } from './acoustics/make-tables';`;
  await build({
    stdin: { contents, resolveDir: join(root, 'packages', 'core', 'src'), loader: 'ts' },
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    logLevel: 'warning',
  });
  return import(outfile);
}

const rounded = (geometry) => JSON.parse(JSON.stringify(geometry, (_, value) => (typeof value === 'number' ? Math.round(value * 1e4) / 1e4 : value)));

/** Each charted fingering with what the model makes of it. */
function residualTable(instrument, geometry, { chartedTarget, centsNear, holeSign }) {
  const rows = instrument.fingerings.map((fingering) => {
    const cents = centsNear(geometry, chartedTarget(instrument, fingering));
    const holes = fingering.pattern.map(holeSign).join('');
    const note = instrument.notes.find((each) => each.id === fingering.note).schoolName;
    const register = fingering.register > 1 ? `, register ${fingering.register}` : '';
    return `| ${note}${register} | \`${holes}\` | ${fingering.rank} | ${cents === undefined ? 'no resonance near' : Math.round(cents)} | ${fingering.remark ?? ''} |`;
  });
  return [
    `## ${instrument.name}${instrument.model === undefined ? '' : `, ${instrument.model}`}`,
    '',
    '| note | holes | rank | model, in cents | remark |',
    '| --- | --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
}

/** Fits the starting geometries to the charts and writes the fitted ones and the tables of all patterns into the core. */
async function main() {
  const core = await bundled();
  const { instruments, startingGeometries, fittedToChart, soundTable, seededRandom } = core;
  const residuals = [];
  const geometries = {};
  const tables = {};
  for (const [id, start] of Object.entries(startingGeometries)) {
    const instrument = instruments.find((each) => each.id === id);
    const fitted = fittedToChart(instrument, start);
    geometries[id] = rounded(fitted.geometry);
    tables[id] = soundTable(instrument, geometries[id], seededRandom(20_261));
    residuals.push(residualTable(instrument, geometries[id], core));
    say(`${id}: ${fitted.rms.toFixed(2)} cents rms over ${fitted.residuals.length} charted notes after ${fitted.iteration} steps`);
  }
  const head = [
    '# What the sound model makes of the charts',
    '',
    'Written by `node scripts/acoustic-tables.mjs`. Each charted fingering, first hole first (the thumb, or hole 1 of a whistle), with the nearest resonance of the',
    'model in cents above the note at the usual tuning. Half covers of a whistle are made by ear; the model solves for them. The highest notes of a recorder, two forks of',
    'its German model, and the second register of the Irish chanter are beyond a bore of straight cones: they are not fitted, and their misses stand here.',
    '',
  ];
  writeFileSync(join(root, 'docs', 'residuals.md'), `${head.join('\n')}\n${residuals.join('\n')}`);
  const written = 'Written by `node scripts/acoustic-tables.mjs`; do not change it by hand.';
  writeFileSync(
    join(folder, 'geometries.data.ts'),
    `import type { BoreGeometry } from '../fingering';\n\n/** Geometries fitted to the charts, in mm. ${written} */\nexport const geometries: Readonly<Record<string, BoreGeometry>> = ${JSON.stringify(geometries)};\n`,
  );
  writeFileSync(
    join(folder, 'sound-tables.data.ts'),
    `import type { SoundTable } from './sound-table';\n\n/** What every pattern sounds. ${written} */\nexport const soundTables: Readonly<Record<string, SoundTable>> = ${JSON.stringify(tables)};\n`,
  );
  process.exitCode = await exitCode('npx', ['prettier', '--write', '--log-level', 'warn', folder, join(root, 'docs', 'residuals.md')], { cwd: root });
}

main().catch(endWith);
