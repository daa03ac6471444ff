import type { TuneDetail } from '@zelpit/contract';
import { map } from 'rxjs';
import type { DocumentKind, SaveResult } from '../../kernel/saving/document-kind';
import type { TunesService } from './tunes.service';

export interface TuneDraft {
  readonly abc: string;
  /** The instrument that it is read for. */
  readonly instrument: string;
  /** Id of the voice that is read; empty for the first. */
  readonly voice: string;
  readonly chordNote: TuneDetail['chordNote'];
}

/** How the text of a tune is fetched, saved and compared. */
export function tuneKind(tunes: TunesService): DocumentKind<TuneDraft, TuneDetail> {
  return {
    kind: 'tune',
    load: (id) => tunes.detail(id),
    save: (id, { abc, instrument, voice, chordNote }, version, key) =>
      tunes.save(id, { abc, instrument, voice, chordNote, version }, { key, triesAgain: false }).pipe(
        map((answer): SaveResult<TuneDetail> => {
          if (answer.kind === 'saved') return { kind: 'saved', stored: answer.tune };
          return { kind: 'refused', message: 'The text cannot be read yet.' };
        }),
      ),
    draftOf: ({ abc, instrument, voice, chordNote }) => ({ abc, instrument, voice, chordNote }),
    versionOf: ({ version }) => version,
    nameOf: ({ title }) => title,
    savedAt: () => undefined,
    isSame: (one, other) => one.abc === other.abc && one.instrument === other.instrument && one.voice === other.voice && one.chordNote === other.chordNote,
  };
}
