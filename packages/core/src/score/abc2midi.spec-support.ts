import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseMidi } from 'midi-file';
import { playingOrder, readAbc, semitoneOf } from '.';

/** A note as it is heard: when it begins, in whole notes from the start, and its height with A4 = 69. */
export type Heard = readonly [onset: number, semitone: number];

/** True where Debian's abcmidi is installed. */
export const hasAbc2midi = spawnSync('abc2midi', ['-ver']).error === undefined;

const grid = 10_080;
const sorted = (notes: readonly Heard[]): Heard[] => [...notes].sort((one, other) => one[0] - other[0] || one[1] - other[1]);

/** What the first voice of a text sounds as we read it; grace notes left out. */
export function heardByUs(abc: string): readonly Heard[] {
  const { score } = readAbc(abc);
  const [voice] = score.voices;
  const heard: Heard[] = [];
  let onset = 0;
  for (const index of playingOrder(voice.bars, score.partOrder)) {
    const bar = voice.bars[index];
    for (const event of voice.events.slice(bar.first, bar.end)) {
      for (const pitch of event.pitches) if (!pitch.isTiedFromPrevious) heard.push([Math.round(onset * grid), semitoneOf(pitch) + voice.soundsAt]);
      onset += event.duration;
    }
  }
  return sorted(heard);
}

/** The same by abc2midi, with `ticks` of its own clock rounded to the same grid. */
export function heardByAbc2midi(abc: string): readonly Heard[] {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-abc-'));
  try {
    writeFileSync(join(folder, 'in.abc'), abc);
    spawnSync('abc2midi', ['in.abc', '-o', 'out.mid', '-NGRA', '-NFER', '-NGUI'], { cwd: folder });
    const midi = parseMidi(readFileSync(join(folder, 'out.mid')));
    const track = midi.tracks[Math.min(1, midi.tracks.length - 1)];
    const whole = 4 * (midi.header.ticksPerBeat ?? 480);
    const heard: Heard[] = [];
    let ticks = 0;
    for (const event of track) {
      ticks += event.deltaTime;
      if (event.type === 'noteOn' && event.velocity > 0) heard.push([Math.round((ticks / whole) * grid), event.noteNumber]);
    }
    return sorted(heard);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Their notes with onsets set to ours: that reader lets each note of a chord begin ten ticks after the one before. */
export function snapped(ours: readonly Heard[], theirs: readonly Heard[]): readonly Heard[] {
  const [early, late] = [grid / 600, grid / 85];
  const onsets = [...new Set(ours.map(([onset]) => onset))];
  let at = 0;
  return sorted(
    theirs.map(([onset, semitone]): Heard => {
      while (at + 1 < onsets.length && onsets[at + 1] <= onset + early) at += 1;
      return [Math.abs(onset - (onsets.at(at) ?? onset)) <= late ? onsets[at] : onset, semitone];
    }),
  );
}

/** True where both begin the same notes at the same times. */
export const isSameHeard = (ours: readonly Heard[], theirs: readonly Heard[]): boolean => JSON.stringify(ours) === JSON.stringify(snapped(ours, theirs));
