import { inject, Injectable, signal } from '@angular/core';
import { tuneRoutes, type TuneDetail, type TunePin } from '@zelpit/contract';
import { patternKey } from '@zelpit/core/fingering';
import type { Pins } from '@zelpit/core/timing';
import { catchError, map, switchMap, tap, throwError, type Observable } from 'rxjs';
import { ApiFault, ApiService } from '../../kernel/api/api.service';
import { NoticeService } from '../../kernel/notices/notice.service';

/** What the server has of the fixed fingerings of one tune. */
export interface KnownPins {
  readonly pins: readonly TunePin[];
  readonly version: number;
}

type Holes = readonly number[] | undefined;

const without = (pins: readonly TunePin[], note: string): TunePin[] => pins.filter((each) => each.note !== note);
const holesOf = (pins: readonly TunePin[], note: string): Holes => pins.find((each) => each.note === note)?.pattern;
const isSame = (one: Holes, other: Holes): boolean => (one === undefined ? '' : patternKey(one)) === (other === undefined ? '' : patternKey(other));

/** Fingerings that a teacher fixed for the notes of a tune; they are kept with the tune. */
@Injectable({ providedIn: 'root' })
export class PinnedFingers {
  private readonly api = inject(ApiService);
  private readonly notices = inject(NoticeService);
  private readonly known = signal<ReadonlyMap<string, KnownPins>>(new Map());

  of(tune: string): Pins {
    return new Map((this.known().get(tune)?.pins ?? []).map(({ note, pattern }) => [note, patternKey(pattern)]));
  }

  /** What the server has of a tune. */
  take({ id, pins, pinsVersion }: Pick<TuneDetail, 'id' | 'pins' | 'pinsVersion'>): void {
    this.show(id, { pins, version: pinsVersion });
  }

  /**
   * Fixes a fingering by its holes, or frees the note; a notice can take it back. What cannot be kept is said, and stays as it was.
   * @param name what the note is called
   */
  pin(tune: string, note: string, pattern: Holes, name: string): void {
    const before = this.known().get(tune);
    if (before === undefined) return;
    const wasHoles = holesOf(before.pins, note);
    this.show(tune, { ...before, pins: withPin(before.pins, note, pattern) });
    this.save(tune, before, note, pattern, wasHoles).subscribe({
      next: () =>
        this.notices.done(pattern === undefined ? `${name} is free again.` : `The fingering of ${name} is fixed.`, () => this.pin(tune, note, wasHoles, name)),
      error: (error: unknown) => {
        if (!(error instanceof ApiFault) || error.code !== 'changed-elsewhere') this.show(tune, before);
        this.notices.fault(error);
      },
    });
  }

  /** Somebody else may have fixed other notes meanwhile: then both are kept. Errors: `ApiFault` 409 where it was this note. */
  private save(tune: string, known: KnownPins, note: string, pattern: Holes, wasHoles: Holes): Observable<void> {
    const body = { pins: withPin(known.pins, note, pattern), version: known.version };
    return this.api.call(tuneRoutes.pinFingers, { id: tune, body }).pipe(
      tap((detail) => this.take(detail)),
      map(() => undefined),
      catchError((error: unknown) => {
        if (!(error instanceof ApiFault) || error.code !== 'changed-elsewhere') return throwError(() => error);
        return this.api.call(tuneRoutes.tune, { id: tune }).pipe(
          switchMap((detail) => {
            this.take(detail);
            if (!isSame(holesOf(detail.pins, note), wasHoles)) return throwError(() => error);
            return this.save(tune, { pins: detail.pins, version: detail.pinsVersion }, note, pattern, wasHoles);
          }),
        );
      }),
    );
  }

  private show(tune: string, pins: KnownPins): void {
    this.known.update((known) => new Map(known).set(tune, pins));
  }
}

const withPin = (pins: readonly TunePin[], note: string, pattern: Holes): TunePin[] => [
  ...without(pins, note),
  ...(pattern === undefined ? [] : [{ note, pattern: [...pattern] }]),
];
