import { Component, computed, inject, signal } from '@angular/core';
import { jobRoutes, type ArchiveResult, type Job } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { ApiService } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { sizeText } from '../../kernel/words/words';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { FollowedJobs } from '../../studio/jobs/followed-jobs';
import { isEnded, JobsService } from '../../studio/jobs/jobs.service';
import { JobProgressComponent } from '../../studio/jobs/job-progress.component';

/** The whole studio as one file: out, and in again. */
@Component({
  selector: 'zp-archive',
  imports: [SentenceComponent, JobProgressComponent],
  template: `
    <div class="page">
      <zp-sentence place="Studio"><span>Backup of the whole studio</span></zp-sentence>
      <section class="band" aria-label="Take out">
        <div class="band-said">
          <p class="band-todo">Save all students, tunes, sheets and instruments in one file.</p>
          <p class="band-else">
            It holds notes about children: keep it where only you can read it. No passwords; kept takes only if you choose them, where a guardian agrees.
          </p>
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="taking.isBusy() || isTaking()" (click)="take(false)">
            {{ isTaking() ? 'Writing …' : 'Write a backup' }}
          </button>
          <button type="button" class="btn btn-line" [disabled]="taking.isBusy() || isTaking()" (click)="take(true)">With kept takes, too</button>
        </div>
      </section>
      <main class="layer page-fill">
        @if (taking.fault()) {
          <p class="fault-text" role="alert">{{ taking.fault() }}</p>
        }
        @for (backup of backups(); track backup.id) {
          @if (!isEnded(backup)) {
            <zp-job-progress [job]="backup" (stopped)="work.refresh()" />
          } @else {
            <p class="d-flex flex-wrap align-items-center gap-3">
              @if (backup.state === 'done') {
                <a class="btn btn-solid btn-low" [href]="fileOf(backup)" [attr.download]="backup.name">Save {{ backup.name }}</a>
                <span class="second">{{ sizeOf(backup) }}</span>
              } @else {
                <span [class.fault-text]="backup.state === 'failed'"
                  ><b>{{ backup.name }}</b> {{ backup.state === 'failed' ? backup.problem : 'was stopped.' }}</span
                >
              }
              <button type="button" class="word" [attr.aria-label]="'Take ' + backup.name + ' off this page'" (click)="work.forget(backup)">
                Take this off
              </button>
            </p>
          }
        }
        @if (backups().length > 0) {
          <p class="second">The server keeps what it wrote for seven days, or until it is taken off. This page need not stay open meanwhile.</p>
        }
        <h2 class="heading">Restore a backup</h2>
        <p>Choose a backup saved here or on another computer. The whole file is checked first; if part of it is missing, nothing is changed.</p>
        <input #picker type="file" accept=".zip,application/zip" hidden (change)="pick($event)" />
        @if (file(); as chosen) {
          <p>
            <b>{{ chosen.name }}</b>
          </p>
          <div class="d-flex flex-wrap gap-3">
            <button type="button" class="btn btn-solid btn-low" [disabled]="isBringing()" (click)="bring('empty')">Restore into this empty studio</button>
            <button type="button" class="btn btn-line btn-low" [disabled]="isBringing()" (click)="bring('put-away')">
              Put away what is here, then restore
            </button>
            <button type="button" class="word" (click)="file.set(undefined)">Cancel</button>
          </div>
        } @else {
          <button type="button" class="btn btn-line" (click)="picker.click()">Choose a file</button>
        }
        @if (bringing.fault()) {
          <p class="fault-text mt-3" role="alert">{{ bringing.fault() }}</p>
        }
        <div class="mt-3">
          @for (restored of restores(); track restored.id) {
            @if (!isEnded(restored)) {
              <zp-job-progress [job]="restored" (stopped)="work.refresh()" />
            } @else {
              <p role="status">
                @if (restored.state === 'done' && restored.kind === 'bring-archive' && restored.result) {
                  {{ text(restored.result) }}
                } @else {
                  <b>{{ restored.name }}</b>
                  <span [class.fault-text]="restored.state === 'failed'">
                    {{ restored.state === 'failed' ? restored.problem : 'was stopped; nothing was changed.' }}</span
                  >
                }
                <button type="button" class="word ms-3" [attr.aria-label]="'Take ' + restored.name + ' off this page'" (click)="work.forget(restored)">
                  Take this off
                </button>
              </p>
            }
          }
        </div>
      </main>
    </div>
  `,
})
export class ArchivePage {
  protected readonly isEnded = isEnded;
  private readonly api = inject(ApiService);
  private readonly jobs = inject(JobsService);
  protected readonly taking = new Attempt();
  protected readonly bringing = new Attempt();
  protected readonly file = signal<File | undefined>(undefined);
  protected readonly work = new FollowedJobs(['take-archive', 'bring-archive']);
  protected readonly backups = computed(() => this.work.all().filter(({ kind }) => kind === 'take-archive'));
  protected readonly restores = computed(() => this.work.all().filter(({ kind }) => kind === 'bring-archive'));
  protected readonly isTaking = computed(() => this.backups().some((backup) => !isEnded(backup)));
  protected readonly isBringing = computed(() => this.bringing.isBusy() || this.restores().some((restored) => !isEnded(restored)));

