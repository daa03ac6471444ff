import { inject, Injectable } from '@angular/core';
import { spokenWordRoutes, type SpokenWord } from '@zelpit/contract';
import type { Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';

/** What is said in lessons, as sound. */
@Injectable({ providedIn: 'root' })
export class SpokenWordsService {
  private readonly api = inject(ApiService);

  /** In the order in which it was said. */
  of(lessonId: string): Observable<readonly SpokenWord[]> {
    return this.api.call(spokenWordRoutes.spokenWords, { id: lessonId });
  }

  /** @param sound a WAV file */
  add(lessonId: string, { title, seconds }: Pick<SpokenWord, 'title' | 'seconds'>, sound: Blob): Observable<SpokenWord> {
    return this.api.call(spokenWordRoutes.addSpokenWord, { id: lessonId, query: { title, seconds }, body: sound as never });
  }

  sound(id: string): Observable<Blob> {
    return this.api.call(spokenWordRoutes.spokenWordSound, { id }) as unknown as Observable<Blob>;
  }

  drop(id: string): Observable<undefined> {
    return this.api.call(spokenWordRoutes.dropSpokenWord, { id });
  }
}
