import { inject, Injectable } from '@angular/core';
import { attemptRoutes, type Attempt, type AttemptInput, type AttemptRating } from '@zelpit/contract';
import type { LogbookOf } from '@zelpit/core/practice';
import { map, type Observable } from 'rxjs';
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

  /** All that a student practised, or under one title, or since a moment, newest first. */
  of(student: string, { title, since }: { readonly title?: string; readonly since?: string } = {}): Observable<Attempt[]> {
    return this.api.all(attemptRoutes.attempts, { query: { student, ...(title !== undefined && { title }), ...(since !== undefined && { since }) } });
  }

  /** What a student's log says, worked out by the server. @param days of minutes; days are those of this browser's clock */
  logbook(student: string, { days = 28, since }: { readonly days?: number; readonly since?: string } = {}): Observable<LogbookOf> {
    const offset = -new Date().getTimezoneOffset();
    return this.api
      .call(attemptRoutes.logbook, { query: { student, days, offset, ...(since !== undefined && { since }) } })
      .pipe(map(({ items, ...rest }) => ({ ...rest, items: items.map(({ best, ...item }) => ({ ...item, best })) })));
  }

  /** The last tries of a student, newest first. */
  last(student: string, limit: number): Observable<readonly Attempt[]> {
    return this.api.call(attemptRoutes.attempts, { query: { student, limit } }).pipe(map(({ items }) => items));
  }

  /** All that was judged in a lesson, newest first. */
  ofLesson(lesson: string): Observable<Attempt[]> {
    return this.api.all(attemptRoutes.attempts, { query: { lesson } });
  }

  correct(id: string, rating: AttemptRating, note = ''): Observable<Attempt> {
    return this.api.call(attemptRoutes.correctAttempt, { id, body: { rating, note } });
  }
}
