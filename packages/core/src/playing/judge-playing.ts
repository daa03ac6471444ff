import type { Change } from '../change';
import { withFingers, type FingerId, type Instrument, type NoteId, type Pattern } from '../fingering';
import { audibleMs, ChangeEar, type SoundClass } from '../timing';
import { fingersDown, isSameDown, type FingerEvent } from './finger-events';

/** What was heard between two notes, for how long. */
export interface HeardBetween {
  readonly kind: SoundClass;
  readonly note: NoteId;
  readonly ms: number;
}

export type Verdict = 'clean' | 'low' | 'run' | 'over-open';

/** One change as it was played. */
export interface PlayedChange {
  /** Which of the changes asked for, from 0. */
  readonly index: number;
  /** Of each mover in the order of the change, in ms on the events' clock: when it moved for good. */
  readonly moments: readonly number[];
  readonly heard: readonly HeardBetween[];
  readonly verdict: Verdict;
  /** How long the sounds of the verdict lasted in all, in ms; for a clean change from its first finger to its last. */
  readonly ms: number;
  /** Fingers that moved though they should have stayed, or more than once. */
  readonly stray: readonly FingerId[];
}

/** What of a performance can be told. */
export interface JudgedPlaying {
  readonly played: readonly PlayedChange[];
  /** How many of the changes asked for were reached. */
  readonly reached: number;
}

/**
 * Judges finger events against the changes asked for, one after another: a change begins with the first finger that leaves its first note and ends when its
 * second note stands. What stands between is what is heard.
 * @param tolerance a sound shorter than this is let pass, in ms
 */
export function judgePlaying(instrument: Instrument, changes: readonly Change[], events: readonly FingerEvent[], tolerance: number = audibleMs): JudgedPlaying {
  const played: PlayedChange[] = [];
  if (changes.length === 0) return { played, reached: 0 };
  const down = new Set(fingersDown(instrument, changes[0].fromPattern));
  let open: FingerEvent[] = [];
  for (const event of events) {
    if (played.length === changes.length) break;
    if (event.isDown === down.has(event.finger)) continue;
    if (event.isDown) down.add(event.finger);
    else down.delete(event.finger);
    open.push(event);
    const change = changes[played.length];
    if (!isSameDown(down, fingersDown(instrument, change.toPattern))) {
      // Back where it began: a finger was tried, no change.
      if (isSameDown(down, fingersDown(instrument, change.fromPattern))) open = [];
      continue;
    }
    played.push(judgeChange(instrument, change, played.length, open, tolerance));
    open = [];
  }
  return { played, reached: played.length };
}

function judgeChange(instrument: Instrument, change: Change, index: number, events: readonly FingerEvent[], tolerance: number): PlayedChange {
  const ear = new ChangeEar(instrument, change);
  const heard: HeardBetween[] = [];
  let pattern: Pattern = change.fromPattern;
  events.forEach((event, place) => {
    pattern = moved(instrument, change, pattern, event);
    const next = events[place + 1];
    const ms = next === undefined ? 0 : next.ms - event.ms;
    if (ms <= 0) return;
    const sound = ear.sound(pattern);
    heard.push({ kind: sound.kind, note: sound.note, ms });
  });
  const movers = change.movers.map(({ finger }) => finger);
  const moments = movers.map((finger) => [...events].reverse().find((event) => event.finger === finger)?.ms ?? 0);
  const stray = [...new Set(events.map(({ finger }) => finger))].filter(
    (finger) => !movers.includes(finger) || events.filter((event) => event.finger === finger).length > 1,
  );
  const { verdict, ms } = verdictOf(heard, tolerance);
  const all = events.length === 0 ? 0 : events[events.length - 1].ms - events[0].ms;
  return { index, moments, heard, verdict, ms: verdict === 'clean' ? all : ms, stray };
}

function moved(instrument: Instrument, change: Change, pattern: Pattern, { finger, isDown }: FingerEvent): Pattern {
  const isMover = change.movers.some((mover) => mover.finger === finger);
  if (!isMover) return withFingers(instrument, pattern, [finger], isDown ? 1 : 0);
  const isArriving = change.movers.some((mover) => mover.finger === finger && (mover.direction === 'lower') === isDown);
  const target = isArriving ? change.toPattern : change.fromPattern;
  return pattern.map((coverage, hole) => (instrument.holes[hole].finger === finger ? target[hole] : coverage));
}

const faults = ['low', 'run', 'over-open'] as const;

/** The worst of what lasted longer than is let pass: a low note before a run before too open. */
export function verdictOf(heard: readonly HeardBetween[], tolerance: number = audibleMs): { readonly verdict: Verdict; readonly ms: number } {
  for (const kind of faults) {
    const ms = heard.filter((each) => each.kind === kind).reduce((sum, each) => sum + each.ms, 0);
    if (ms > tolerance) return { verdict: kind, ms };
  }
  return { verdict: 'clean', ms: 0 };
}
