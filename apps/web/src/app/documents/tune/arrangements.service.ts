import { inject, Injectable } from '@angular/core';
import { arrangementRoutes, tuneRoutes, type Arrangement, type KeptArrangement, type TuneDetail, type TuneNotes, type TuneOfStudent } from '@zelpit/contract';
import { concatMap, from, map, toArray, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';

/** How students play tunes, and what teachers say of tunes beside their texts. */
@Injectable({ providedIn: 'root' })
export class ArrangementsService {
  private readonly api = inject(ApiService);

  get(tune: string, student: string): Observable<KeptArrangement> {
    return this.api.call(arrangementRoutes.arrangement, { id: tune, query: { student } });
  }

  /** Tunes that a student plays in a way of their own. */
  ofStudent(student: string): Observable<readonly TuneOfStudent[]> {
    return this.api.call(arrangementRoutes.tunesOfStudent, { id: student });
  }

  /** Errors: `ApiFault` 409 where it was changed after it was read. */
  save(tune: string, student: string, arrangement: Arrangement, version: number): Observable<KeptArrangement> {
    return this.api.call(arrangementRoutes.saveArrangement, { id: tune, body: { student, arrangement, version } });
  }

  /**
   * The same for several students, made of what each has; answers with how to take all of it back.
   * Errors: `ApiFault` 409 where one of them was changed meanwhile; what was saved before that stays.
   */
  saveForAll(tune: string, students: readonly string[], made: (theirs: Arrangement) => Arrangement): Observable<() => Observable<unknown>> {
    return from(students).pipe(
      concatMap((student) =>
        this.get(tune, student).pipe(
          concatMap((before) => this.save(tune, student, made(before.arrangement), before.version).pipe(map((after) => ({ student, before, after })))),
        ),
      ),
      toArray(),
      map(
        (all) => () =>
          from(all).pipe(
            concatMap(({ student, before, after }) => this.save(tune, student, before.arrangement, after.version)),
            toArray(),
          ),
      ),
    );
  }

  /** Errors: `ApiFault` 409 where it was changed after it was read. */
  saveNotes({ id, aboutVersion }: Pick<TuneDetail, 'id' | 'aboutVersion'>, notes: TuneNotes): Observable<TuneDetail> {
    return this.api.call(tuneRoutes.saveTuneNotes, { id, body: { notes, version: aboutVersion } });
  }
}
