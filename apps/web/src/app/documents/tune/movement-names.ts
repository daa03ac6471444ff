import { MovementReader, type MovementDefinition } from '@zelpit/core/movement';
import { writtenOrnaments } from '@zelpit/core/tune';
import type { OpenedTune } from './tunes.service';
import { writtenNames } from '../../music/wording/ornament-words';

/** The name of each ornament, and of each movement of two grace notes and more, by the index of the note that it decorates. */
export function movementNames({ instrument, tune }: OpenedTune, own: readonly MovementDefinition[]): ReadonlyMap<number, string> {
  if (instrument.family !== 'pipes') return new Map(writtenOrnaments(instrument, tune).map(({ note, kind }) => [note.index, writtenNames[kind]]));
  const reader = new MovementReader(instrument, own);
  return new Map(
    tune.notes.flatMap(({ index, written, graceNotes }): [number, string][] => {
      if (written.kind !== 'note' || graceNotes.length < 2) return [];
      const before = tune.notes[index - 1]?.written;
      const found = reader.read(before?.kind === 'note' ? before.note : null, graceNotes, written.note);
      return found.kind === 'known' ? [[index, found.candidates[0].movement.names[0]]] : [];
    }),
  );
}
