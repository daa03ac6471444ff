import { Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { countText, lineTitle, paceText } from '@zelpit/core/line';
import { reviewItemText, reviewMinutes, stands, watchText } from '@zelpit/core/review';
import { count } from '@zelpit/core/words';
import { hasMusic, type SheetDetail } from '@zelpit/contract';
import { forkJoin, of, switchMap } from 'rxjs';
import { messageOf } from '../../kernel/api/api.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { PainCautionComponent } from '../../music/lines/pain-caution.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { SessionService } from '../../kernel/session/session.service';
import { dayOf } from '../../studio/lessons/lessons.service';
import { ReviewsService } from '../../documents/sheet/reviews.service';
import { SheetsService } from '../../documents/sheet/sheets.service';

/** A student's own sheets: each line opens for playing along. */
@Component({
  selector: 'zp-mine',
  imports: [SentenceComponent, ForWhomComponent, RouterLink, PainCautionComponent],
  template: `
    <div class="page">
      <zp-sentence>
        @if (isStaff()) {
          <span>Practice</span><zp-for-whom [hasInstrument]="false" />
        } @else {
          <span class="quiet">Practice for </span><span>{{ session.person()?.name }}</span>
        }
      </zp-sentence>
      <nav class="ways-out layer pb-0" aria-label="My pages">
        @if (!isStaff()) {
          <a class="word" routerLink="/mine/logbook">{{ isParent() ? 'What was practised' : 'My logbook' }}</a>
          <a class="word" routerLink="/takes">{{ isParent() ? 'Takes that are kept' : 'My takes' }}</a>
        }
        @if (!isParent()) {
          <a class="word" routerLink="/charts">My chart</a>
          <a class="word" routerLink="/changes/ear">Ear test</a>
          <a class="word" routerLink="/changes/take">Record a take</a>
          <a class="word" routerLink="/changes/held">Held notes</a>
          <a class="word" routerLink="/changes/keys">Play on keys</a>
          <a class="word" routerLink="/changes/hunt">Find the faults</a>
          <a class="word" routerLink="/movements">Movements</a>
        }
        <button type="button" class="word" (click)="leave()">Sign out</button>
      </nav>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <button type="button" class="btn btn-solid" (click)="load()">Try again</button>
        } @else if (sheets(); as all) {
          @for (sheet of ofStudent(all); track sheet.id) {
            <h2 class="heading mt-3">{{ sheet.title }}</h2>
            @if (sheet.review; as review) {
              @if (review.priority; as first) {
                @if (stands(first, today)) {
                  <p class="review-frame" dir="auto">
                    <b>First of all: {{ first.text }}</b> {{ first.sentence }}
                  </p>
                }
              }
              <p class="second">{{ count(minutesOf(sheet), 'minute') }} a day, in this order, daily or oftener.</p>
            }
            @if (sheet.note) {
              <p>{{ sheet.note }}</p>
            }
            <ol class="rows">
              @for (line of sheet.lines; track line.id) {
                <li>
                  <a class="row-link" [routerLink]="isParent() ? null : ['/c', line.code]">
                    <span dir="auto">{{ titleOf(sheet, line) }}</span>
                    <small dir="auto">{{ watchOf(sheet, line) }}</small>
                    @if (sheet.isReview) {
                      <small>{{ textOf(line) }}</small>
                    } @else if (line.kind !== 'words') {
                      <small>{{ countText(line) }} · {{ paceText(line) }}</small>
                    } @else if (line.repetitions > 1) {
                      <small>{{ line.repetitions }} times</small>
                    }
                  </a>
                </li>
              } @empty {
                <li class="second">No lines on this sheet yet.</li>
              }
            </ol>
          } @empty {
            <div class="empty"><p>No sheets yet. Your teacher will put one here.</p></div>
          }
          <zp-pain-caution />
        } @else {
          <p class="second" role="status">Loading your sheets …</p>
        }
      </main>
    </div>
  `,
})
export class MinePage {
  private readonly shelf = inject(InstrumentShelf);
  private readonly service = inject(SheetsService);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  private readonly reviews = inject(ReviewsService);
  protected readonly today = dayOf(new Date());
  protected readonly count = count;
  protected readonly stands = stands;
  protected readonly textOf = reviewItemText;
  protected readonly countText = countText;
  protected readonly paceText = paceText;
  private readonly state = inject(StudioState);
  protected readonly session = inject(SessionService);
  protected readonly isParent = computed(() => this.session.role() === 'parent');
  protected readonly isStaff = computed(() => !this.session.isFamily());
  protected readonly sheets = signal<readonly SheetDetail[] | undefined>(undefined);
  protected readonly fault = signal('');

  constructor() {
    this.load();
  }

  /** A teacher sees what the student that is chosen now has; a student gets only their own. */
  protected ofStudent(all: readonly SheetDetail[]): readonly SheetDetail[] {
    const student = this.state.student();
    const own = this.isStaff() && student !== undefined ? all.filter((sheet) => sheet.student.id === student.id) : all;
    // What was sent comes before what lies there.
    return [...own].sort((one, other) => Number(other.isReview) - Number(one.isReview));
  }

  protected load(): void {
    const details = switchMap((sheets: readonly { id: string }[]) => (sheets.length === 0 ? of([]) : forkJoin(sheets.map(({ id }) => this.service.get(id)))));
    this.service
      .list()
      .pipe(details)
      .subscribe({
        next: (sheets) => {
          this.sheets.set(sheets);
          this.noteOpened(sheets);
          this.fault.set('');
        },
        error: (error: unknown) => this.fault.set(messageOf(error)),
      });
  }

  protected minutesOf({ lines }: SheetDetail): number {
    return reviewMinutes(lines);
  }

  /** What to watch, what to do when it is too fast, and praise. */
  protected watchOf({ isReview, student, instrument }: SheetDetail, line: SheetDetail['lines'][number]): string {
    if (!isReview) return line.point;
    const { watch, tooFast } = watchText(this.shelf.instrumentFor(student.id, instrument), line);
    return [watch, tooFast === '' ? '' : `Too fast? ${tooFast}`, line.details?.praise ?? ''].filter((text) => text !== '').join(' ');
  }

  protected titleOf(sheet: SheetDetail, line: SheetDetail['lines'][number]): string {
    return hasMusic(line) ? lineTitle(this.shelf.instrumentFor(sheet.student.id, sheet.instrument), line) : line.text;
  }

  /** The teacher sees when a review was opened first; who practises notices nothing of it. */
  private noteOpened(sheets: readonly SheetDetail[]): void {
    if (this.session.role() !== 'student') return;
    for (const { id } of sheets.filter(({ isReview, openedAt }) => isReview && openedAt === null))
      this.reviews.opened(id).subscribe({ error: () => undefined });
  }

  protected leave(): void {
    this.session.signOut().subscribe({ next: () => void this.router.navigate(['/sign-in']), error: (error: unknown) => this.notices.fault(error) });
  }
}
