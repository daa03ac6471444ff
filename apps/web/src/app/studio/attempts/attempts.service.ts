import { inject, Injectable } from '@angular/core';
import { attemptRoutes, type Attempt, type AttemptInput, type AttemptRating } from '@zelpit/contract';
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

  /** All that a student practised, or under one title, or since a moment, newest first. */
  of(student: string, { title, since }: { readonly title?: string; readonly since?: string } = {}): Observable<Attempt[]> {
    return this.api.all(attemptRoutes.attempts, { query: { student, ...(title !== undefined && { title }), ...(since !== undefined && { since }) } });
  }

  /** All that was judged in a lesson, newest first. */
  ofLesson(lesson: string): Observable<Attempt[]> {
    return this.api.all(attemptRoutes.attempts, { query: { lesson } });
  }

  correct(id: string, rating: AttemptRating, note = ''): Observable<Attempt> {
    return this.api.call(attemptRoutes.correctAttempt, { id, body: { rating, note } });
  }
}
