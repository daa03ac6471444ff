import { inject, Injectable } from '@angular/core';
import { reviewRoutes, type SentReview, type SheetDetail } from '@zelpit/contract';
import type { Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';

/** Reviews: sheets that are written after a lesson, and sent. */
@Injectable({ providedIn: 'root' })
export class ReviewsService {
  private readonly api = inject(ApiService);

  /** The review of a lesson, or one without: proposed, or the one that was begun. @param on the day by this browser's clock */
  begin(studentId: string, lessonId: string | null, on: string): Observable<SheetDetail> {
    return this.api.call(reviewRoutes.proposeReview, { body: { studentId, lessonId, on } });
  }

  /** Errors: `ApiFault` 409 where it was changed after it was read. */
  send(id: string, version: number, mailTo: string | null): Observable<SentReview> {
    return this.api.call(reviewRoutes.sendReview, { id, body: { version, mailTo } });
  }

  /** Errors: `ApiFault` 422 where it is too late. */
  takeBack(id: string): Observable<SheetDetail> {
    return this.api.call(reviewRoutes.takeReviewBack, { id, body: {} });
  }

  writeAnew(id: string): Observable<SheetDetail> {
    return this.api.call(reviewRoutes.writeReviewAnew, { id, body: {} });
  }

  /** The student has it before the eyes. */
  opened(id: string): Observable<undefined> {
    return this.api.call(reviewRoutes.openReview, { id, body: {} });
  }
}
