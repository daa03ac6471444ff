import type { Instrument, NoteId } from '../fingering';
import { compileMovement, type CompiledMovement } from './compile';
import { usualMovementSettings, type MovementDefinition, type MovementSettings } from './definition';
import { openerOf } from './laws';
import { leastTime, paceOf, type MovementPace } from './movement-time';
import { openers } from './movements.data';
import { movementsOf } from './movements';

/** How much of a movement is played: nothing, one grace note, a simpler movement, all of it, or a heavier one. */
export type LayerKind = 'bare' | 'one' | 'simpler' | 'full' | 'heavier';

export interface MovementLayer {
  readonly kind: LayerKind;
  /** The movement that is played; undefined for `bare`, and for `one`. */
  readonly movement?: MovementDefinition;
  /** Letters of the grace notes in their order. */
  readonly graces: readonly NoteId[];
  /** The least time that it and its theme note need, in ms. */
  readonly leastMs: number;
}

interface LayerWishes {
  readonly settings?: MovementSettings;
  readonly pace?: MovementPace;
  /** Movements of the studio. */
  readonly own?: readonly MovementDefinition[];
}

/**
 * Every layer of a movement between two notes, the barest first; a layer that is written like one before it is left out.
 * @throws ZelpitFault `unknown-note`
 */
export function layersOf(
  instrument: Instrument,
  movement: MovementDefinition,
  before: NoteId | null,
  after: NoteId,
  { settings = usualMovementSettings, pace = paceOf(settings), own = [] }: LayerWishes = {},
): readonly MovementLayer[] {
  const bare: MovementLayer = { kind: 'bare', graces: [], leastMs: 2 * pace.graceMs };
  const opener = openerOf(instrument, openers, before, after);
  const one: MovementLayer[] = opener === undefined ? [] : [{ kind: 'one', graces: [opener.written], leastMs: 3 * pace.graceMs }];
  const known = movementsOf(instrument, own);
  const heavierOnes = known.filter(({ simpler }) => simpler[0] === movement.id);
  const all: readonly (readonly [LayerKind, MovementDefinition])[] = [
    // One that was a studio's own and is gone is left out.
    ...[...movement.simpler].reverse().flatMap((id) => known.filter((each) => each.id === id).map((each) => ['simpler', each] as const)),
    ['full', movement],
    ...heavierOnes.map((each) => ['heavier', each] as const),
  ];
  const compiled = all.flatMap(([kind, each]): MovementLayer[] => {
    const made = compileMovement(instrument, each, before, after, settings);
    return made.kind === 'unplayable' || made.steps.length === 0 ? [] : [{ kind, movement: each, graces: gracesOf(made), leastMs: leastTime(made, pace) }];
  });
  const layers = [bare, ...one, ...compiled];
  // The movement itself stands, whatever is written like it.
  return layers
    .filter((layer, index) => layer.kind === 'full' || layers.findIndex((other) => isWrittenLike(layer, other)) === index)
    .filter((layer) => layer.kind === 'full' || layer.kind === 'bare' || !layers.some((other) => other.kind === 'full' && isWrittenLike(layer, other)));
}

const gracesOf = (made: Extract<CompiledMovement, { kind: 'compiled' }>): readonly NoteId[] => made.steps.map(({ written }) => written);
const isWrittenLike = (one: MovementLayer, other: MovementLayer): boolean => one.graces.join(' ') === other.graces.join(' ');

/** The layers for which a note is long enough. */
export const fittingLayers = (layers: readonly MovementLayer[], noteMs: number): readonly MovementLayer[] => layers.filter(({ leastMs }) => leastMs <= noteMs);
