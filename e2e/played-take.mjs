import { build } from 'esbuild';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const sampleRate = 44_100;

/** A take of B to E and back on the practice chanter as a WAV file: eight changes, in two of which low A cuts in. */
export async function playedTake() {
  const folder = await mkdtemp(join(tmpdir(), 'zelpit-take-'));
  try {
    const contents = "export { playNotes, practiceChanter, renderTimeline, waveFile } from '@zelpit/core';";
    const outfile = join(folder, 'core.mjs');
    await build({ stdin: { contents, resolveDir: import.meta.dirname }, bundle: true, platform: 'node', format: 'esm', outfile, logLevel: 'warning' });
    const { playNotes, practiceChanter, renderTimeline, waveFile } = await import(pathToFileURL(outfile).href);
    const played = (ids, ms = 0) => {
      const notes = ids.map((note, index) => ({ note, graceNotes: [], beats: 1, index, isTied: false }));
      const settings = { tempo: 80, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
      const timeline = playNotes(practiceChanter, notes, { ...settings, ...(ms > 0 && { fault: { kind: 'land-early', ms } }) });
      return [...renderTimeline(practiceChanter, timeline, { sampleRate })];
    };
    const silence = new Array(sampleRate / 2).fill(0);
    const all = [
      ...silence,
      ...played(['b', 'e', 'b']),
      ...played(['b', 'e'], 22),
      ...played(['e', 'b', 'e', 'b']),
      ...played(['b', 'e'], 12),
      ...played(['e', 'b']),
    ];
    return Buffer.from(waveFile(Float32Array.from(all), sampleRate));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
