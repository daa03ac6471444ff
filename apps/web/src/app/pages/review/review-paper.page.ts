import { Component, computed, inject, input, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { reviewMinutes, withTempos } from '@zelpit/core/review';
import { count } from '@zelpit/core/words';
import { SheetEditor } from '../../documents/sheet/sheet-editor';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayAndMonth } from '../../kernel/words/words';
import { SessionService } from '../../kernel/session/session.service';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keptPaperSize } from '../../music/paper/paper-size';
import { PaperDeskComponent } from '../../music/paper/paper-desk.component';
import { dayAfter } from '../../studio/lessons/lessons.service';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';

const daysOnPaper = 7;

/** A review as it comes out of the printer: what comes first in a frame, the items in their order, a box for each day. */
@Component({
  selector: 'zp-review-paper',
  providers: [SheetEditor],
  imports: [SentenceComponent, RouterLink, PaperDeskComponent],
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
        <zp-paper-desk
          [sheet]="drawn"
          [(size)]="size"
          [hint]="editor.stored()?.sentAt ? 'One code opens all of it.' : 'Its code opens nothing until it is sent.'"
          (back)="back()"
        />
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the review …</p></main>
      }
    </div>
  `,
})
export class ReviewPaperPage {
  private readonly shelf = inject(InstrumentShelf);
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  protected readonly editor = inject(SheetEditor);
  readonly id = input.required<string>();
  protected readonly size = signal(keptPaperSize());

  protected readonly onPaper = computed((): SheetOnPaper | undefined => {
    const [stored, draft] = [this.editor.stored(), this.editor.draft()];
    const review = draft?.review ?? null;
    if (stored === undefined || draft === undefined || review === null) return undefined;
    const instrument = this.shelf.instrumentFor(stored.student.id, stored.instrument);
    const items = withTempos(draft.lines);
    const code = stored.sentAt === null ? '' : (stored.lines.at(0)?.code ?? '');
    return {
      title: `${stored.student.alias}, until ${dayAndMonth(review.until)}`,
      about: `${count(reviewMinutes(items), 'minute')} a day on the ${nameOf(instrument)}, in this order. ${this.session.person()?.name ?? ''}, ${dayAndMonth(review.on)}.`,
      ...{ note: draft.note, instrument, lines: items.map((item) => ({ ...item, code: this.editor.codeOf(item) })) },
      review: {
        priority: review.priority?.text ?? '',
        sentence: review.priority?.sentence ?? '',
        code,
        days: Array.from({ length: daysOnPaper }, (_, day) => letterOf(dayAfter(review.on, day + 1))),
      },
    };
  });

  constructor() {
    this.editor.follow(this.id);
  }

  protected back(): void {
    void this.router.navigate(['/reviews', this.id()]);
  }
}

const letterOf = (day: string): string => new Intl.DateTimeFormat('en-GB', { weekday: 'narrow', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));
