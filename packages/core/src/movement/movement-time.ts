import { ZelpitFault } from '../fault';
import type { CompiledMovement, MovementStep } from './compile';

/** How long the parts of movements last; by the player's level, not by the tempo. */
export interface MovementPace {
  /** Length of a lifting grace note, and of what sounds between two of them, in ms: 90 down to 30. */
  readonly graceMs: number;
  /** A low note inside a grip or throw lasts so many times a grace note: 1 to 2.5. */
  readonly lowTimes: number;
}

export const usualPace: MovementPace = { graceMs: 60, lowTimes: 1.5 };

export interface TimedStep extends MovementStep {
  /** From the start of the movement, in ms. */
  readonly startMs: number;
  readonly lengthMs: number;
}

/** Steps of an evenly spaced movement are this many grace notes apart. */
const evenTimes = 2;
/** The theme note has to sound for so many grace notes to be heard as a note. */
const leastTheme = 2;

/** @throws ZelpitFault `out-of-range` for a grace note outside 20 to 150 ms or low notes outside 1 to 2.5 times it */
export function timedSteps(movement: CompiledMovement, pace: MovementPace = usualPace): readonly TimedStep[] {
  const { graceMs, lowTimes } = pace;
  if (!(graceMs >= 20 && graceMs <= 150) || !(lowTimes >= 1 && lowTimes <= 2.5))
    throw new ZelpitFault('out-of-range', `A grace note lasts 20 to 150 ms and a low note 1 to 2.5 times as long; ${graceMs} and ${lowTimes} came.`, {
      graceMs,
      lowTimes,
    });
  if (movement.kind === 'unplayable') return [];
  let at = 0;
  return movement.steps.map((step, index) => {
    const unevenLength = step.kind === 'low' ? lowTimes * graceMs : graceMs;
    const lengthMs = movement.movement.isEven === true ? evenLength(movement.steps, index, graceMs) : unevenLength;
    const timed = { ...step, startMs: at, lengthMs };
    at += lengthMs;
    return timed;
  });
}

/** In an even movement the first low note lasts a whole space, a grace note its own length, and the low note after it what is left of the space. */
function evenLength(steps: readonly MovementStep[], index: number, graceMs: number): number {
  const step = steps[index];
  if (step.kind !== 'low' && step.kind !== 'note') return graceMs;
  const before = steps[index - 1];
  const followsGrace = before !== undefined && before.kind !== 'low' && before.kind !== 'note';
  return followsGrace ? (evenTimes - 1) * graceMs : evenTimes * graceMs;
}

/** The least time that a movement and its theme note need, in ms: a shorter note cannot hold it. */
export function leastTime(movement: CompiledMovement, pace: MovementPace = usualPace): number {
  const steps = timedSteps(movement, pace);
  const last = steps[steps.length - 1];
  return last === undefined ? 0 : last.startMs + last.lengthMs + leastTheme * pace.graceMs;
}

/** How many elements are heard before the theme note. */
export const elementsOf = (movement: CompiledMovement): number => (movement.kind === 'unplayable' ? 0 : movement.steps.length);
