import { Component, computed, inject, input, signal, viewChild, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { reviewMinutes, withTempos } from '@zelpit/core/review';
import { count } from '@zelpit/core/words';
import { SheetEditor } from '../../documents/sheet/sheet-editor';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keepPaperSize, keptPaperSize, paperSizes, type PaperSize } from '../../music/paper/paper-size';
import { SheetPaperComponent } from '../../music/paper/sheet-paper.component';
import { addressOfLine } from '../../music/paper/sheet-printer.service';
import { dayAfter } from '../../studio/lessons/lessons.service';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';

const daysOnPaper = 7;

/** A review as it comes out of the printer: what comes first in a frame, the items in their order, a box for each day. */
@Component({
  selector: 'zp-review-paper',
  providers: [SheetEditor],
  imports: [SentenceComponent, RouterLink, SheetPaperComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" [routerLink]="['/reviews', id()]">Review</a>
        <span class="quiet"> for </span><span>{{ editor.stored()?.student?.alias ?? 'a student' }}</span
        ><span class="quiet"> on </span><span>{{ size().name }} paper</span>
      </zp-sentence>
      @if (editor.state() === 'missing') {
        <main class="layer page-fill empty">
          <p class="fault-text">{{ editor.message() }}</p>
          <a class="btn btn-solid" routerLink="/today">To the lessons</a>
        </main>
      } @else if (onPaper(); as drawn) {
        <section class="band" aria-label="Print">
          <div class="band-said">
            <p class="band-todo">Black and white, ready for the music stand.</p>
            <p class="band-else">{{ editor.stored()?.sentAt ? 'One code opens all of it.' : 'Its code opens nothing until it is sent.' }}</p>
          </div>
          <div class="band-actions">
            <button type="button" class="btn btn-solid" [disabled]="!isReady() || isBusy()" (click)="savePdf()">
              {{ isBusy() ? 'Making the PDF …' : 'Save as PDF' }} <kbd>D</kbd>
            </button>
            <button type="button" class="btn btn-line" [disabled]="!isReady()" (click)="print()">Print</button>
            @for (each of sizes; track each.id) {
              <button type="button" class="btn btn-line" [class.is-on]="each === size()" [attr.aria-pressed]="each === size()" (click)="choose(each)">
                {{ each.name }}
              </button>
            }
          </div>
        </section>
        <main class="paper-preview page-fill"><zp-sheet-paper [sheet]="drawn" [size]="size()" [address]="address" /></main>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the review …</p></main>
      }
    </div>
  `,
})
export class ReviewPaperPage implements OnDestroy {
  private readonly shelf = inject(InstrumentShelf);
  private readonly session = inject(SessionService);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  protected readonly editor = inject(SheetEditor);
  readonly id = input.required<string>();
  protected readonly sizes = paperSizes;
  protected readonly size = signal<PaperSize>(keptPaperSize());
  protected readonly isBusy = signal(false);
  private readonly paper = viewChild(SheetPaperComponent);
  protected readonly isReady = computed(() => this.paper()?.isReady() === true);
  protected readonly address = addressOfLine;

  protected readonly onPaper = computed((): SheetOnPaper | undefined => {
    const [stored, draft] = [this.editor.stored(), this.editor.draft()];
    const review = draft?.review ?? null;
    if (stored === undefined || draft === undefined || review === null) return undefined;
    const instrument = this.shelf.instrumentFor(stored.student.id, stored.instrument);
    const items = withTempos(draft.lines);
    const code = stored.sentAt === null ? '' : (stored.lines.at(0)?.code ?? '');
    return {
      title: `${stored.student.alias}, until ${dayName(review.until)}`,
      about: `${count(reviewMinutes(items), 'minute')} a day on the ${nameOf(instrument)}, in this order. ${this.session.person()?.name ?? ''}, ${dayName(review.on)}.`,
      ...{ note: draft.note, instrument, lines: items.map((item) => ({ ...item, code: this.editor.codeOf(item) })) },
      review: {
        priority: review.priority?.text ?? '',
        sentence: review.priority?.sentence ?? '',
        code,
        days: Array.from({ length: daysOnPaper }, (_, day) => letterOf(dayAfter(review.on, day + 1))),
      },
    };
  });

  private readonly release = inject(KeyService).use('sheetPaper', {
    save: () => void this.savePdf(),
    edit: () => void this.router.navigate(['/reviews', this.id()]),
  });

  constructor() {
    this.editor.follow(this.id);
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected choose(size: PaperSize): void {
    this.size.set(size);
    keepPaperSize(size);
  }

  protected print(): void {
    print();
  }

  protected async savePdf(): Promise<void> {
    const [paper, drawn] = [this.paper(), this.onPaper()];
    if (paper === undefined || drawn === undefined || !this.isReady() || this.isBusy()) return;
    this.isBusy.set(true);
    try {
      saveFile(fileNameOf(drawn.title, 'pdf'), await paper.pdf());
    } catch {
      this.notices.done('The PDF could not be made because its fonts did not load. Try again, or use “Print”.');
    } finally {
      this.isBusy.set(false);
    }
  }
}

const dayName = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));
const letterOf = (day: string): string => new Intl.DateTimeFormat('en-GB', { weekday: 'narrow', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));