  protected take(hasTakes: boolean): void {
    this.taking.run(this.api.call(jobRoutes.takeArchive, { query: { takes: hasTakes ? 'true' : undefined } }), (job) => this.work.add(job));
  }

  protected pick(event: Event): void {
    const field = event.target as HTMLInputElement;
    this.file.set(field.files?.[0]);
    this.bringing.fault.set('');
    field.value = '';
  }

  protected bring(before: 'empty' | 'put-away'): void {
    const file = this.file();
    if (file === undefined) return;
    const query = { before, name: file.name.slice(0, 200) };
    this.bringing.run(this.api.call(jobRoutes.bringArchive, { query, body: file }), (job) => {
      this.work.add(job);
      this.file.set(undefined);
    });
  }

  protected fileOf({ id }: Job): string {
    return this.jobs.fileAddress(id);
  }

  protected sizeOf(job: Job): string {
    return sizeText(job.kind === 'take-archive' ? (job.result?.bytes ?? 0) : 0);
  }

  protected text({ counts, newCodes, putAway }: ArchiveResult): string {
    const all = inOrder(counts).filter(([kind, number]) => number > 0 || always.includes(kind));
    const codes = newCodes === 0 ? '' : ` ${newCodes} lines have new codes because their old codes were already in use. Print those sheets again.`;
    const before = putAway === 0 ? '' : ` ${putAway} things that were here before were put away.`;
    return `Restored: ${all.map(([kind, number]) => counted(kind, number)).join(', ')}.${codes}${before}`;
  }
}

/** Named even where there is none. */
const always = ['student', 'tune', 'sheet'];
/** Kinds of thing that are not called by their own name with an s. */
const names: Readonly<Record<string, readonly [one: string, several: string]>> = {
  model: ['workshop instrument', 'workshop instruments'],
  trial: ['result', 'results'],
  attempt: ['try', 'tries'],
};

/** As a teacher would name them; kinds that are not among these come last. */
const order = ['student', 'tune', 'lesson', 'sheet', 'instrument', 'model', 'fingering', 'movement', 'arrangement', 'attempt', 'trial', 'take'];
const placeOf = (kind: string): number => (order.includes(kind) ? order.indexOf(kind) : order.length);
const inOrder = (counts: ArchiveResult['counts']) => Object.entries(counts).sort(([one], [other]) => placeOf(one) - placeOf(other));

function counted(kind: string, number: number): string {
  const [one, several] = names[kind] ?? [kind, `${kind}s`];
  return count(number, one, several);
}
