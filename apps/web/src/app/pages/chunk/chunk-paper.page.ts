import { Component, computed, effect, inject, input, signal, untracked, viewChild, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type Arrangement } from '@zelpit/contract';
import { chunkOf } from '@zelpit/core/chunk';
import { excerptOf, hardestPair, layersOfExcerpt, rowsOf } from '@zelpit/core/excerpt';
import type { LayerKind } from '@zelpit/core/movement';
import { scriptOf, scriptText } from '@zelpit/core/script';
import { messageOf } from '../../kernel/api/api.service';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayInWords } from '../../kernel/words/words';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { StudioState } from '../../studio/state/studio-state.service';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keepPaperSize, keptPaperSize, paperSizes, type PaperSize } from '../../music/paper/paper-size';
import { SheetPaperComponent } from '../../music/paper/sheet-paper.component';
import { addressOfLine } from '../../music/paper/sheet-printer.service';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { asPlayed, hasOtherNotes } from '../../documents/tune/as-played';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { rangeOf } from './stretch';

/** A piece of a tune as it comes out of the printer: its rows, the count over the fingers, the script. */
@Component({
  selector: 'zp-chunk-paper-page',
  imports: [SentenceComponent, RouterLink, SheetPaperComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" [routerLink]="['/tunes', id(), 'bars', stretch()]">{{ onPaper()?.title ?? 'A bar' }}</a>
        <span class="quiet"> on </span><span>{{ size().name }} paper</span>
      </zp-sentence>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">To the tunes</a>
        </main>
      } @else if (onPaper(); as drawn) {
        <section class="band" aria-label="Print">
          <div class="band-said">
            <p class="band-todo">Black and white, ready for the music stand.</p>
            <p class="band-else">One row at a time. The boxes are for clean times.</p>
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
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class ChunkPaperPage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly book = inject(MovementBook);
  private readonly words = inject(LineWordsChoice);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  readonly id = input.required<string>();
  readonly stretch = input.required<string>();

  private readonly opened = signal<OpenedTune | undefined>(undefined);
  private readonly arrangement = signal<Arrangement>(noArrangement);
  protected readonly fault = signal('');
  protected readonly sizes = paperSizes;
  protected readonly size = signal<PaperSize>(keptPaperSize());
  protected readonly isBusy = signal(false);
  private readonly paper = viewChild(SheetPaperComponent);
  protected readonly isReady = computed(() => this.paper()?.isReady() === true);
  protected readonly address = addressOfLine;

  protected readonly onPaper = computed((): SheetOnPaper | undefined => {
    const stored = this.opened();
    if (stored === undefined) return undefined;
    const opened = asPlayed(stored, this.arrangement());
    const found = chunkOf(opened.instrument, opened.tune, rangeOf(this.stretch()), opened.detail.chordNote);
    if (found.kind === 'none') return undefined;
    const { instrument, detail } = opened;
    const { chunk } = found;
    const all = layersOfExcerpt(this.arrangement());
    const layers = new Map(chunk.sources.flatMap((source, index) => (all.has(source) ? [[index, all.get(source) as LayerKind] as const] : [])));
    const { rows, decorated } = rowsOf(instrument, chunk.tune, layers, { own: this.book.own() });
    const own = hasOtherNotes(this.arrangement()) ? undefined : detail.about.scripts[this.stretch()];
    const script = own ?? scriptText(scriptOf(instrument, chunk, { decorated }));
    const excerpt = { ...excerptOf(detail.title, chunk.title, chunk.tune, layers), rows: rows.map(({ kind }) => kind), script };
    const [home, other] = hardestPair(instrument, chunk.tune);
    const student = this.state.student();
    return {
      title: `${chunk.title}${student === undefined ? '' : `, for ${student.alias}`}`,
      about: `${detail.title}, ${nameOf(instrument)}, ${dayInWords(new Date().toISOString())}.`,
      note: 'One row at a time. Bare notes first; the click comes only in row 4.',
      instrument,
      isOnePiece: true,
      words: this.words.words(),
      lines: [{ kind: 'chunk', home, other, repetitions: 1, tempo: null, point: '', code: '', excerpt }],
    };
  });

  private readonly release = inject(KeyService).use('sheetPaper', {
    save: () => void this.savePdf(),
    edit: () => void this.router.navigate(['/tunes', this.id(), 'bars', this.stretch()]),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      const student = this.state.student();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => {
        this.tunes.open(id).subscribe({ next: (opened) => this.opened.set(opened), error: (error: unknown) => this.fault.set(messageOf(error)) });
        if (student !== undefined)
          this.arrangements
            .get(id, student.id)
            .subscribe({ next: ({ arrangement }) => this.arrangement.set(arrangement), error: (error: unknown) => this.notices.fault(error) });
      });
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
    this.book.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
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
    const [paper, sheet] = [this.paper(), this.onPaper()];
    if (paper === undefined || sheet === undefined || !this.isReady() || this.isBusy()) return;
    this.isBusy.set(true);
    try {
      saveFile(fileNameOf(`${sheet.title} ${this.opened()?.detail.title ?? ''}`, 'pdf'), await paper.pdf());
    } catch {
      this.notices.done('The PDF could not be made because its fonts did not load. Try again, or use “Print”.');
    } finally {
      this.isBusy.set(false);
    }
  }
}
