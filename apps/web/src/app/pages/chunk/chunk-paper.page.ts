import { Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type Arrangement } from '@zelpit/contract';
import { chunkOf } from '@zelpit/core/chunk';
import { excerptOf, hardestPair, layersOfExcerpt, rowsOf } from '@zelpit/core/excerpt';
import type { LayerKind } from '@zelpit/core/movement';
import { scriptOf, scriptText } from '@zelpit/core/script';
import { messageOf } from '../../kernel/api/api.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayInWords } from '../../kernel/words/words';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { StudioState } from '../../studio/state/studio-state.service';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keptPaperSize } from '../../music/paper/paper-size';
import { PaperDeskComponent } from '../../music/paper/paper-desk.component';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { asPlayed, hasOtherNotes } from '../../documents/tune/as-played';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { rangeOf } from './stretch';

/** A piece of a tune as it comes out of the printer: its rows, the count over the fingers, the script. */
@Component({
  selector: 'zp-chunk-paper-page',
  imports: [SentenceComponent, RouterLink, PaperDeskComponent],
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
        <zp-paper-desk
          [sheet]="drawn"
          [(size)]="size"
          hint="One row at a time. The boxes are for clean times."
          [fileTitle]="drawn.title + ' ' + (opened()?.detail?.title ?? '')"
          (back)="back()"
        />
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class ChunkPaperPage {
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

  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  private readonly arrangement = signal<Arrangement>(noArrangement);
  protected readonly fault = signal('');
  protected readonly size = signal(keptPaperSize());

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

  protected back(): void {
    void this.router.navigate(['/tunes', this.id(), 'bars', this.stretch()]);
  }
}
