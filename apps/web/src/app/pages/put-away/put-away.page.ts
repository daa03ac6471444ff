import { DatePipe } from '@angular/common';
import { Component, inject, signal } from '@angular/core';
import { bringBackRoute, putAwayDays, putAwayRoutes, type PutAway } from '@zelpit/contract';
import { ApiService, messageOf } from '../../kernel/api/api.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { StudioState } from '../../studio/state/studio-state.service';

/** What was put away: to be brought back, or, for a student, deleted for good. */
@Component({
  selector: 'zp-put-away',
  imports: [SentenceComponent, DatePipe],
  template: `
    <div class="page">
      <zp-sentence place="Studio"><span>What was put away</span></zp-sentence>
      <section class="band" aria-label="How it is kept">
        <div class="band-said">
          <p class="band-todo">Things you put away stay here for {{ days }} days.</p>
          <p class="band-else">Then they are deleted for good. You can delete a student, with all their sheets and instruments, right away.</p>
        </div>
      </section>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <button type="button" class="btn btn-solid" (click)="load()">Try again</button>
        } @else if (things(); as all) {
          <ul class="rows" style="max-width: 1000px">
            @for (thing of all; track thing.id) {
              <li class="d-flex flex-wrap align-items-center gap-3 py-1">
                <span class="put-away-name flex-grow-1">{{ thing.name }}</span>
                <span class="second">{{ kindText(thing) }}, until {{ thing.until | date: 'd MMMM' }}</span>
                <button type="button" class="word" [attr.aria-label]="'Bring back ' + thing.name" (click)="bringBack(thing)">Bring back</button>
                @if (thing.kind === 'student') {
                  @if (confirming() === thing.id) {
                    <span class="fault-text"
                      >{{ thing.name }} will be deleted for good, with all sheets, instruments, results and practice links. This cannot be undone.</span
                    >
                    <button type="button" class="btn btn-solid btn-low" (click)="forget(thing)">Delete {{ thing.name }}</button>
                    <button type="button" class="word" (click)="confirming.set('')">Cancel</button>
                  } @else {
                    <button type="button" class="word" [attr.aria-label]="'Delete ' + thing.name + ' for good'" (click)="confirming.set(thing.id)">
                      Delete for good
                    </button>
                  }
                }
              </li>
            } @empty {
              <li class="empty"><p>Nothing has been put away.</p></li>
            }
          </ul>
        } @else {
          <p class="second" role="status">Loading …</p>
        }
      </main>
    </div>
  `,
})
export class PutAwayPage {
  private readonly api = inject(ApiService);
  private readonly notices = inject(NoticeService);
  private readonly state = inject(StudioState);
  protected readonly days = putAwayDays;
  protected readonly kindText = ({ kind }: PutAway): string => (kind === 'model' ? 'workshop instrument' : kind);
  protected readonly things = signal<readonly PutAway[] | undefined>(undefined);
  protected readonly fault = signal('');
  /** Student whose deletion was asked for and not yet confirmed. */
  protected readonly confirming = signal('');

  constructor() {
    this.load();
  }

  protected load(): void {
    this.api.all(putAwayRoutes.putAway, {}).subscribe({
      next: (things) => {
        this.things.set(things);
        this.fault.set('');
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  protected bringBack(thing: PutAway): void {
    this.api.call(bringBackRoute(thing.kind), { id: thing.id }).subscribe({
      next: () => this.after(`${thing.name} is back.`),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected forget(thing: PutAway): void {
    this.api.call(putAwayRoutes.forgetStudent, { id: thing.id }).subscribe({
      next: () => this.after(`${thing.name} was deleted for good.`),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private after(text: string): void {
    this.confirming.set('');
    this.notices.done(text);
    this.load();
    this.state.loadStudents().subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }
}
