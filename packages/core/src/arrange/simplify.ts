import { noteOf, type Instrument, type NoteId } from '../fingering';
import { decoratedNotes, layerName, type DecoratedNote } from '../excerpt';
import type { LayerKind, MovementDefinition, MovementLayer } from '../movement';
import type { Tune } from '../tune';

/** What a player has; where nothing is ticked, nothing is known. */
export interface Had {
  readonly notes: readonly NoteId[];
  /** Ids of movements. */
  readonly movements: readonly string[];
}

/** One thing that is left out or played in another way. */
export interface Simplified {
  readonly bar: number;
  /** Index of the note. */
  readonly note: number;
  readonly text: string;
}

export type Simpler =
  | {
      readonly kind: 'simpler';
      readonly layers: Readonly<Record<string, LayerKind>>;
      readonly instead: Readonly<Record<string, NoteId>>;
      readonly leftOut: readonly Simplified[];
    }
  | { readonly kind: 'none'; readonly reason: string };

/**
 * A tune with only what a player has: movements at the fullest layer that is known, notes that are not known as the nearest one that is; and what was changed, in its order.
 */
export function simplifiedFor(instrument: Instrument, tune: Tune, had: Had, own: readonly MovementDefinition[] = []): Simpler {
  const hasNotes = had.notes.length > 0;
  const hasMovements = instrument.family === 'pipes' && had.movements.length > 0;
  if (!hasNotes && !hasMovements) return { kind: 'none', reason: 'Nothing is ticked as known yet. Tick the notes and movements first.' };
  const layers: Record<string, LayerKind> = {};
  const instead: Record<string, NoteId> = {};
  const leftOut: Simplified[] = [];
  const say = (note: number, text: string): void => void leftOut.push({ bar: tune.notes[note].bar, note, text });
  if (hasMovements) {
    for (const each of decoratedNotes(instrument, tune, { own })) {
      const layer = fullestHad(each, had.movements);
      if (layer.kind === 'full') continue;
      layers[String(each.index)] = layer.kind;
      const after = tune.notes[each.index].written;
      const on = after.kind === 'note' ? ` on ${noteOf(instrument, after.note).schoolName}` : '';
      // A throw on D says it itself.
      say(each.index, `the ${each.name}${each.name.endsWith(on) ? '' : on} becomes ${nameOf(instrument, layer, each.name)}`);
    }
  }
  if (hasNotes) {
    for (const { index, written, isTiedFromPrevious } of tune.notes) {
      if (written.kind !== 'note' || had.notes.includes(written.note)) continue;
      const other = nearest(instrument, written.note, had.notes);
      instead[String(index)] = other;
      if (!isTiedFromPrevious) say(index, `${noteOf(instrument, written.note).schoolName} becomes ${noteOf(instrument, other).schoolName}`);
    }
  }
  return { kind: 'simpler', layers, instead, leftOut: [...leftOut].sort((one, other) => one.note - other.note) };
}

const nameOf = (instrument: Instrument, layer: MovementLayer, name: string): string => {
  const text = layerName(instrument, layer, name);
  return layer.graces.length === 0 ? 'no grace note' : `the ${text}`;
};

/** The fullest layer of which the player has the movement; a single grace note counts as had where any grace note is. */
function fullestHad({ movement, layers }: DecoratedNote, movements: readonly string[]): MovementLayer {
  const hasGraces = movements.some((id) => id.endsWith('grace-note'));
  const isHad = (layer: MovementLayer): boolean => {
    if (layer.graces.length === 0) return true;
    if (layer.kind === 'full' && movement !== undefined && movements.includes(movement.id)) return true;
    if (layer.movement !== undefined && layer.kind !== 'full' && movements.includes(layer.movement.id)) return true;
    return layer.graces.length === 1 && hasGraces;
  };
  return (
    layers
      .filter(({ kind }) => kind !== 'heavier')
      .filter(isHad)
      .at(-1) ?? layers[0]
  );
}

/** The nearest note that is known; of two as near the lower one. */
function nearest(instrument: Instrument, note: NoteId, known: readonly NoteId[]): NoteId {
  const height = noteOf(instrument, note).writtenSemitone;
  const distance = (id: NoteId): number => Math.abs(noteOf(instrument, id).writtenSemitone - height);
  const own = known.filter((id) => instrument.notes.some((each) => each.id === id));
  return own.reduce(
    (best, id) =>
      distance(id) < distance(best) || (distance(id) === distance(best) && noteOf(instrument, id).writtenSemitone < noteOf(instrument, best).writtenSemitone)
        ? id
        : best,
    own[0] ?? note,
  );
}
