import { chartedPattern, type Instrument, type Pattern } from '../fingering';
import { timedSteps, type CompiledMovement, type InnerChange, type MovementPace } from '../movement';
import { milliseconds } from '../pitch';
import { inBetweenSounds } from '../timing';
import type { Timeline, TimelineStep } from './timeline';

/** What goes wrong in a movement, to be heard on purpose. */
export type MovementFault =
  /** An element left out, from 0. */
  | { readonly kind: 'missing'; readonly element: number }
  /** An element played twice. */
  | { readonly kind: 'extra'; readonly element: number }
  /** An element held three times as long. */
  | { readonly kind: 'uneven'; readonly element: number }
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
    const length = fault?.kind === 'uneven' && fault.element === index ? 3 * lengthMs : lengthMs;
    push(pattern, length, kind === 'note' ? 'theme' : 'grace', 1);
    if (fault?.kind === 'extra' && fault.element === index) {
      push(chartedPattern(instrument, movement.after), pace.graceMs, 'theme', 1);
      push(pattern, lengthMs, 'grace', 1);
    }
  });
  if (fault?.kind === 'noise' && fault.inner.to === movement.steps.length && noise !== undefined) push(noise, noiseMs, 'fault', 1);
  push(chartedPattern(instrument, movement.after), noteMs, 'theme', 1);
  return { steps, clicks: [], length: milliseconds(start) };
}

/** The worst that can stand between: a low note, else a note between. */
function worstBetween(instrument: Instrument, { change }: InnerChange): Pattern | undefined {
  const sounds = inBetweenSounds(instrument, change).slice(1, -1);
  return (sounds.find(({ kind }) => kind === 'low') ?? sounds.find(({ kind }) => kind === 'run') ?? sounds[0])?.pattern;
}
