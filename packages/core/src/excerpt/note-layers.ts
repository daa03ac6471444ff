import { noteOf, type Instrument, type NoteId } from '../fingering';
import { layersOf, MovementReader, type LayerKind, type MovementDefinition, type MovementLayer, type MovementSettings } from '../movement';
import { pitchOfNote, readTune, type Tune } from '../tune';
import type { Score } from '../score';

/** At which layer single notes stand, by their index; a note that is not there stands as it is written. */
export type NoteLayers = ReadonlyMap<number, LayerKind>;

/** A decorated note with everything that can stand before it. */
export interface DecoratedNote {
  /** Index of the note. */
  readonly index: number;
  /** "doubling", "G grace note", "grace notes" for a group that is no movement. */
  readonly name: string;
  /** Undefined for a group that is no movement. */
  readonly movement: MovementDefinition | undefined;
  /** The barest first; the last but a heavier one is as it is written. */
  readonly layers: readonly MovementLayer[];
}

interface Wishes {
  readonly settings?: MovementSettings;
  /** Movements of the studio. */
  readonly own?: readonly MovementDefinition[];
  readonly reader?: MovementReader;
}

/** The decorated notes of a tune in their order. */
export function decoratedNotes(
  instrument: Instrument,
  tune: Tune,
  { settings, own = [], reader = new MovementReader(instrument, own) }: Wishes = {},
): readonly DecoratedNote[] {
  return tune.notes.flatMap(({ index, written, graceNotes }): DecoratedNote[] => {
    if (written.kind !== 'note' || graceNotes.length === 0) return [];
    const before = tune.notes[index - 1]?.written;
    const from = before?.kind === 'note' ? before.note : null;
    const asWritten: MovementLayer = { kind: 'full', graces: graceNotes, leastMs: 0 };
    const found = reader.read(from, graceNotes, written.note);
    if (found.kind !== 'known') return [{ index, name: 'grace notes', movement: undefined, layers: [bare, asWritten] }];
    const { movement } = found.candidates[0];
    const layers = layersOf(instrument, movement, from, written.note, { settings, own }).filter(({ kind }) => kind !== 'full');
    const isLike = ({ graces }: MovementLayer): boolean => graces.join(' ') === graceNotes.join(' ');
    const others = layers.filter((layer) => !isLike(layer));
    const heavier = others.filter(({ kind }) => kind === 'heavier');
    return [{ index, name: movement.names[0], movement, layers: [...others.filter(({ kind }) => kind !== 'heavier'), asWritten, ...heavier] }];
  });
}

const bare: MovementLayer = { kind: 'bare', graces: [], leastMs: 0 };

/** From the barest to the heaviest. */
export const layerOrder: readonly LayerKind[] = ['bare', 'one', 'simpler', 'full', 'heavier'];

/** The layer of a note, or the fullest one below it that the note has. */
export function layerAt({ layers }: Pick<DecoratedNote, 'layers'>, kind: LayerKind): MovementLayer {
  const most = layerOrder.indexOf(kind);
  // What is one grace note in full is played where one grace note is.
  const rank = (layer: MovementLayer): number => (layer.kind === 'full' && layer.graces.length === 1 ? 1 : layerOrder.indexOf(layer.kind));
  return layers.filter((layer) => rank(layer) <= most).at(-1) ?? bare;
}

/**
 * What stands before a note at a layer, in words: "no grace note", "G grace note", "doubling".
 * @param name of the movement in full
 */
export function layerName(instrument: Instrument, { kind, graces, movement }: MovementLayer, name: string): string {
  if (graces.length === 0) return 'no grace note';
  if (kind === 'full') return name;
  if (movement !== undefined) return movement.names[0];
  return graces.length === 1 ? graceName(instrument, graces[0]) : 'grace notes';
}

const graceName = (instrument: Instrument, written: NoteId): string =>
  instrument.graceNotes.find((rule) => rule.written === written)?.name ?? `${noteOf(instrument, written).writtenName} grace note`;

/** The grace notes of each note of a tune at a layer. */
export function gracesAt(decorated: readonly DecoratedNote[], kind: LayerKind, chosen: NoteLayers = new Map()): ReadonlyMap<number, readonly NoteId[]> {
  const most = layerOrder.indexOf(kind);
  return new Map(
    decorated.map((note) => {
      const own = chosen.get(note.index) ?? 'full';
      // A note that was set simpler stays so in every fuller row; one that was set heavier is so where all is in full.
      const wanted = layerOrder.indexOf(own) < most || kind === 'full' ? own : kind;
      return [note.index, layerAt(note, wanted).graces] as const;
    }),
  );
}

/** A tune with other grace notes before its notes, as it is written then. */
export function withGraces(instrument: Instrument, tune: Tune, graces: ReadonlyMap<number, readonly NoteId[]>): Score {
  const keys = tune.bars.flatMap(({ first, end, key }) => Array.from({ length: end - first }, () => key));
  const events = tune.voice.events.map((event, index) => {
    const letters = graces.get(index);
    if (letters === undefined || letters.join(' ') === tune.notes[index].graceNotes.join(' ')) return event;
    return { ...event, graceNotes: letters.map((letter) => pitchOfNote(instrument, letter, keys[index])) };
  });
  return { ...tune.score, voices: [{ ...tune.voice, events }] };
}

/** The same tune with every note at a layer. */
export function tuneAtLayer(instrument: Instrument, tune: Tune, kind: LayerKind, chosen?: NoteLayers, wishes?: Wishes): Tune {
  const decorated = decoratedNotes(instrument, tune, wishes);
  return readTune(instrument, withGraces(instrument, tune, gracesAt(decorated, kind, chosen)));
}
