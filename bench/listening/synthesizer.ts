import { writeMidi } from 'midi-file';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Playing, Tone } from './playing';

/** A font of General MIDI sounds, and a program that plays it: Debian's packages `fluidsynth` and `fluid-soundfont-gm`. */
const font = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
const program = '/usr/bin/fluidsynth';

/** What is not on this machine, as a sentence. */
export const lackedBySynthesizer = (): string | undefined =>
  existsSync(font) && existsSync(program) ? undefined : 'Debian’s packages fluidsynth and fluid-soundfont-gm are not installed.';

/** The sounds of General MIDI that stand for our instruments, counted from 0. */
const programs: Readonly<Record<string, number>> = {
  'practice-chanter': 68,
  'pipe-chanter': 109,
  'whistle-d': 72,
  'recorder-soprano-baroque': 74,
  'ocarina-12-c-split': 79,
};

const [ticksPerBeat, beatMicroseconds] = [10_000, 500_000];
/** How far a held note is bent at most, in semitones. */
const bendRange = 24;
/** How long it dies away, in ms. */
const tail = 300;

/**
 * The same playing by somebody else's sounds: recorded instruments of a font. One note is held throughout, as breath or a bag holds it, and bent to each pitch, so that nothing is
 * struck anew. The synthesizer places what happens on blocks of 64 samples and whole milliseconds: up to 2 ms beside where it was written.
 */
export function synthesized({ instrument, tones }: Playing, rate: number): Float32Array {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-bench-'));
  try {
    const [written, sounded] = [join(folder, 'take.mid'), join(folder, 'take.raw')];
    writeFileSync(written, midiOf(programs[instrument.id], tones));
    const settings = ['-o', 'synth.min-note-length=0', '-o', 'synth.reverb.active=0', '-o', 'synth.chorus.active=0', '-z', '64', '-g', '0.8'];
    execFileSync(program, ['-n', '-i', '-q', ...settings, '-r', String(rate), '-T', 'raw', '-O', 's16', '-F', sounded, font, written], { stdio: 'ignore' });
    // It goes on for a while after the last note has died away.
    const end = (tones.at(-1)?.end ?? 0) + tail;
    return monoOf(readFileSync(sounded)).subarray(0, Math.ceil((end / 1000) * rate));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

interface Timed {
  readonly ms: number;
  readonly type: string;
  readonly [field: string]: unknown;
}

function midiOf(programNumber: number, tones: readonly Tone[]): Uint8Array {
  const key = (hertz: number): number => 69 + 12 * Math.log2(hertz / 440);
  const [lowest, highest] = [Math.min(...tones.map(({ hertz }) => key(hertz))), Math.max(...tones.map(({ hertz }) => key(hertz)))];
  const held = Math.round((lowest + highest) / 2);
  const loudest = Math.max(...tones.map(({ level }) => level));
  const control = (controllerType: number, value: number): Timed => ({ ms: 0, type: 'controller', channel: 0, controllerType, value });
  const bend = ({ start, hertz, level }: Tone): readonly Timed[] => [
    { ms: start, type: 'pitchBend', channel: 0, value: Math.round(((key(hertz) - held) / bendRange) * 8191) },
    // Loudness goes by the square of it.
    { ms: start, type: 'controller', channel: 0, controllerType: 11, value: Math.round(127 * Math.sqrt(level / loudest)) },
  ];
  const [first, ...rest] = tones;
  const timed: readonly Timed[] = [
    { ms: 0, type: 'setTempo', microsecondsPerBeat: beatMicroseconds },
    { ms: 0, type: 'programChange', channel: 0, programNumber },
    ...[control(101, 0), control(100, 0), control(6, bendRange), control(38, 0)],
    ...bend({ ...first, start: first.start - 20 }),
    { ms: first.start, type: 'noteOn', channel: 0, noteNumber: held, velocity: 100 },
    ...rest.flatMap(bend),
    { ms: tones.at(-1)?.end ?? 0, type: 'noteOff', channel: 0, noteNumber: held, velocity: 0 },
    { ms: (tones.at(-1)?.end ?? 0) + tail, type: 'endOfTrack' },
  ];
  const tick = (ms: number): number => Math.round((ms * 1000 * ticksPerBeat) / beatMicroseconds);
  const track = timed.map(({ ms, ...event }, index) => ({ ...event, deltaTime: tick(ms) - tick(timed[Math.max(0, index - 1)].ms) }));
  return Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat }, tracks: [track] } as never));
}

/** Two channels of 16-bit samples, one after the other, as one channel of −1 to 1. */
function monoOf(bytes: Buffer): Float32Array {
  return Float32Array.from({ length: Math.floor(bytes.length / 4) }, (_, index) => (bytes.readInt16LE(4 * index) + bytes.readInt16LE(4 * index + 2)) / 65_536);
}
