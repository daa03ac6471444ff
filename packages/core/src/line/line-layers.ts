import type { Instrument, NoteId } from '../fingering';
import {
  fittingLayers,
  layersOf,
  movementsOf,
  type LayerKind,
  type MovementDefinition,
  type MovementLayer,
  type MovementPace,
  type MovementSettings,
} from '../movement';
import { quarter, type Exercise, type LineNote } from './exercise';

/** A note of a line that carries a movement, with the layers that it can stand at. */
export interface LayeredNote {
  /** Which note of the line, from 0. */
  readonly index: number;
  readonly movement: MovementDefinition;
  readonly layers: readonly MovementLayer[];
  /** The layer at which it stands; undefined where its grace notes are none of them. */
  readonly standsAt: MovementLayer | undefined;
}

interface Wishes {
  readonly settings?: MovementSettings;
  readonly pace?: MovementPace;
  /** Movements of the studio. */
  readonly own?: readonly MovementDefinition[];
}

/** The notes of a line that carry a movement. A movement that is known no more is left out. */
export function layeredNotes(instrument: Instrument, notes: readonly LineNote[], wishes: Wishes = {}): readonly LayeredNote[] {
  return notes.flatMap((note, index): LayeredNote[] => {
    if (note.movement === undefined) return [];
    const movement = movementsOf(instrument, wishes.own).find(({ id }) => id === note.movement);
    if (movement === undefined) return [];
    const written = (note.graceNotes ?? []).join(' ');
    const from = (before: NoteId | null): LayeredNote => {
      const layers = layersOf(instrument, movement, before, note.note, wishes);
      return { index, movement, layers, standsAt: layers.find(({ graces }) => graces.join(' ') === written) };
    };
    if (index > 0) return [from(notes[index - 1].note)];
    // The first note of a line may follow the last of the line before: which that was, its grace notes tell.
    const starts = [null, ...instrument.notes.map(({ id }) => id)].map(from);
    return [starts.find(({ standsAt }) => standsAt !== undefined) ?? starts[0]];
  });
}

/** The line with one note at a layer. */
export function withLayer(exercise: Exercise, index: number, { graces }: Pick<MovementLayer, 'graces'>): Exercise {
  return { ...exercise, notes: exercise.notes.map((note, at) => (at === index ? { ...note, graceNotes: graces } : note)) };
}

/** Every note at a layer, or at the fullest one below it that the note has. */
export function lineAtLayer(instrument: Instrument, exercise: Exercise, kind: LayerKind, wishes: Wishes = {}): Exercise {
  return layeredNotes(instrument, exercise.notes, wishes).reduce((line, { index, layers }) => {
    const upTo = layerOrder.slice(0, layerOrder.indexOf(kind) + 1).reverse();
    const layer = upTo.flatMap((each) => layers.find((one) => one.kind === each) ?? [])[0];
    return layer === undefined ? line : withLayer(line, index, layer);
  }, exercise);
}

/** From the barest to the heaviest. */
const layerOrder: readonly LayerKind[] = ['bare', 'one', 'simpler', 'full', 'heavier'];

/** A note that is too short for what stands on it. */
export interface ShortNote {
  readonly index: number;
  readonly movement: MovementDefinition;
  readonly noteMs: number;
  readonly leastMs: number;
  /** The layers for which it is long enough, the barest first. */
  readonly fits: readonly MovementLayer[];
}

/** Notes of a line that are too short at a tempo, in beats a minute, for the movements on them. */
export function shortNotes(instrument: Instrument, notes: readonly LineNote[], tempo: number, wishes: Wishes = {}): readonly ShortNote[] {
  return layeredNotes(instrument, notes, wishes).flatMap(({ index, movement, layers, standsAt }): ShortNote[] => {
    const noteMs = (notes[index].twelfths / quarter) * (60_000 / tempo);
    if (standsAt === undefined || standsAt.leastMs <= noteMs) return [];
    return [{ index, movement, noteMs, leastMs: standsAt.leastMs, fits: fittingLayers(layers, noteMs) }];
  });
}
