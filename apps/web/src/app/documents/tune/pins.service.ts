import { inject, Injectable, signal } from '@angular/core';
import { tuneDetailSchema, type TunePin } from '@zelpit/contract';
import { patternKey, type Pins } from '@zelpit/core';
import { ApiService } from '../../kernel/api/api.service';
import { NoticeService } from '../../kernel/notices/notice.service';

/** Fingerings that a teacher pinned for the notes of a tune; they are kept with the tune. */
@Injectable({ providedIn: 'root' })
export class PinnedFingers {
  private readonly api = inject(ApiService);
  private readonly notices = inject(NoticeService);
  private readonly known = signal<ReadonlyMap<string, readonly TunePin[]>>(new Map());

  of(tune: string): Pins {
    return new Map((this.known().get(tune) ?? []).map(({ note, pattern }) => [note, patternKey(pattern)]));
  }

  /** What the server has of a tune. */
  take(tune: string, pins: readonly TunePin[]): void {
    this.known.update((known) => new Map(known).set(tune, pins));
  }

  /** Pins a way by its holes; nothing unpins. What cannot be kept is said, and stays as it was. */
  pin(tune: string, note: string, pattern: readonly number[] | undefined): void {
    const before = this.known().get(tune) ?? [];
    const others = before.filter((each) => each.note !== note);
    const pins = pattern === undefined ? others : [...others, { note, pattern: [...pattern] }];
    this.take(tune, pins);
    this.api.put(`/api/tunes/${tune}/pins`, { pins }, tuneDetailSchema).subscribe({
      error: (error: unknown) => {
        this.take(tune, before);
        this.notices.fault(error);
      },
    });
  }
}
