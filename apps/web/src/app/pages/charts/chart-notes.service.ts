import { inject, Injectable, signal } from '@angular/core';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { readTune } from '@zelpit/core/tune';
import type { TuneSummary } from '@zelpit/contract';
import { firstValueFrom } from 'rxjs';
import { TunesService } from '../../documents/tune/tunes.service';

/** Which notes of a chart are shown: all, those that are known on somebody's instrument or not yet, or those of one tune. */
export type NotesShown = 'all' | 'known' | 'unknown' | { readonly tune: string };

/** The notes that a tune asks of an instrument. */
@Injectable({ providedIn: 'root' })
export class ChartNotes {
  private readonly tunes = inject(TunesService);
  readonly list = signal<readonly TuneSummary[]>([]);

  /** Fetches the list of tunes once. */
  load(): void {
    if (this.list().length === 0) this.tunes.list().subscribe({ next: (tunes) => this.list.set(tunes), error: () => this.list.set([]) });
  }

  /** @throws ApiFault where the tune cannot be fetched */
  async ofTune(instrument: Instrument, id: string): Promise<ReadonlySet<NoteId>> {
    const detail = await firstValueFrom(this.tunes.detail(id));
    const tune = readTune(instrument, detail.abc, detail);
    const notes = tune.notes.flatMap(({ written, graceNotes }) => [...graceNotes, ...(written.kind === 'note' ? [written.note] : [])]);
    return new Set(notes);
  }
}
