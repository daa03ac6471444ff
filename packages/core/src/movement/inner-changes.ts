import { changeBetween, changeOfFingerings, type Change, type NamedFingers } from '../change';
import { chartedPattern, patternKey, type Instrument } from '../fingering';
import { usualGraceNoteMs, type ChangeRisk, type RiskTable } from '../timing';
import type { CompiledMovement } from './compile';

/** One change inside a movement: from a step to the next, or from and to the notes around it. */
export interface InnerChange {
  /** Which step it leads to, from 0; the number of steps for the theme note. */
  readonly to: number;
  readonly change: Change;
  readonly risk: ChangeRisk;
}

/**
 * The changes inside a movement in their order, each with its risk: between the note before, the steps and the theme note, where more than one finger moves.
 * A grace note's own letter names the step; its fingers and sounds are those of its pattern.
 */
export function innerChanges(risks: RiskTable, movement: CompiledMovement): readonly InnerChange[] {
  if (movement.kind === 'unplayable') return [];
  const { instrument } = risks;
  const { before, after, steps } = movement;
  const [first] = steps;
  const isCovered = before !== null && before !== after && first?.kind === 'opener';
  const places: readonly NamedFingers[] = [
    ...(before === null || isCovered ? [] : [{ note: before, pattern: chartedPattern(instrument, before) }]),
    ...steps.map(({ written, pattern }) => ({ note: written, pattern })),
    { note: after, pattern: chartedPattern(instrument, after) },
  ];
  const offset = before === null || isCovered ? 1 : 0;
  const inside = changesAlong(instrument, places).map(({ to, change }): InnerChange => ({ to: to - 1 + offset, change, risk: risks.riskOf(change) }));
  if (!isCovered) return inside;
  // Under an opener the other fingers change while its finger is off: what shows is what it does not cover.
  const change = changeBetween(instrument, before, after);
  if (change.movers.length < 2) return inside;
  return [{ to: 0, change, risk: risks.riskOf(change, { kind: 'grace-note', opens: first.fingers, lengthMs: usualGraceNoteMs }) }, ...inside];
}

/**
 * The changes from each place to the next where more than one finger moves.
 * @returns `to`: which place each leads to
 */
export function changesAlong(instrument: Instrument, places: readonly NamedFingers[]): readonly { readonly to: number; readonly change: Change }[] {
  return places.slice(1).flatMap((to, index) => {
    const from = places[index];
    const change = changeOfFingerings(instrument, from, to);
    return change.movers.length < 2 || patternKey(from.pattern) === patternKey(to.pattern) ? [] : [{ to: index + 1, change }];
  });
}

/** The most likely thing to go wrong inside: its probability, 0 where nothing can. */
export function movementRisk(changes: readonly InnerChange[]): number {
  return changes.reduce((most, { risk }) => Math.max(most, risk.low.probability, risk.run.probability), 0);
}
