import { Component, computed, effect, inject, input, signal, untracked, viewChild, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type Arrangement } from '@zelpit/contract';
import { arrangedTune, excerptOf, hardestPair, newNotesOf } from '@zelpit/core';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent } from '../../kernel/chooser/chooser.component';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keepPaperSize, keptPaperSize, paperSizes, type PaperSize } from '../../music/paper/paper-size';
import { SheetPaperComponent } from '../../music/paper/sheet-paper.component';
import { addressOfLine } from '../../music/paper/sheet-printer.service';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';

/** Staff of 46 px, 12 mm, for young eyes and a stand. */
const pupilScale = 1.48;

/** A tune on paper for one pupil: a large staff, letters or words, rings and fingers for the new notes only. */
@Component({
  selector: 'zp-tune-paper-page',
  imports: [SentenceComponent, RouterLink, SheetPaperComponent, ChooserComponent, ForWhomComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" [routerLink]="['/tunes', id()]">{{ opened()?.detail?.title ?? 'A tune' }}</a>
        <zp-for-whom [hasInstrument]="false" /><span class="quiet"> on </span><span>{{ size().name }} paper</span><span class="quiet">, below the notes: </span>
        <zp-chooser purpose="Under the notes" [value]="words.kind()" [choices]="words.choices" (valueChange)="words.choose($event)" />
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
            <p class="band-else">{{ newText() }}</p>
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
export class TunePaperPage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  protected readonly words = inject(LineWordsChoice);
  readonly id = input.required<string>();

  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  private readonly arrangement = signal<Arrangement>(noArrangement);
  protected readonly fault = signal('');
  protected readonly sizes = paperSizes;
  protected readonly size = signal<PaperSize>(keptPaperSize());
  protected readonly isBusy = signal(false);
  private readonly paper = viewChild(SheetPaperComponent);
  protected readonly isReady = computed(() => this.paper()?.isReady() === true);
  protected readonly address = addressOfLine;

  private readonly played = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : arrangedTune(opened.instrument, opened.tune, this.arrangement());
  });
  private readonly unknown = computed(() => {
    const [opened, played] = [this.opened(), this.played()];
    return opened === undefined || played === undefined ? [] : newNotesOf(opened.instrument, played, opened.held?.knownNotes ?? []);
  });
  protected readonly newText = computed(() => {
    const count = this.unknown().length;
    if (count === 0) return 'No note is new, so the whole page is music.';
    return count === 1 ? 'The new note stands at the top and is ringed in the music.' : 'New notes stand at the top and are ringed in the music.';
  });

  protected readonly onPaper = computed((): SheetOnPaper | undefined => {
    const [opened, played] = [this.opened(), this.played()];
    if (opened === undefined || played === undefined) return undefined;
    const { instrument, detail } = opened;
    const student = this.state.student();
    const [home, other] = hardestPair(instrument, played);
    const excerpt = excerptOf(detail.title, '', played);
    const about = [...(student === undefined ? [] : [`for ${student.alias}`]), nameOf(instrument)].join(', ');
    return {
      ...{ title: detail.title, about: `${about}.`, note: '', instrument, words: this.words.words(), isOnePiece: true, tuneScale: pupilScale },
      unknown: new Set(this.unknown()),
      lines: [{ kind: 'tune', home, other, repetitions: 1, tempo: null, point: '', code: '', excerpt }],
    };
  });

  private readonly release = inject(KeyService).use('sheetPaper', {
    save: () => void this.savePdf(),
    edit: () => void this.router.navigate(['/tunes', this.id()]),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      const student = this.state.student();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => {
        this.tunes.open(id).subscribe({ next: (opened) => this.opened.set(opened), error: (error: unknown) => this.fault.set(messageOf(error)) });
        this.arrangement.set(noArrangement);
        if (student !== undefined)
          this.arrangements
            .get(id, student.id)
            .subscribe({ next: ({ arrangement }) => this.arrangement.set(arrangement), error: (error: unknown) => this.notices.fault(error) });
      });
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
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
      saveFile(fileNameOf(sheet.title, 'pdf'), await paper.pdf());
    } catch {
      this.notices.done('The PDF could not be made because its fonts did not load. Try again, or use “Print”.');
    } finally {
      this.isBusy.set(false);
    }
  }
}
