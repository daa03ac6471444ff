import { DatePipe } from '@angular/common';
import { Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { sheetLimits, type SheetSummary } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { messageOf } from '../../kernel/api/api.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { ReviewsService } from '../../documents/sheet/reviews.service';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { dayOf } from '../../studio/lessons/lessons.service';

/** All practice sheets; those of the student in hand first. */
@Component({
  selector: 'zp-sheet-list',
  imports: [SentenceComponent, ForWhomComponent, RouterLink, DatePipe],
  template: `
    <div class="page">
      <zp-sentence place="Students"><span>Sheets</span><zp-for-whom /></zp-sentence>
      <section class="band" aria-label="Start a sheet">
        <div class="band-said">
          <p class="band-todo">Open a sheet, or start one.</p>
          <p class="band-else">The quickest way: open a tune and make its ten-minute sheet.</p>
        </div>
        <div class="band-actions">
          <a class="btn btn-solid" routerLink="/tunes">Go to the tunes</a>
          @if (state.student(); as student) {
            <button type="button" class="btn btn-line" [disabled]="isBusy()" (click)="start()">Empty sheet for {{ student.alias }}</button>
            <button type="button" class="btn btn-line" [disabled]="isBusy()" (click)="review()">Review for {{ student.alias }}</button>
          }
        </div>
      </section>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <button type="button" class="btn btn-solid" (click)="load()">Try again</button>
        } @else if (groups(); as all) {
          @for (group of all; track group.student) {
            <h2 class="group-title">{{ group.student }}</h2>
            <ul class="rows">
              @for (sheet of group.sheets; track sheet.id) {
                <li class="d-flex align-items-center gap-3">
                  <a class="row-link flex-grow-1" [routerLink]="pageOf(sheet)">
                    <span>{{ sheet.title }}</span>
                    <small>{{ sheet.isReview && !sheet.sentAt ? 'not sent yet' : sheet.tune?.title }}</small>
                    <small class="text-nowrap">{{ count(sheet.lineCount, 'line') }} · {{ sheet.updatedAt | date: 'd MMM, HH:mm' }}</small>
                  </a>
                  <a class="word text-nowrap" [routerLink]="[pageOf(sheet), 'paper']" [attr.aria-label]="'On paper: ' + sheet.title">On paper</a>
                  <button type="button" class="word quiet-action text-nowrap" [attr.aria-label]="'Put away ' + sheet.title" (click)="putAway(sheet)">
                    Put away
                  </button>
                </li>
              }
            </ul>
          } @empty {
            <div class="empty"><p>No sheets yet. Open a tune, tick the changes that go wrong, and make lines from them.</p></div>
          }
        } @else {
          <p class="second" role="status">Loading the sheets …</p>
        }
      </main>
    </div>
  `,
})
export class SheetListPage {
  protected readonly count = count;
  private readonly service = inject(SheetsService);
  private readonly reviews = inject(ReviewsService);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  protected readonly state = inject(StudioState);
  private readonly sheets = signal<readonly SheetSummary[] | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly isBusy = signal(false);

  protected readonly groups = computed(() => {
    const sheets = this.sheets();
    if (sheets === undefined) return undefined;
    const inHand = this.state.student()?.id;
    const byStudent = new Map<string, SheetSummary[]>();
    for (const sheet of [...sheets].sort((one, other) => Number(other.student.id === inHand) - Number(one.student.id === inHand))) {
      byStudent.set(sheet.student.alias, [...(byStudent.get(sheet.student.alias) ?? []), sheet]);
    }
    return [...byStudent].map(([student, own]) => ({ student, sheets: own }));
  });

  constructor() {
    this.load();
  }

  protected load(): void {
    this.service.list().subscribe({
      next: (sheets) => {
        this.sheets.set(sheets);
        this.fault.set('');
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  protected readonly pageOf = ({ id, isReview }: SheetSummary): string => `/${isReview ? 'reviews' : 'sheets'}/${id}`;

  /** A review without a lesson. */
  protected review(): void {
    const student = this.state.student();
    if (student === undefined) return;
    this.isBusy.set(true);
    this.reviews.begin(student.id, null, dayOf(new Date())).subscribe({
      next: (sheet) => void this.router.navigate(['/reviews', sheet.id]),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.notices.fault(error);
      },
    });
  }

  protected start(): void {
    const student = this.state.student();
    if (student === undefined) return;
    this.isBusy.set(true);
    const title = `Practice for ${student.alias}`.slice(0, sheetLimits.title);
    this.service.add({ studentId: student.id, tuneId: null, instrument: this.state.model().id, title, note: '', lines: [] }).subscribe({
      next: (sheet) => void this.router.navigate(['/sheets', sheet.id]),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.notices.fault(error);
      },
    });
  }

  protected putAway(sheet: SheetSummary): void {
    const failed = (error: unknown): void => this.notices.fault(error);
    this.service.putAway(sheet.id).subscribe({
      next: () => {
        this.load();
        this.notices.done(`“${sheet.title}” was put away. It can be brought back for 30 days.`, () =>
          this.service.bringBack(sheet.id).subscribe({ next: () => this.load(), error: failed }),
        );
      },
      error: failed,
    });
  }
}
