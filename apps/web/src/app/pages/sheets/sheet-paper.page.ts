import { Component, computed, inject, input, signal, viewChild, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { signsWithoutFont } from '../../music/paper/font-runs';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keepPaperSize, keptPaperSize, paperSizes, type PaperSize } from '../../music/paper/paper-size';
import { SheetPaperComponent } from '../../music/paper/sheet-paper.component';
import { ChooserComponent } from '../../kernel/chooser/chooser.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayInWords } from '../../kernel/words/words';
import { SheetEditor } from '../../documents/sheet/sheet-editor';
import { addressOfLine } from '../../music/paper/sheet-printer.service';

/** A sheet as it comes out of the printer. */
@Component({
  selector: 'zp-sheet-paper-page',
  providers: [SheetEditor],
  imports: [SentenceComponent, RouterLink, SheetPaperComponent, ChooserComponent],
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
        <section class="band" aria-label="Print">
          <div class="band-said">
            <p class="band-todo">Black and white, ready for the music stand.</p>
            <p class="band-else">Scan or type the code beside a line to practise it in Zelpit.</p>
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
        <main class="layer page-fill"><p class="second" role="status">Opening the sheet …</p></main>
      }
    </div>
  `,
})
export class SheetPaperPage implements OnDestroy {
  private readonly shelf = inject(InstrumentShelf);
  /** What is printed is what stands under the hand, also where it is not saved yet. */
  protected readonly editor = inject(SheetEditor);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  protected readonly words = inject(LineWordsChoice);
  readonly id = input.required<string>();
  protected readonly sizes = paperSizes;
  protected readonly size = signal<PaperSize>(keptPaperSize());
  protected readonly isBusy = signal(false);
  private readonly paper = viewChild(SheetPaperComponent);
  protected readonly isReady = computed(() => this.paper()?.isReady() === true);
  protected readonly address = addressOfLine;

  protected readonly onPaper = computed((): SheetOnPaper | undefined => {
    const [stored, draft] = [this.editor.stored(), this.editor.draft()];
    if (stored === undefined || draft === undefined) return undefined;
    const instrument = this.shelf.instrumentFor(stored.student.id, stored.instrument);
    const about = [...(stored.tune === null ? [] : [stored.tune.title]), nameOf(instrument), dayInWords(stored.updatedAt)].join(', ');
    return { title: draft.title, note: draft.note, about: `${about}.`, instrument, lines: this.editor.linesOut(), words: this.words.words() };
  });

  private readonly release = inject(KeyService).use('sheetPaper', {
    save: () => void this.savePdf(),
    edit: () => void this.router.navigate(['/sheets', this.id()]),
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
    const paper = this.paper();
    const sheet = this.onPaper();
    if (paper === undefined || sheet === undefined || !this.isReady() || this.isBusy()) return;
    this.isBusy.set(true);
    try {
      saveFile(fileNameOf(sheet.title, 'pdf'), await paper.pdf());
      const without = signsWithoutFont([sheet.title, sheet.note, sheet.about, ...sheet.lines.map((line) => line.point)].join(''));
      if (without.length > 0) this.notices.done(`The PDF font has no character for ${without.slice(0, 8).join(' ')}. Use “Print” instead, which has them.`);
    } catch {
      this.notices.done('The PDF could not be made because its fonts did not load. Try again, or use “Print”.');
    } finally {
      this.isBusy.set(false);
    }
  }
}
