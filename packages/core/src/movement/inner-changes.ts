import { changeBetween, moversBetween, type Change } from '../change';
import { chartedPattern, patternKey, type Instrument, type NoteId, type Pattern } from '../fingering';
import type { ChangeRisk, RiskTable } from '../timing';
import type { CompiledMovement } from './compile';

/** One change inside a movement: from a step to the next, or from and to the notes around it. */
export interface InnerChange {
  /** Which step it leads to, from 0; the number of steps for the theme note. */
  readonly to: number;
  readonly change: Change;
  readonly risk: ChangeRisk;
}

interface Place {
  readonly note: NoteId;
  readonly pattern: Pattern;
}

/** A learner's grace note, in ms. */
const openerMs = 60;

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
  const places: readonly Place[] = [
    ...(before === null || isCovered ? [] : [{ note: before, pattern: chartedPattern(instrument, before) }]),
    ...steps.map(({ written, pattern }) => ({ note: written, pattern })),
    { note: after, pattern: chartedPattern(instrument, after) },
  ];
  const offset = before === null || isCovered ? 1 : 0;
  const inside = places.slice(1).flatMap((to, index): InnerChange[] => {
    const from = places[index];
    const change = changeOf(instrument, from, to);
    if (change.movers.length < 2 || patternKey(from.pattern) === patternKey(to.pattern)) return [];
    return [{ to: index + offset, change, risk: risks.riskOf(change) }];
  });
  if (!isCovered) return inside;
  // Under an opener the other fingers change while its finger is off: what shows is what it does not cover.
  const change = changeBetween(instrument, before, after);
  if (change.movers.length < 2) return inside;
  return [{ to: 0, change, risk: risks.riskOf(change, { kind: 'grace-note', opens: first.fingers, lengthMs: openerMs }) }, ...inside];
}

function changeOf(instrument: Instrument, from: Place, to: Place): Change {
  const movers = moversBetween(instrument, from.pattern, to.pattern);
  const lifts = movers.filter(({ direction }) => direction === 'lift').length;
  const isCross = lifts > 0 && lifts < movers.length;
  const hands = new Set(movers.map(({ hand }) => hand));
  const degree = (id: NoteId): number => instrument.notes.findIndex((note) => note.id === id);
  return {
    ...{ from: from.note, to: to.note, fromPattern: from.pattern, toPattern: to.pattern, movers },
    kind: kindOf(movers.length, lifts, isCross),
    hands: hands.size === 2 ? 'both' : ([...hands][0] ?? 'none'),
    isDirectExchange: movers.length === 2 && isCross,
    isRising: degree(to.note) > degree(from.note),
  };
}

function kindOf(movers: number, lifts: number, isCross: boolean): Change['kind'] {
  if (movers === 0) return 'none';
  if (isCross) return 'cross';
  return lifts > 0 ? 'lift-only' : 'lower-only';
}

/** The most likely thing to go wrong inside: its probability, 0 where nothing can. */
export function movementRisk(changes: readonly InnerChange[]): number {
  return changes.reduce((most, { risk }) => Math.max(most, risk.low.probability, risk.run.probability), 0);
}
