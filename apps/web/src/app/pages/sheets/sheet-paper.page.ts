import { Component, computed, inject, input, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keptPaperSize } from '../../music/paper/paper-size';
import { PaperDeskComponent } from '../../music/paper/paper-desk.component';
import { ChooserComponent } from '../../kernel/chooser/chooser.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayInWords } from '../../kernel/words/words';
import { SheetEditor } from '../../documents/sheet/sheet-editor';

/** A sheet as it comes out of the printer. */
@Component({
  selector: 'zp-sheet-paper-page',
  providers: [SheetEditor],
  imports: [SentenceComponent, RouterLink, PaperDeskComponent, ChooserComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" [routerLink]="['/sheets', id()]">{{ onPaper()?.title ?? 'A sheet' }}</a>
        <span class="quiet"> on </span><span>{{ size().name }} paper</span><span class="quiet">, below the notes: </span>
        <zp-chooser purpose="Under the notes" [value]="words.kind()" [choices]="words.choices" (valueChange)="words.choose($event)" />
      </zp-sentence>
      @if (editor.state() === 'missing') {
        <main class="layer page-fill empty">
          <p class="fault-text">{{ editor.message() }}</p>
          <a class="btn btn-solid" routerLink="/sheets">To the sheets</a>
        </main>
      } @else if (onPaper(); as drawn) {
        <zp-paper-desk [sheet]="drawn" [(size)]="size" hint="Scan or type the code beside a line to practise it in Zelpit." (back)="back()" />
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the sheet …</p></main>
      }
    </div>
  `,
})
export class SheetPaperPage {
  private readonly shelf = inject(InstrumentShelf);
  /** What is printed is what stands under the hand, also where it is not saved yet. */
  protected readonly editor = inject(SheetEditor);
  private readonly router = inject(Router);
  protected readonly words = inject(LineWordsChoice);
  readonly id = input.required<string>();
  protected readonly size = signal(keptPaperSize());

  protected readonly onPaper = computed((): SheetOnPaper | undefined => {
    const [stored, draft] = [this.editor.stored(), this.editor.draft()];
    if (stored === undefined || draft === undefined) return undefined;
    const instrument = this.shelf.instrumentFor(stored.student.id, stored.instrument);
    const about = [...(stored.tune === null ? [] : [stored.tune.title]), nameOf(instrument), dayInWords(stored.updatedAt)].join(', ');
    return { title: draft.title, note: draft.note, about: `${about}.`, instrument, lines: this.editor.linesOut(), words: this.words.words() };
  });

  constructor() {
    this.editor.follow(this.id);
  }

  protected back(): void {
    void this.router.navigate(['/sheets', this.id()]);
  }
}
