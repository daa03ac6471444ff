import { Component, computed, inject, input, signal } from '@angular/core';
import { longestLongTakeSeconds, type Job, type LongTakeAsked, type LongTakeResult, type TakeAsked } from '@zelpit/contract';
import type { AskedNote } from '@zelpit/core/listening';
import { waveFile } from '@zelpit/core/sound';
import { finalize } from 'rxjs';
import { messageOf } from '../../kernel/api/api.service';
import { SessionService } from '../../kernel/session/session.service';
import { clockText } from '../../kernel/words/words';
import { FollowedJobs } from '../../studio/jobs/followed-jobs';
import { JobProgressComponent } from '../../studio/jobs/job-progress.component';
import { isEnded, JobsService } from '../../studio/jobs/jobs.service';
import { sampleRate } from './take-sound';
import { longestMinutes, TakeSource } from './take-source.service';

/** What is opened around a place, so much before it and in all, in s. */
const [before, around] = [10, 30];

/** A file that is too long to be listened to at once: a part of it here, or all of it by the server, which says where it was worst. */
@Component({
  selector: 'zp-long-take',
  imports: [JobProgressComponent],
  template: `
    @if (source.long(); as long) {
      <section class="mb-3" aria-label="A long file">
        <p class="mb-2">
          <bdi>{{ long.name }}</bdi> is {{ clock(seconds()) }} long. Up to {{ longestMinutes }} minutes are listened to here.
        </p>
        <p class="d-flex flex-wrap align-items-center gap-3">
          <label class="long-from"
            >{{ longestMinutes }} minutes, from minute
            <input #from class="form-control" type="number" inputmode="numeric" min="0" [max]="lastMinute()" value="0"
          /></label>
          <button type="button" class="btn btn-line" (click)="openFrom(from.valueAsNumber)">Listen to these</button>
          @if (jobs) {
            <button type="button" class="btn btn-line" [disabled]="isSending() || !source.mayRecord() || isTooLong()" (click)="send()">
              {{ isSending() ? 'Sending …' : 'Let the server listen to all of it' }}
            </button>
          }
        </p>
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
        }
        @if (jobs) {
          <p class="second">
            @if (isTooLong()) {
              The server listens to half an hour at most: cut the file in two.
            } @else {
              The sound goes to the studio’s server and is deleted there once it has been listened to. {{ source.consentText() }}
            }
          </p>
        }
      </section>
    }
    @for (take of jobs?.all(); track take.id) {
      @if (!isEnded(take)) {
        <zp-job-progress [job]="take" (stopped)="jobs?.refresh()" />
      } @else {
        <section class="mb-3" [attr.aria-label]="'What was heard in ' + take.name">
          <p class="long-heard">
            <b
              ><bdi>{{ take.name }}</bdi></b
            >
            @if (take.state === 'stopped') {
              was stopped.
            } @else if (take.state === 'failed') {
              <span class="fault-text">{{ take.problem }}</span>
            } @else if (resultOf(take); as result) {
              {{ textOf(result) }}
            }
            <button type="button" class="word ms-3" [attr.aria-label]="'Take ' + take.name + ' off this page'" (click)="jobs?.forget(take)">
              Take this off
            </button>
          </p>
          @if (resultOf(take)?.worst; as worst) {
            <ol class="take-changes long-places" [attr.aria-label]="'Worst first in ' + take.name">
              @for (place of worst; track $index) {
                <li>
                  <button type="button" class="take-change" [disabled]="source.long()?.name !== take.name" (click)="openAt(place.at)">
                    <b>{{ clock(secondOf(place.at)) }}</b> <span class="wrongly">{{ place.text }}</span>
                  </button>
                </li>
              }
            </ol>
            @if (worst.length > 0 && source.long()?.name !== take.name) {
              <p class="second">Open the file again to hear these places.</p>
            }
          }
        </section>
      }
    }
  `,
  styles: `
    .long-from {
      display: flex;
      align-items: center;
      gap: 8px;
      white-space: nowrap;
    }
    .long-from .form-control {
      width: 5rem;
    }
    .long-heard {
      margin-bottom: 4px;
      font-size: 1.375rem;
    }
    .long-places {
      columns: 24rem;
    }
  `,
})
export class LongTakeComponent {
  private readonly work = inject(JobsService);
  private readonly session = inject(SessionService);
  protected readonly source = inject(TakeSource);
  protected readonly isEnded = isEnded;
  protected readonly clock = clockText;
  protected readonly longestMinutes = longestMinutes;
  readonly asked = input.required<TakeAsked>();
  /** What was asked for, once through. */
  readonly notes = input.required<readonly AskedNote[]>();
  readonly model = input.required<string>();
  /** Only those who teach have the server listen. */
  protected readonly jobs = this.mayAsk() ? new FollowedJobs(['listen']) : undefined;
  protected readonly isSending = signal(false);
  protected readonly fault = signal('');
  protected readonly seconds = computed(() => Math.round((this.source.long()?.samples.length ?? 0) / sampleRate));
  protected readonly lastMinute = computed(() => Math.floor(this.seconds() / 60));
  protected readonly isTooLong = computed(() => this.seconds() > longestLongTakeSeconds);

  protected openFrom(minute: number): void {
    if (Number.isNaN(minute) || minute < 0 || minute > this.lastMinute()) {
      this.fault.set(`Say a minute from 0 to ${this.lastMinute()}.`);
      return;
    }
    this.fault.set('');
    this.source.openPart(Math.round(minute * 60), longestMinutes * 60);
  }

  protected openAt(ms: number): void {
    this.source.openPart(Math.max(0, this.secondOf(ms) - before), around);
  }

  protected send(): void {
    const [long, asked] = [this.source.long(), this.asked()];
    if (long === undefined || this.isSending()) return;
    this.isSending.set(true);
    this.fault.set('');
    const wanted: LongTakeAsked =
      asked.kind === 'changes'
        ? { kind: 'changes', from: asked.from, to: asked.to }
        : {
            kind: 'piece',
            notes: this.notes().map(({ note, graceNotes, beats, isTied, bar, movement }) => ({
              note,
              graceNotes: [...graceNotes],
              beats,
              isTied,
              bar,
              movement,
            })),
          };
    const take = { studentId: this.source.who()?.id ?? null, name: long.name.slice(0, 200), model: this.model(), asked: wanted };
    this.work
      .listen(new Blob([waveFile(long.samples, sampleRate)]), take)
      .pipe(finalize(() => this.isSending.set(false)))
      .subscribe({ next: (job) => this.jobs?.add(job), error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  protected resultOf(job: Job): LongTakeResult | undefined {
    return job.kind === 'listen' ? (job.result ?? undefined) : undefined;
  }

  protected secondOf(ms: number): number {
    return Math.floor(ms / 1000);
  }

  /** "24:10: 312 of 340 as asked. Of 4 nothing is claimed." */
  protected textOf({ seconds, places, faulty, unsure }: LongTakeResult): string {
    const length = clockText(Math.round(seconds));
    if (places === 0) return `${length}: nothing that was asked for was heard.`;
    const open = unsure === 0 ? '' : ` Of ${unsure} nothing is claimed: they count as clean.`;
    return `${length}: ${places - faulty} of ${places} as asked.${open}`;
  }

  private mayAsk(): boolean {
    const role = this.session.role();
    return role === 'owner' || role === 'teacher';
  }
}
