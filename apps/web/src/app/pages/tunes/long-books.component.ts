import { Component, inject, output, signal } from '@angular/core';
import type { ImportResult, Job } from '@zelpit/contract';
import { NoticeService } from '../../kernel/notices/notice.service';
import { isEnded, JobsService } from '../../studio/jobs/jobs.service';
import { JobProgressComponent } from '../../studio/jobs/job-progress.component';
import { ImportResultComponent } from './import-result.component';

/** Long books that the server reads by itself: how far they are, and what came of them, also of those that came in while this page was closed. */
@Component({
  selector: 'zp-long-books',
  imports: [JobProgressComponent, ImportResultComponent],
  template: `
    @for (book of books(); track book.id) {
      @if (!isEnded(book)) {
        <zp-job-progress [job]="book" (stopped)="refresh()" />
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
            <button type="button" class="word ms-3" [attr.aria-label]="'Take ' + book.name + ' off this page'" (click)="forget(book)">Take this off</button>
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
  private readonly jobs = inject(JobsService);
  private readonly notices = inject(NoticeService);
  /** Some tunes came in. */
  readonly arrived = output();
  protected readonly books = signal<readonly Job[]>([]);
  private readonly followed = new Set<string>();

  constructor() {
    this.refresh();
  }

  /** A book that was just handed over. */
  add(book: Job): void {
    this.books.update((books) => [book, ...books]);
    this.follow(book.id, true);
  }

  protected resultOf(book: Job): ImportResult | undefined {
    return book.kind === 'bring-tunes' ? (book.result ?? undefined) : undefined;
  }

  protected refresh(): void {
    this.jobs.list('bring-tunes').subscribe({
      next: (books) => {
        this.books.set(books);
        for (const book of books) this.follow(book.id, !isEnded(book));
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected forget({ id }: Job): void {
    this.jobs.forget(id).subscribe({
      next: () => this.books.update((books) => books.filter((book) => book.id !== id)),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** To its end; what came of one that has ended is fetched once. */
  private follow(id: string, isUnderWay: boolean): void {
    if (this.followed.has(id)) return;
    this.followed.add(id);
    this.jobs.follow(id).subscribe({
      next: (now) => {
        this.books.update((books) => books.map((book) => (book.id === id ? now : book)));
        if (isEnded(now) && isUnderWay && now.state === 'done') this.arrived.emit();
      },
      error: (error: unknown) => {
        this.followed.delete(id);
        this.notices.fault(error);
      },
    });
  }
}
