import { DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Job, JobKind } from '@zelpit/contract';
import { forkJoin } from 'rxjs';
import { NoticeService } from '../../kernel/notices/notice.service';
import { isEnded, JobsService } from './jobs.service';

/** Somebody's own long work of some kinds, each piece followed to its end for as long as the page is open that shows it. Made where things are injected. */
export class FollowedJobs {
  private readonly jobs = inject(JobsService);
  private readonly notices = inject(NoticeService);
  private readonly destroyed = inject(DestroyRef);
  private readonly followed = new Set<string>();
  readonly all = signal<readonly Job[]>([]);

  /** @param done is told of each piece that was under way here and is done */
  constructor(
    private readonly kinds: readonly JobKind[],
    private readonly done: (job: Job) => void = () => undefined,
  ) {
    this.refresh();
  }

  refresh(): void {
    forkJoin(this.kinds.map((kind) => this.jobs.list(kind))).subscribe({
      next: (lists) => {
        this.all.set(lists.flat());
        for (const job of lists.flat()) this.follow(job);
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** What was just handed over. */
  add(job: Job): void {
    this.all.update((all) => [job, ...all]);
    this.follow(job);
  }

  /** Takes what has ended off the list. */
  forget({ id }: Job): void {
    this.jobs.forget(id).subscribe({
      next: () => this.all.update((all) => all.filter((job) => job.id !== id)),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** To its end; what came of one that has ended is fetched once. */
  private follow(job: Job): void {
    const { id } = job;
    if (this.followed.has(id)) return;
    this.followed.add(id);
    this.jobs
      .follow(id)
      .pipe(takeUntilDestroyed(this.destroyed))
      .subscribe({
        next: (now) => {
          this.all.update((all) => all.map((each) => (each.id === id ? now : each)));
          if (!isEnded(job) && now.state === 'done') this.done(now);
        },
        error: (error: unknown) => {
          this.followed.delete(id);
          this.notices.fault(error);
        },
      });
  }
}
