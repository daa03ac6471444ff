import { heardVoice } from './heard-notes';
import type { Key, Meter, Score, ScoreVoice, Tempo } from './score';

/** An event of a MIDI file, as the package midi-file has them. */
export interface MidiEvent {
  readonly deltaTime: number;
  readonly type: string;
  readonly [field: string]: unknown;
}

/** A MIDI file as the package midi-file reads and writes it. */
export interface MidiFile {
  readonly header: { readonly format: 0 | 1 | 2; readonly numTracks: number; readonly ticksPerBeat?: number };
  readonly tracks: readonly (readonly MidiEvent[])[];
}

/** Ticks of a quarter note: triplets, quintuplets and 64ths are whole numbers of it. */
const ticksPerQuarter = 960;
const ticksPerWhole = 4 * ticksPerQuarter;
/** Length of a grace note in s. */
const graceSeconds = 0.05;
const velocity = 80;
/** A recorder, for players that have sounds of instruments. */
const program = 74;

/** A voice as Standard MIDI, played through with repeats, endings and grace notes. */
export function midiOf(score: Score, voice: ScoreVoice, tempo: Tempo): MidiFile {
  const wholesPerSecond = (tempo.perMinute * tempo.beat) / 60;
  const heard = heardVoice(score, voice, graceSeconds * wholesPerSecond);
  const head: Timed[] = [
    { at: 0, event: { type: 'trackName', text: score.titles.at(0) ?? '' } },
    { at: 0, event: tempoEvent(tempo) },
  ];
  let before: { meter: Meter; key: Key; tempo: Tempo | undefined } | undefined;
  for (const { start, bar: index } of heard.bars) {
    const bar = voice.bars[index];
    const at = Math.round(start * ticksPerWhole);
    if (before?.meter.text !== bar.meter.text && bar.meter.bar > 0) head.push({ at, event: meterEvent(bar.meter) });
    if (before?.key !== bar.key) head.push({ at, event: keyEvent(bar.key) });
    if (bar.tempo !== undefined && index > 0) head.push({ at, event: tempoEvent(bar.tempo) });
    before = bar;
  }
  const notes: Timed[] = [{ at: 0, event: { type: 'programChange', channel: 0, programNumber: program } }];
  for (const { start, length, semitone } of heard.notes) {
    const [on, off] = [Math.round(start * ticksPerWhole), Math.round((start + length) * ticksPerWhole)];
    notes.push({ at: on, event: { type: 'noteOn', channel: 0, noteNumber: keyboardKey(semitone), velocity } });
    notes.push({ at: Math.max(on + 1, off), isEnd: true, event: { type: 'noteOff', channel: 0, noteNumber: keyboardKey(semitone), velocity: 0 } });
  }
  const end = Math.round(heard.length * ticksPerWhole);
  return { header: { format: 1, numTracks: 2, ticksPerBeat: ticksPerQuarter }, tracks: [track(head, end), track(notes, end)] };
}

interface Timed {
  readonly at: number;
  /** What ends stands before what begins at the same time. */
  readonly isEnd?: boolean;
  readonly event: { readonly type: string; readonly [field: string]: unknown };
}

const keyboardKey = (semitone: number): number => Math.min(127, Math.max(0, Math.round(semitone)));

function track(events: readonly Timed[], end: number): readonly MidiEvent[] {
  const ordered = [...events].sort((one, other) => one.at - other.at || Number(other.isEnd === true) - Number(one.isEnd === true));
  let at = 0;
  const timed = ordered.map(({ at: next, event }): MidiEvent => {
    const deltaTime = next - at;
    at = next;
    return { deltaTime, ...event };
  });
  return [...timed, { deltaTime: Math.max(0, end - at), meta: true, type: 'endOfTrack' }];
}

const tempoEvent = ({ beat, perMinute }: Tempo): Timed['event'] => ({
  ...{ meta: true, type: 'setTempo', microsecondsPerBeat: Math.min(0xffffff, Math.round(60_000_000 / (perMinute * beat * 4))) },
});

function meterEvent({ text }: Meter): Timed['event'] {
  const [beats, type] = text.split('/');
  const numerator = beats.split('+').reduce((sum, each) => sum + Number(each), 0);
  return { meta: true, type: 'timeSignature', numerator, denominator: Number(type), metronome: 24, thirtyseconds: 8 };
}

const keyEvent = ({ fifths, name }: Key): Timed['event'] => ({ meta: true, type: 'keySignature', key: fifths, scale: name.includes('minor') ? 1 : 0 });
