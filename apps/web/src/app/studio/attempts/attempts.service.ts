import { inject, Injectable } from '@angular/core';
import { attemptRoutes, type Attempt, type AttemptInput, type AttemptRating } from '@zelpit/contract';
import type { LoggedAttempt } from '@zelpit/core/practice';
import type { Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';

/** The log of what students practise. */
@Injectable({ providedIn: 'root' })
export class AttemptsService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);

  /** A try that cannot be sent now is kept in the browser and sent later. Errors: `KeptForLater`, `ApiFault`. */
  add(attempt: AttemptInput): Observable<Attempt> {
    return this.outgoing.make(attemptRoutes.addAttempt, { body: attempt }, `the practice of ${attempt.title}`);
  }

  /** All that a student practised, or at one item, newest first. */
  of(student: string, item?: string): Observable<Attempt[]> {
    return this.api.all(attemptRoutes.attempts, { query: { student, ...(item !== undefined && { item }) } });
  }

  /** All that was judged in a lesson, newest first. */
  ofLesson(lesson: string): Observable<Attempt[]> {
    return this.api.all(attemptRoutes.attempts, { query: { lesson } });
  }

  correct(id: string, rating: AttemptRating, note = ''): Observable<Attempt> {
    return this.api.call(attemptRoutes.correctAttempt, { id, body: { rating, note } });
  }
}

/** A try as the logbook reads it: with its last correction. */
export function loggedOf({ itemId, kind, title, at, seconds, tempo, rating, by, ladder, correction }: Attempt): LoggedAttempt {
  const rungs = ladder?.rungs ?? [];
  const cleanTempos = ladder === null ? [] : rungs.flatMap((rung) => (rung.rating === 'clean' ? [rung.tempo] : []));
  return {
    ...{ item: itemId ?? `${kind} ${title}`, title, at: Date.parse(at), seconds, tempo },
    rating: correction?.rating ?? rating,
    // What a teacher judged otherwise, a teacher judged.
    by: correction === null ? by : 'teacher',
    cleanTempos: correction === null || correction.rating === 'clean' ? cleanTempos : [],
  };
}
