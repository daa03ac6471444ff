import { Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { hasMusic, type OpenedLine, type TakeAsked } from '@zelpit/contract';
import { describedLine, musicOfLine } from '@zelpit/core/line';
import { askedOfLine } from '@zelpit/core/listening';
import { freeTempo } from '@zelpit/core/plan';
import { messageOf } from '../../kernel/api/api.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { TakeFrameComponent, type TakeLog } from '../../music/listening/take-frame.component';
import { TakeSentenceComponent } from '../../music/listening/take-sentence.component';
import { TakeSource } from '../../music/listening/take-source.service';
import { OntoSheet } from '../../documents/sheet/onto-sheet.service';
import { plannedForSheet } from '../../documents/sheet/planned-lines';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { PieceReview } from './piece-review';
import { PieceRibbonComponent } from './piece-ribbon.component';

/** A take of what stands on a sheet, by its code: a line, a movement, a piece of a tune; as often as it is played. */
@Component({
  selector: 'zp-line-take',
  imports: [SentenceComponent, RouterLink, TakeFrameComponent, TakeSentenceComponent, PieceRibbonComponent],
  providers: [TakeSource],
  template: `
    <div class="page take-page">
      <zp-sentence>
        <span>A take of </span>
        <a class="chooser-word" dir="auto" [routerLink]="['/c', code()]">{{ title() || 'a line' }}</a>
        @if (opened(); as found) {
          <span class="quiet"> for </span><span>{{ found.student.alias }}</span>
        }
      </zp-sentence>
      <zp-take-sentence [text]="heard.text()" />
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <a class="btn btn-solid" [routerLink]="isFamily() ? '/mine' : '/sheets'">{{ isFamily() ? 'To my sheets' : 'To the sheets' }}</a>
        </main>
      } @else if (opened()) {
        <zp-take-frame
          class="take-frame"
          [instrument]="instrument()"
          [review]="heard.review"
          [words]="heard.words()"
          [title]="title()"
          [how]="'Play ' + title() + ' at your own speed, as often as you like.'"
          [text]="heard.text()"
          [advice]="heard.advice()"
          [also]="also()"
          [untold]="heard.untold"
          [logged]="logged()"
          [asked]="askedFor()"
          [notes]="notes()"
          [usualClick]="usualClick()"
          [opens]="kept()"
          [canPlan]="canPlan()"
          (plan)="plan()"
          (leave)="leave()"
        >
          <zp-piece-ribbon ribbon [instrument]="instrument()" [review]="heard.review" />
        </zp-take-frame>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the line …</p></main>
      }
    </div>
  `,
})
export class LineTakePage {
  private readonly sheets = inject(SheetsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly session = inject(SessionService);
  private readonly state = inject(StudioState);
  private readonly onto = inject(OntoSheet);
  private readonly router = inject(Router);
  private readonly source = inject(TakeSource);
  readonly code = input.required<string>();
  /** Id of a take that is kept. */
  readonly kept = input<string>();
  protected readonly opened = signal<OpenedLine | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly isFamily = computed(() => this.session.isFamily());
  protected readonly instrument = computed(() => this.shelf.instrumentFor(this.opened()?.student.id, this.opened()?.instrument));

  private readonly line = computed(() => {
    const line = this.opened()?.line;
    return line !== undefined && hasMusic(line) ? line : undefined;
  });
  protected readonly title = computed(() => {
    const line = this.line();
    return line === undefined ? '' : describedLine(this.instrument(), line).title;
  });
  protected readonly notes = computed(() => {
    const line = this.line();
    return line === undefined ? [] : askedOfLine(this.instrument(), line);
  });
  protected readonly heard = new PieceReview(this.source, this.instrument, this.notes, this.title);
  protected readonly also = computed(() => [this.heard.passes()].filter((text) => text !== ''));
  protected readonly askedFor = computed((): TakeAsked => ({ kind: 'line', code: this.opened()?.line.code ?? this.code(), click: this.source.click() }));
  protected readonly usualClick = computed(() => {
    const line = this.line();
    return { tempo: line?.tempo ?? freeTempo, beatsInBar: line === undefined ? 4 : musicOfLine(this.instrument(), line).beatsInBar };
  });
  protected readonly logged = computed((): TakeLog => ({
    ...{ title: this.title().slice(0, 200), kind: this.line()?.kind ?? 'line', model: this.opened()?.instrument ?? '', itemId: this.opened()?.line.id ?? null },
    count: Math.max(1, this.heard.piece()?.passes.length ?? 1),
  }));
  /** Only those who teach write sheets, and only a bare change becomes a line of its own here. */
  protected readonly canPlan = computed(() => {
    const [worst] = this.heard.review.worst();
    return !this.isFamily() && this.source.who() !== undefined && worst !== undefined && this.heard.changeAt(worst) !== undefined;
  });

  constructor() {
    effect(() => {
      const code = this.code();
      if (!this.shelf.isLoaded()) return;
      untracked(() => this.open(code));
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  protected leave(): void {
    void this.router.navigate(['/c', this.code()]);
  }

  /** The change that went wrong, as a line by itself. */
  protected plan(): void {
    const [player, [worst]] = [this.source.who(), this.heard.review.worst()];
    const change = worst === undefined ? undefined : this.heard.changeAt(worst);
    if (player === undefined || change === undefined || !this.canPlan() || this.heard.review.isPlanned()) return;
    const [item] = plannedForSheet(this.instrument(), [{ home: change.from, other: change.to }]);
    const what = { student: player, instrument: this.opened()?.instrument ?? '', tune: { title: this.title() } };
    this.onto.putSaying(what, [{ ...item, point: this.heard.advice().todo.slice(0, 300) }], (is) => this.heard.review.isPlanned.set(is));
  }

  private open(code: string): void {
    this.sheets.lineByCode(code).subscribe({
      next: (opened) => {
        if (!hasMusic(opened.line)) {
          this.fault.set('This has no notes that could be heard.');
          return;
        }
        this.opened.set(opened);
        // Whose line it is, theirs is the take.
        if (!this.isFamily()) this.state.choose(opened.student.id);
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }
}
