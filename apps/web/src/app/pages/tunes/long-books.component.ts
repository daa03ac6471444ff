import { Component, output } from '@angular/core';
import type { ImportResult, Job } from '@zelpit/contract';
import { FollowedJobs } from '../../studio/jobs/followed-jobs';
import { isEnded } from '../../studio/jobs/jobs.service';
import { JobProgressComponent } from '../../studio/jobs/job-progress.component';
import { ImportResultComponent } from './import-result.component';

/** Long books that the server reads by itself: how far they are, and what came of them, also of those that came in while this page was closed. */
@Component({
  selector: 'zp-long-books',
  imports: [JobProgressComponent, ImportResultComponent],
  template: `
    @for (book of books.all(); track book.id) {
      @if (!isEnded(book)) {
        <zp-job-progress [job]="book" (stopped)="books.refresh()" />
      } @else {
        <section class="mb-3" [attr.aria-label]="'What came of ' + book.name">
          <p class="mb-1">
            <b>{{ book.name }}</b>
            @if (book.state === 'stopped') {
              was stopped; nothing of it was added.
            } @else if (book.state === 'failed') {
              <span class="fault-text">{{ book.problem }}</span>
            } @else {
              has been read.
            }
            <button type="button" class="word ms-3" [attr.aria-label]="'Take ' + book.name + ' off this page'" (click)="books.forget(book)">
              Take this off
            </button>
          </p>
          @if (resultOf(book); as result) {
            <zp-import-result [result]="result" />
          }
        </section>
      }
    }
  `,
})
export class LongBooksComponent {
  protected readonly isEnded = isEnded;
  /** Some tunes came in. */
  readonly arrived = output();
  protected readonly books = new FollowedJobs(['bring-tunes'], () => this.arrived.emit());

  /** A book that was just handed over. */
  add(book: Job): void {
    this.books.add(book);
  }

  protected resultOf(book: Job): ImportResult | undefined {
    return book.kind === 'bring-tunes' ? (book.result ?? undefined) : undefined;
  }
}
