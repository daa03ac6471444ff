import { Component, computed, inject, input, model, output, signal, viewChild, type OnDestroy } from '@angular/core';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { signsWithoutFont } from './font-runs';
import type { SheetOnPaper } from './paper-layout';
import { keepPaperSize, paperSizes, type PaperSize } from './paper-size';
import { SheetPaperComponent } from './sheet-paper.component';
import { addressOfLine } from './sheet-printer.service';

/** Pages as they come out of the printer, and what is done with them: saved as PDF, printed, on another size. */
@Component({
  selector: 'zp-paper-desk',
  imports: [SheetPaperComponent],
  host: { style: 'display: contents' },
  template: `
    <section class="band" aria-label="Print">
      <div class="band-said">
        <p class="band-todo">Black and white, ready for the music stand.</p>
        <p class="band-else">{{ hint() }}</p>
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
    <main class="paper-preview page-fill"><zp-sheet-paper [sheet]="sheet()" [size]="size()" [address]="address" /></main>
  `,
})
export class PaperDeskComponent implements OnDestroy {
  private readonly notices = inject(NoticeService);
  readonly sheet = input.required<SheetOnPaper>();
  readonly size = model.required<PaperSize>();
  /** What is to be known of it. */
  readonly hint = input('');
  /** Under which name the PDF is saved; its title where none is given. */
  readonly fileTitle = input('');
  /** Back to what was printed. */
  readonly back = output();
  protected readonly sizes = paperSizes;
  protected readonly address = addressOfLine;
  protected readonly isBusy = signal(false);
  private readonly paper = viewChild(SheetPaperComponent);
  protected readonly isReady = computed(() => this.paper()?.isReady() === true);

  private readonly release = inject(KeyService).use('sheetPaper', { save: () => void this.savePdf(), edit: () => this.back.emit() });

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
    const [paper, sheet] = [this.paper(), this.sheet()];
    if (paper === undefined || !this.isReady() || this.isBusy()) return;
    this.isBusy.set(true);
    try {
      saveFile(fileNameOf(this.fileTitle() || sheet.title, 'pdf'), await paper.pdf());
      const without = signsWithoutFont([sheet.title, sheet.note, sheet.about, ...sheet.lines.map((line) => line.point)].join(''));
      if (without.length > 0) this.notices.done(`The PDF font has no character for ${without.slice(0, 8).join(' ')}. Use “Print” instead, which has them.`);
    } catch {
      this.notices.done('The PDF could not be made because its fonts did not load. Try again, or use “Print”.');
    } finally {
      this.isBusy.set(false);
    }
  }
}
