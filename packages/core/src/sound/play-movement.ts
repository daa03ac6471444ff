import { chartedPattern, withFingers, type Instrument, type Pattern } from '../fingering';
import {
  beatAt,
  leastTime,
  timedSteps,
  type CompiledMovement,
  type InnerChange,
  type MovementPace,
  type MovementSettings,
  type MovementStep,
} from '../movement';
import { milliseconds } from '../pitch';
import { inBetweenSounds } from '../timing';
import type { Click, Timeline, TimelineStep } from './timeline';

/** What goes wrong in a movement, to be heard on purpose. */
export type MovementFault =
  /** An element left out, from 0. */
  | { readonly kind: 'missing'; readonly element: number }
  /** An element played twice. */
  | { readonly kind: 'extra'; readonly element: number }
  /** An element held three times as long. */
  | { readonly kind: 'uneven'; readonly element: number }
  /** A tap that comes before the grace note has closed: the two overlap. `element` is the tap's. */
  | { readonly kind: 'overlap'; readonly element: number }
  /** A tap too short for the hole to be covered, or so long that it becomes a note. */
  | { readonly kind: 'light-tap' | 'long-tap'; readonly element: number }
  /** Fingers of a change inside do not go together: what lies between is heard before the element. */
  | { readonly kind: 'noise'; readonly inner: InnerChange };

export interface MovementPlay {
  readonly pace: MovementPace;
  /** How long the notes around it sound, in ms. */
  readonly noteMs: number;
  /** How many times slower everything is; the pitch stays. */
  readonly slower: number;
  readonly fault?: MovementFault;
}

const noiseMs = 25;
/** A tap that hardly covers the hole, in ms; and one that is a note already, in lengths of a grace note. */
const [lightTapMs, longTapTimes] = [8, 4];

/** A movement between its two notes as it sounds, clean or with a fault; empty where it cannot be played. */
export function movementTimeline(instrument: Instrument, movement: CompiledMovement, { pace, noteMs, slower, fault }: MovementPlay): Timeline {
  const steps: TimelineStep[] = [];
  let start = 0;
  const push = (pattern: Pattern, length: number, role: TimelineStep['role'], note: number): void => {
    steps.push({ pattern, start: milliseconds(start), length: milliseconds(length * slower), role, note });
    start += length * slower;
  };
  if (movement.kind === 'unplayable') return { steps, clicks: [], length: milliseconds(0) };
  if (movement.before !== null) push(chartedPattern(instrument, movement.before), noteMs, 'theme', 0);
  const noise = fault?.kind === 'noise' ? worstBetween(instrument, fault.inner) : undefined;
  timedSteps(movement, pace).forEach(({ pattern, lengthMs, kind }, index) => {
    if (fault?.kind === 'missing' && fault.element === index) return;
    if (fault?.kind === 'noise' && fault.inner.to === index && noise !== undefined) push(noise, noiseMs, 'fault', 1);
    // The grace note's finger is up until the tap has begun: nothing of the theme note between.
    if (fault?.kind === 'overlap' && fault.element === index + 1 && kind === 'note') return;
    if (fault?.kind === 'overlap' && fault.element === index) push(overlapping(instrument, movement.steps, index), lengthMs / 2, 'fault', 1);
    push(pattern, lengthWith(fault, index, lengthMs, pace), kind === 'note' ? 'theme' : 'grace', 1);
    if (fault?.kind === 'extra' && fault.element === index) {
      push(chartedPattern(instrument, movement.after), pace.graceMs, 'theme', 1);
      push(pattern, lengthMs, 'grace', 1);
    }
  });
  if (fault?.kind === 'noise' && fault.inner.to === movement.steps.length && noise !== undefined) push(noise, noiseMs, 'fault', 1);
  push(chartedPattern(instrument, movement.after), noteMs, 'theme', 1);
  return { steps, clicks: [], length: milliseconds(start) };
}

function lengthWith(fault: MovementFault | undefined, index: number, lengthMs: number, { graceMs }: MovementPace): number {
  if (fault === undefined || fault.kind === 'noise' || fault.element !== index) return lengthMs;
  switch (fault.kind) {
    case 'uneven':
      return 3 * lengthMs;
    case 'light-tap':
      return lightTapMs;
    case 'long-tap':
      return longTapTimes * graceMs;
    case 'overlap':
      return lengthMs / 2;
    default:
      return lengthMs;
  }
}

/** A tap with the grace note before it still open. */
function overlapping(instrument: Instrument, steps: readonly MovementStep[], tap: number): Pattern {
  const grace = steps.slice(0, tap).findLast(({ kind }) => kind === 'opener' || kind === 'grace');
  return grace === undefined ? steps[tap].pattern : withFingers(instrument, steps[tap].pattern, grace.fingers, 0);
}

export interface ClickedPlay {
  readonly pace: MovementPace;
  /** Beats a minute. */
  readonly tempo: number;
  readonly beat: MovementSettings['beat'];
  /** How often it is played. */
  readonly times: number;
}

const countInBeats = 4;

/**
 * A movement on the click: after four clicks the note before for a beat and the theme note for a beat, again and again. The movement stands so that its beat
 * falls on the click; what comes before that is taken from the note before. Empty where it cannot be played, or where a beat is too short for it.
 */
export function movementOnClick(instrument: Instrument, movement: CompiledMovement, { pace, tempo, beat, times }: ClickedPlay): Timeline {
  const beatMs = 60_000 / tempo;
  const nothing: Timeline = { steps: [], clicks: [], length: milliseconds(0) };
  if (movement.kind === 'unplayable' || leastTime(movement, pace) > beatMs) return nothing;
  const around = movement.before ?? movement.after;
  const timed = timedSteps(movement, pace);
  const ahead = beatAt(movement, pace, beat);
  const steps: TimelineStep[] = [];
  const push = (pattern: Pattern, from: number, to: number, role: TimelineStep['role'], note: number): void => {
    if (to > from) steps.push({ pattern, start: milliseconds(from), length: milliseconds(to - from), role, note });
  };
  const first = countInBeats * beatMs;
  for (let time = 0; time < times; time += 1) {
    const [start, onBeat] = [first + 2 * time * beatMs, first + (2 * time + 1) * beatMs];
    push(chartedPattern(instrument, around), start, onBeat - ahead, 'theme', 2 * time);
    let at = onBeat - ahead;
    for (const { pattern, lengthMs, kind } of timed) {
      push(pattern, at, at + lengthMs, kind === 'note' ? 'theme' : 'grace', 2 * time + 1);
      at += lengthMs;
    }
    push(chartedPattern(instrument, movement.after), at, onBeat + beatMs, 'theme', 2 * time + 1);
  }
  const beats = countInBeats + 2 * times;
  const clicks = Array.from({ length: beats }, (_, index): Click => ({
    ...{ at: milliseconds(index * beatMs), isCountIn: index < countInBeats },
    isAccented: index % countInBeats === 0,
  }));
  return { steps, clicks, length: milliseconds(beats * beatMs) };
}

/** The worst that can stand between: a low note, else a note between. */
function worstBetween(instrument: Instrument, { change }: InnerChange): Pattern | undefined {
  const sounds = inBetweenSounds(instrument, change).slice(1, -1);
  return (sounds.find(({ kind }) => kind === 'low') ?? sounds.find(({ kind }) => kind === 'run') ?? sounds[0])?.pattern;
}
