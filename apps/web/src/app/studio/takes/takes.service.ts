import { inject, Injectable } from '@angular/core';
import { takeRoutes, type Take, type TakeInput, type TakeSave } from '@zelpit/contract';
import { switchMap, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';

/** Takes that are kept on the studio's server. */
@Injectable({ providedIn: 'root' })
export class TakesService {
  private readonly api = inject(ApiService);

  /** Newest first. */
  of(student: string): Observable<Take[]> {
    return this.api.all(takeRoutes.takes, { query: { student } });
  }

  /** Those that teachers recorded of themselves; for a student those that are shown to students. */
  ofTeachers(): Observable<Take[]> {
    return this.api.all(takeRoutes.takes, { query: { of: 'teachers' } });
  }

  get(id: string): Observable<Take> {
    return this.api.call(takeRoutes.take, { id });
  }

  /** First the sound, then the take that names it: a sound without one is cleared by the server. */
  keep(sound: Blob, take: Omit<TakeInput, 'soundId'>): Observable<Take> {
    const query = take.studentId === null ? {} : { student: take.studentId };
    return this.api
      .call(takeRoutes.addTakeSound, { query, body: sound as never })
      .pipe(switchMap(({ id }) => this.api.call(takeRoutes.addTake, { body: { ...take, soundId: id } })));
  }

  sound(id: string): Observable<Blob> {
    return this.api.call(takeRoutes.takeSound, { id }) as unknown as Observable<Blob>;
  }

  save(id: string, take: TakeSave): Observable<Take> {
    return this.api.call(takeRoutes.saveTake, { id, body: take });
  }

  drop(id: string): Observable<undefined> {
    return this.api.call(takeRoutes.dropTake, { id });
  }

  /** @returns how many there were */
  dropOf(student: string): Observable<{ readonly deleted: number }> {
    return this.api.call(takeRoutes.dropTakesOf, { id: student });
  }
}
