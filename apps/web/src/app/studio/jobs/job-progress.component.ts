import { Component, computed, inject, input, output } from '@angular/core';
import type { Job } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { NoticeService } from '../../kernel/notices/notice.service';
import { JobsService } from './jobs.service';

/** One piece of long work that is under way: what it is, how far, and the way to stop it. */
@Component({
  selector: 'zp-job-progress',
  template: `
    <div class="job" role="status">
      <span class="job-words">{{ words() }}</span>
      <progress class="job-ribbon" [attr.value]="share()" max="1" [attr.aria-label]="'How far ' + job().name + ' is'"></progress>
      <button type="button" class="word" [attr.aria-label]="'Stop ' + job().name" (click)="stop()">Stop</button>
    </div>
  `,
  styles: `
    .job {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 20px;
      margin-bottom: 16px;
    }
    .job-words {
      font-variant-numeric: tabular-nums;
    }
    .job-ribbon {
      flex: 1 1 160px;
      max-width: 320px;
      height: 12px;
      border: 1px solid currentColor;
      border-radius: 6px;
      background: transparent;
      appearance: none;
      overflow: hidden;
    }
    .job-ribbon::-webkit-progress-bar {
      background: transparent;
    }
    .job-ribbon::-webkit-progress-value {
      background: var(--brass);
    }
    .job-ribbon::-moz-progress-bar {
      background: var(--brass);
    }
  `,
})
export class JobProgressComponent {
  private readonly jobs = inject(JobsService);
  private readonly notices = inject(NoticeService);
  readonly job = input.required<Job>();
  readonly stopped = output();

  protected readonly share = computed(() => {
    const { done, of } = this.job();
    return of === null || of === 0 ? null : done / of;
  });

  protected readonly words = computed(() => {
    const { name, kind, state, done, of } = this.job();
    if (state === 'waiting') return `${name} waits for its turn.`;
    const [doing, one] = doings[kind];
    if (of === null || of === 0) return `${doing} ${name} …`;
    return `${doing} ${name}: ${done} of ${count(of, one)}.`;
  });

  protected stop(): void {
    this.jobs.stop(this.job().id).subscribe({
      next: ({ name }) => {
        this.notices.done(`${name} was stopped. Nothing of it was kept.`);
        this.stopped.emit();
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }
}

const doings = {
  'bring-tunes': ['Reading', 'tune'],
  'take-archive': ['Writing', 'thing'],
  'bring-archive': ['Restoring', 'thing'],
  listen: ['Listening to', 'second'],
} as const satisfies Readonly<Record<Job['kind'], readonly [doing: string, one: string]>>;
