import { noteOf, type NoteId } from '@zelpit/core/fingering';
import { count } from '@zelpit/core/words';
import type { OpenedTune } from '../../documents/tune/tunes.service';
import { capital } from '../../kernel/words/words';

/** Notes of a tune that its student does not know; none where nothing is known of the student. */
export function unknownNotes({ tune, held }: OpenedTune): ReadonlySet<NoteId> {
  const known = held?.knownNotes ?? [];
  if (known.length === 0) return new Set();
  return new Set(tune.notes.flatMap(({ written }) => (written.kind === 'note' && !known.includes(written.note) ? [written.note] : [])));
}

/** What is new in a tune for somebody: in one sentence, and note by note. */
export interface NewNotes {
  readonly text: string;
  readonly notes: readonly { readonly note: NoteId; readonly text: string }[];
}

/** "F is new for Pim", and each new note with how often it comes; undefined where nothing is new. */
export function newNotesFor({ tune, instrument }: OpenedTune, unknown: ReadonlySet<NoteId>, alias: string): NewNotes | undefined {
  if (unknown.size === 0) return undefined;
  const nameOfNote = (note: NoteId): string => capital(noteOf(instrument, note).schoolName);
  const notes = [...unknown].map((note) => {
    const times = tune.notes.filter(({ written }) => written.kind === 'note' && written.note === note).length;
    return { note, text: `${nameOfNote(note)}, ${count(times, 'time')}: ${alias} knows it` };
  });
  const [only] = unknown;
  const text = unknown.size === 1 ? `${nameOfNote(only)} is new for ${alias}` : `${count(unknown.size, 'note')} are new for ${alias}`;
  return { text, notes };
}
