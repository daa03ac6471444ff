import { chartedPattern, fingerCoverage, withFingers, type FingerId, type Instrument, type Pattern } from '../fingering';
import type { CompiledMovement, MovementStep } from './compile';
import { timedSteps, usualPace, type MovementPace } from './movement-time';

/** One finger of a movement going up or down. */
export interface MovementEvent {
  readonly finger: FingerId;
  readonly isDown: boolean;
  /** From the start of the movement, in ms. */
  readonly ms: number;
  /** Events of one group go together; a group comes wholly after the one before. */
  readonly group: number;
  /** Why the group stands where it stands: the opener lifts, others change under it, it closes; a step begins; the theme note comes. */
  readonly role: 'opener-lifts' | 'under-opener' | 'opener-closes' | 'step' | 'theme';
}

/** Under an opener the other fingers change halfway. */
const underShare = 0.5;

/**
 * The finger events of a movement in their order, with what binds them: a grace note into another note is opened on the note before, the others change under it,
 * and it closes on the note after. Empty where it cannot be played or begins a phrase on its own pattern.
 */
export function movementEvents(instrument: Instrument, movement: CompiledMovement, pace: MovementPace = usualPace): readonly MovementEvent[] {
  if (movement.kind === 'unplayable') return [];
  const steps = timedSteps(movement, pace);
  const [first] = steps;
  let pattern: Pattern | undefined = movement.before === null ? undefined : chartedPattern(instrument, movement.before);
  const events: MovementEvent[] = [];
  let group = -1;
  const go = (to: Pattern, ms: number, roleOf: (finger: FingerId) => MovementEvent['role']): void => {
    const from = pattern;
    pattern = to;
    if (from === undefined) return;
    const moved = instrument.fingers.filter(({ id }) => fingerCoverage(instrument, from, id) !== fingerCoverage(instrument, to, id));
    if (moved.length === 0) return;
    group += 1;
    for (const { id } of moved)
      events.push({ finger: id, isDown: fingerCoverage(instrument, to, id) > fingerCoverage(instrument, from, id), ms, group, role: roleOf(id) });
  };
  steps.forEach((step, index) => {
    if (index === 0 && isCovering(movement, first) && pattern !== undefined) {
      go(withFingers(instrument, pattern, step.fingers, 0), step.startMs, () => 'opener-lifts');
      go(step.pattern, step.startMs + step.lengthMs * underShare, () => 'under-opener');
      return;
    }
    go(step.pattern, step.startMs, (finger) => (first?.kind === 'opener' && index === 1 && first.fingers.includes(finger) ? 'opener-closes' : 'step'));
  });
  const last = steps.at(-1);
  const end = last === undefined ? 0 : last.startMs + last.lengthMs;
  go(chartedPattern(instrument, movement.after), end, (finger) =>
    steps.length === 1 && first?.kind === 'opener' && first.fingers.includes(finger) ? 'opener-closes' : 'theme',
  );
  return events;
}

const isCovering = ({ before }: CompiledMovement, first: MovementStep | undefined): boolean => before !== null && first?.kind === 'opener';

/** Each step's share of the whole movement, in its order; they add up to 1. */
export function sharesOf(movement: CompiledMovement, pace: MovementPace = usualPace): readonly number[] {
  const steps = timedSteps(movement, pace);
  const total = steps.reduce((sum, { lengthMs }) => sum + lengthMs, 0);
  return steps.map(({ lengthMs }) => lengthMs / total);
}
