import { ZelpitFault } from '../fault';
import type { Instrument } from '../fingering';
import type { CompiledMovement, MovementStep } from './compile';
import type { MovementSettings } from './definition';
import { firstAllowed } from './laws';
import { openers } from './movements.data';
import { usualGraceNoteMs } from '../timing';

/** How long the parts of movements last; by the player's level, not by the tempo. */
export interface MovementPace {
  /** Length of a lifting grace note, and of what sounds between two of them, in ms: 90 down to 30. */
  readonly graceMs: number;
  /** A low note inside a grip or throw lasts so many times a grace note: 1 to 2.5. */
  readonly lowTimes: number;
  /** Onsets of an evenly spaced movement are so many grace notes apart: 1.5 to 4. */
  readonly evenTimes: number;
}

export const usualPace: MovementPace = { graceMs: usualGraceNoteMs, lowTimes: 1.5, evenTimes: 2 };

/** The pace of a studio: its own lengths of low notes and even onsets, and a grace note of a player's level. */
export const paceOf = ({ lowTimes, evenTimes }: MovementSettings, graceMs = usualPace.graceMs): MovementPace => ({ graceMs, lowTimes, evenTimes });

export interface TimedStep extends MovementStep {
  /** From the start of the movement, in ms. */
  readonly startMs: number;
  readonly lengthMs: number;
}

/** The theme note has to sound for so many grace notes to be heard as a note. */
const leastTheme = 2;

/** @throws ZelpitFault `out-of-range` for a grace note outside 20 to 150 ms, low notes outside 1 to 2.5 times it or even onsets outside 1.5 to 4 times it */
export function timedSteps(movement: CompiledMovement, pace: MovementPace = usualPace): readonly TimedStep[] {
  const { graceMs, lowTimes, evenTimes } = pace;
  if (!(graceMs >= 20 && graceMs <= 150) || !(lowTimes >= 1 && lowTimes <= 2.5) || !(evenTimes >= 1.5 && evenTimes <= 4))
    throw new ZelpitFault(
      'out-of-range',
      `A grace note lasts 20 to 150 ms, a low note 1 to 2.5 times as long, and even onsets are 1.5 to 4 times apart; these were ${graceMs}, ${lowTimes} and ${evenTimes}.`,
      { graceMs, lowTimes, evenTimes },
    );
  if (movement.kind === 'unplayable') return [];
  let at = 0;
  return movement.steps.map((step, index) => {
    const unevenLength = step.kind === 'low' ? lowTimes * graceMs : graceMs;
    const lengthMs = movement.movement.isEven === true ? evenLength(movement.steps, index, pace) : unevenLength;
    const timed = { ...step, startMs: at, lengthMs };
    at += lengthMs;
    return timed;
  });
}

/** In an even movement the first low note lasts a whole space, a grace note its own length, and the low note after it what is left of the space. */
function evenLength(steps: readonly MovementStep[], index: number, { graceMs, evenTimes }: MovementPace): number {
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

/** The number that is counted on each element, and on the note before the movement; empty where none falls on it. */
export interface MovementCount {
  readonly before: string;
  readonly steps: readonly string[];
  readonly after: string;
}

/**
 * How a movement is counted: each element in its turn, and the theme note last. An even movement can be counted on its onsets, or from the opener of the note
 * before it: then the low notes between are not counted, and where nothing opens that note there is one number less.
 */
export function countOf(instrument: Instrument, movement: CompiledMovement, count: MovementSettings['count']): MovementCount {
  if (movement.kind === 'unplayable') return { before: '', steps: [], after: '' };
  const isEven = movement.movement.isEven === true;
  if (!isEven) return { before: '', steps: movement.steps.map((_, index) => String(index + 1)), after: String(movement.steps.length + 1) };
  if (count === 'onsets') return { before: '', steps: movement.steps.map((_, index) => String(index + 1)), after: '' };
  const isOpened = movement.before !== null && firstAllowed(instrument, openers, movement.before) !== undefined;
  let next = isOpened ? 2 : 1;
  const steps = movement.steps.map(({ kind }, index) => {
    const isCounted = kind !== 'low' && kind !== 'note' ? true : index === 0;
    if (!isCounted) return '';
    next += 1;
    return String(next - 1);
  });
  return { before: isOpened ? '1' : '', steps, after: '' };
}

/** Where the beat falls, in ms from the start of the movement; its length where it falls on the theme note. */
export function beatAt(movement: CompiledMovement, pace: MovementPace, beat: MovementSettings['beat']): number {
  const steps = timedSteps(movement, pace);
  const last = steps.at(-1);
  if (last === undefined) return 0;
  if (beat === 'theme') return last.startMs + last.lengthMs;
  return beat === 'first-low' ? (steps.find(({ kind }) => kind === 'low')?.startMs ?? 0) : 0;
}
