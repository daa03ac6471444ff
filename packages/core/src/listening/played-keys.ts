import { ZelpitFault } from '../fault';
import { chartedFingering, soundingPitch, type Instrument, type NoteId } from '../fingering';
import { milliseconds } from '../pitch';
import type { Timeline, TimelineStep } from '../sound';

/** A key of a MIDI instrument that was held. */
export interface PlayedKey {
  /** In ms from the beginning. */
  readonly start: number;
  readonly end: number;
  /** 60 is the C in the middle. */
  readonly key: number;
}

/** An event of a MIDI file, as much of it as is needed here. */
interface KeyEvent {
  readonly deltaTime: number;
  readonly type: string;
  readonly channel?: unknown;
  readonly noteNumber?: unknown;
  readonly velocity?: unknown;
  readonly microsecondsPerBeat?: unknown;
}

interface KeyFile {
  readonly header: { readonly ticksPerBeat?: number };
  readonly tracks: readonly (readonly KeyEvent[])[];
}

const usualMicroseconds = 500_000;
/** Where drums stand. */
const drumChannel = 9;

/**
 * The keys of the track and channel of a MIDI file that has the most of them, drums left aside.
 * @throws ZelpitFault `not-a-score` for a file without notes
 */
export function keysOfMidi({ header, tracks }: KeyFile): readonly PlayedKey[] {
  const timed = tracks.flatMap((events, track) => {
    let tick = 0;
    return events.map((event) => ({ ...event, track, tick: (tick += event.deltaTime) }));
  });
  const msAt = clockOf(timed, header.ticksPerBeat ?? 480);
  const lanes = new Map<string, PlayedKey[]>();
  const held = new Map<string, number>();
  for (const { type, track, tick, channel, noteNumber, velocity } of timed) {
    if ((type !== 'noteOn' && type !== 'noteOff') || channel === drumChannel || typeof noteNumber !== 'number') continue;
    const [lane, id] = [`${track} ${String(channel)}`, `${track} ${String(channel)} ${noteNumber}`];
    const start = held.get(id);
    if (start !== undefined) {
      held.delete(id);
      const keys = lanes.get(lane) ?? [];
      keys.push({ start, end: msAt(tick), key: noteNumber });
      lanes.set(lane, keys);
    }
    if (type === 'noteOn' && velocity !== 0) held.set(id, msAt(tick));
  }
  const [keys] = [...lanes.values()].sort((one, other) => other.length - one.length);
  if (keys === undefined) throw new ZelpitFault('not-a-score', 'This MIDI file has no notes.');
  return [...keys].sort((one, other) => one.start - other.start);
}

/** From ticks to ms, through every change of tempo. */
function clockOf(events: readonly (KeyEvent & { readonly tick: number })[], ticksPerBeat: number): (tick: number) => number {
  const tempos: { readonly tick: number; readonly ms: number; readonly msPerTick: number }[] = [
    { tick: 0, ms: 0, msPerTick: usualMicroseconds / 1000 / ticksPerBeat },
  ];
  for (const { type, tick, microsecondsPerBeat } of [...events].sort((one, other) => one.tick - other.tick)) {
    if (type !== 'setTempo' || typeof microsecondsPerBeat !== 'number') continue;
    const last = tempos[tempos.length - 1];
    tempos.push({ tick, ms: last.ms + (tick - last.tick) * last.msPerTick, msPerTick: microsecondsPerBeat / 1000 / ticksPerBeat });
  }
  return (tick) => {
    const last = tempos.findLast((tempo) => tempo.tick <= tick) ?? tempos[0];
    return last.ms + (tick - last.tick) * last.msPerTick;
  };
}

/** Keys are moved by so many semitones at most, so that they are notes of the instrument. */
const furthest = 36;

/** Which note each key is: as written, or moved so that the most of them are notes of the instrument; an octave before any other interval. Others are the nearest. */
export function notesOfKeys(instrument: Instrument, keys: readonly number[]): ReadonlyMap<number, NoteId> {
  const different = [...new Set(keys)];
  const written = instrument.notes.map(({ id, writtenSemitone }) => ({ id, key: writtenSemitone }));
  const sounding = instrument.notes.map(({ id }) => ({ id, key: Math.round(69 + 12 * Math.log2(soundingPitch(instrument, id) / 440)) }));
  const ways = [written, sounding].flatMap((bank, way) =>
    Array.from({ length: 2 * furthest + 1 }, (_, index) => index - furthest).map((shift) => {
      const right = different.filter((key) => bank.some((each) => each.key === key + shift)).length;
      // As it stands, then by octaves, then by anything else; of equals the nearer one.
      const strange = (shift % 12 === 0 ? 0 : 100) + Math.abs(shift) + way;
      return { bank, shift, right, strange };
    }),
  );
  const [{ bank, shift }] = ways.sort((one, other) => other.right - one.right || one.strange - other.strange);
  return new Map(
    different.map((key) => {
      const away = (each: { readonly key: number }): number => Math.abs(each.key - key - shift);
      return [key, bank.reduce((best, each) => (away(each) < away(best) ? each : best)).id];
    }),
  );
}

/** What keys give on an instrument: each by the charted fingering of its note, until the next one begins. */
export function timelineOfKeys(instrument: Instrument, keys: readonly PlayedKey[]): Timeline {
  const names = notesOfKeys(
    instrument,
    keys.map(({ key }) => key),
  );
  const steps = keys.flatMap(({ start, end, key }, index): TimelineStep[] => {
    const until = Math.min(end, keys[index + 1]?.start ?? Number.POSITIVE_INFINITY);
    if (until <= start) return [];
    const { pattern, register } = chartedFingering(instrument, names.get(key) ?? instrument.notes[0].id);
    return [{ pattern, register, start: milliseconds(start), length: milliseconds(until - start), role: 'theme', note: index }];
  });
  const last = steps.at(-1);
  return { steps, clicks: [], length: milliseconds(last === undefined ? 0 : last.start + last.length) };
}
