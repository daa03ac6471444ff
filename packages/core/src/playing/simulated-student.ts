import { changeOfFingerings, type Change } from '../change';
import type { Fingering, Instrument } from '../fingering';
import { milliseconds } from '../pitch';
import { ChangeEar, HandNoise, patternAt, stepsBetween, type TimingParameters } from '../timing';
import { verdictOf, type HeardBetween, type Verdict } from './judge-playing';
import type { FingerEvent } from './finger-events';

/** One note of what the simulated student plays. */
export interface StudentNote {
  readonly fingering: Fingering;
  readonly ms: number;
}

/** One change of a simulated performance. */
export interface SimulatedChange {
  readonly index: number;
  readonly change: Change;
  /** Of each mover, in ms around the beat. */
  readonly moments: readonly number[];
  readonly heard: readonly HeardBetween[];
  readonly verdict: Verdict;
  readonly ms: number;
}

/** What a simulated student played: its finger events on one clock, and what every change of it holds. */
export interface SimulatedPlaying {
  readonly changes: readonly SimulatedChange[];
  readonly events: readonly FingerEvent[];
  /** Patterns over time, for the ear. */
  readonly steps: readonly SimulatedStep[];
  readonly lengthMs: number;
}

export interface SimulatedStep {
  readonly pattern: readonly number[];
  readonly register?: number;
  readonly startMs: number;
  readonly lengthMs: number;
  readonly role: 'theme' | 'fault';
  readonly note: number;
}

/** Fingers may take at most this share of the shorter note, so that every note stands. */
const mostShare = 0.45;

/**
 * A student who is not there: plays notes with fingers that stray by the timing model. The same draws give the same playing.
 * @param normal numbers of mean 0 and deviation 1
 * @throws ZelpitFault `out-of-range` as the timing model does
 */
export function simulatedPlaying(instrument: Instrument, notes: readonly StudentNote[], timing: TimingParameters, normal: () => number): SimulatedPlaying {
  const starts: number[] = [];
  let at = 0;
  for (const { ms } of notes) {
    starts.push(at);
    at += ms;
  }
  const changes = notes.slice(1).map(({ fingering, ms }, place): SimulatedChange => {
    const change = changeOfFingerings(instrument, notes[place].fingering, fingering);
    const most = mostShare * Math.min(ms, notes[place].ms);
    const moments = [...new HandNoise(change.movers, timing).draw(normal)].map((moment) => Math.max(-most, Math.min(most, moment)));
    const ear = new ChangeEar(instrument, change);
    const heard = stepsBetween(moments).map(({ mask, from, to }): HeardBetween => {
      const { kind, note } = ear.sound(patternAt(instrument, change, mask));
      return { kind, note, ms: to - from };
    });
    return { index: place, change, moments, heard, ...verdictOf(heard) };
  });
  const events = changes
    .flatMap(({ change, moments }, place) =>
      change.movers.map(({ finger, direction }, index): FingerEvent => ({ finger, isDown: direction === 'lower', ms: starts[place + 1] + moments[index] })),
    )
    .sort((one, other) => one.ms - other.ms);
  return { changes, events, steps: stepsOf(instrument, notes, starts, changes), lengthMs: at };
}

function stepsOf(
  instrument: Instrument,
  notes: readonly StudentNote[],
  starts: readonly number[],
  changes: readonly SimulatedChange[],
): readonly SimulatedStep[] {
  const steps: SimulatedStep[] = [];
  notes.forEach(({ fingering, ms }, note) => {
    const before = changes[note - 1];
    const after = changes[note];
    const begin = starts[note] + (before === undefined || before.moments.length === 0 ? 0 : Math.max(...before.moments));
    const end = starts[note] + ms + (after === undefined || after.moments.length === 0 ? 0 : Math.min(...after.moments));
    const own = notes[note].fingering.register;
    steps.push({
      pattern: fingering.pattern,
      ...registerOf(changes, own),
      startMs: begin,
      lengthMs: milliseconds(Math.max(0, end - begin)),
      role: 'theme',
      note,
    });
    if (after === undefined) return;
    const beat = starts[note] + ms;
    for (const { mask, from, to } of stepsBetween(after.moments)) {
      const pattern = patternAt(instrument, after.change, mask);
      steps.push({
        pattern,
        ...(after.change.register !== undefined && { register: after.change.register }),
        startMs: beat + from,
        lengthMs: to - from,
        role: 'fault',
        note,
      });
    }
  });
  return steps;
}

/** A register is said only where the instrument has several. */
const registerOf = (changes: readonly SimulatedChange[], own: number): { readonly register?: number } =>
  changes.some(({ change }) => change.register !== undefined) ? { register: own } : {};

/** A note beside a change is cut to this, in ms. */
const shortNoteMs = 30;

/**
 * One change of a performance with its two notes cut short, so that what lies between can be heard slowly.
 * @param index the place of the note before the change
 */
export function oneChangeOf(playing: SimulatedPlaying, index: number): SimulatedPlaying {
  const own = playing.steps.filter(({ note, role }) => note === index || (role !== 'fault' && note === index + 1));
  let startMs = 0;
  const steps = own.map((step) => {
    const lengthMs = step.role === 'theme' ? shortNoteMs : step.lengthMs;
    const moved = { ...step, startMs, lengthMs };
    startMs += lengthMs;
    return moved;
  });
  return { ...playing, steps, lengthMs: startMs };
}
