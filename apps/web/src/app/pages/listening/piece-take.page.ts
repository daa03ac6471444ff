import { Component, computed, effect, inject, input, linkedSignal, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type Arrangement, type TakeAsked } from '@zelpit/contract';
import { arrangedTune } from '@zelpit/core/arrange';
import { chunkOf } from '@zelpit/core/chunk';
import { excerptOf } from '@zelpit/core/excerpt';
import { barsToWatch, checkedText, foretoldResult, foretoldText, type AskedNote, type JudgedNote } from '@zelpit/core/listening';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent } from '../../kernel/chooser/chooser.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ShortenedComponent } from '../../kernel/sentence/shortened.component';
import { SessionService } from '../../kernel/session/session.service';
import { pageWidth } from '../../kernel/wide/page-width';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { TrialsService } from '../../studio/trials/trials.service';
import { TakeFrameComponent, type TakeLog } from '../../music/listening/take-frame.component';
import { TakeSentenceComponent } from '../../music/listening/take-sentence.component';
import { TakeSource } from '../../music/listening/take-source.service';
import { scoreGeometryFor, ScoreLineComponent, scoreScaleFor } from '../../music/score/score-line.component';
import { scoreLines } from '../../music/score/score-lines';
import { OntoSheet } from '../../documents/sheet/onto-sheet.service';
import { plannedExcerpt, plannedForSheet, type PlannedSheetLine } from '../../documents/sheet/planned-lines';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { formOfTune } from '../../documents/tune/form-of-tune';
import { movementNames } from '../../documents/tune/movement-names';
import { barsOfStretch, stretchChoices } from '../../documents/tune/stretches-of-tune';
import { playedNotesOf, TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { ForetoldRecord } from './foretold-record';
import { PieceReview } from './piece-review';
import { PieceRibbonComponent } from './piece-ribbon.component';

/** A take of a tune or a part of it, recorded or opened: each note and grace note that was asked for, present or not, and what nobody asked for, with its sound. */
@Component({
  selector: 'zp-piece-take',
  imports: [
    SentenceComponent,
    ShortenedComponent,
    ForWhomComponent,
    ChooserComponent,
    RouterLink,
    TakeFrameComponent,
    TakeSentenceComponent,
    PieceRibbonComponent,
    ScoreLineComponent,
  ],
  providers: [TakeSource],
  templateUrl: './piece-take.page.html',
})
export class PieceTakePage {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly book = inject(MovementBook);
  private readonly shelf = inject(InstrumentShelf);
  private readonly notices = inject(NoticeService);
  private readonly onto = inject(OntoSheet);
  private readonly router = inject(Router);
  private readonly state = inject(StudioState);
  private readonly trials = inject(TrialsService);
  private readonly session = inject(SessionService);
  protected readonly source = inject(TakeSource);
  readonly id = input.required<string>();
  /** Id of a take that is kept, and what of the tune it is of. */
  readonly kept = input<string>();
  readonly part = input<string>();

  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  private readonly arrangement = signal<Arrangement>(noArrangement);
  /** Why there is no tune to listen against. */
  protected readonly missing = signal('');
  protected readonly what = linkedSignal(() => this.part() ?? 'all');
  protected readonly askedFor = computed((): TakeAsked => ({ kind: 'tune', tuneId: this.id(), what: this.what(), click: this.source.click() }));
  protected readonly usualClick = computed(() => {
    const { tempo, meter } = this.opened()?.tune ?? { tempo: 72, meter: { beats: 4 } };
    return { tempo, beatsInBar: meter.beats };
  });
  protected readonly width = pageWidth();

  /** The tune as this student plays it: simpler where that was chosen. */
  protected readonly tune = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : arrangedTune(opened.instrument, opened.tune, this.arrangement());
  });
  private readonly form = computed(() => {
    const [opened, tune] = [this.opened(), this.tune()];
    return opened === undefined || tune === undefined ? undefined : formOfTune({ ...opened, tune });
  });
  protected readonly whatChoices = computed(() => stretchChoices(this.form()));
  protected readonly title = computed(() => {
    const title = this.opened()?.detail.title ?? '';
    return this.what() === 'all' ? title : `${title}, ${this.whatChoices().find(({ value }) => value === this.what())?.label ?? ''}`;
  });

  /** What was asked for, and which note of the tune each of it is. */
  private readonly asked = computed(() => {
    const [opened, tune, form] = [this.opened(), this.tune(), this.form()];
    if (opened === undefined || tune === undefined || form === undefined) return [];
    const names = movementNames({ ...opened, tune }, this.book.own());
    return playedNotesOf({ ...opened, tune }, barsOfStretch(form, tune, this.what())).map(({ note, graceNotes, beats, isTied, index }) => {
      const movement = names.get(index);
      const one: AskedNote = { note, graceNotes, beats, isTied, bar: tune.notes[index].bar, ...(movement !== undefined && { movement }) };
      return { one, index };
    });
  });

  protected readonly notes = computed(() => this.asked().map(({ one }) => one));
  private readonly instrument = computed(() => this.opened()?.instrument ?? this.state.instrument());
  protected readonly heard = new PieceReview(this.source, this.instrument, this.notes, this.title);
  protected readonly review = this.heard.review;
  /** The bars that are likeliest to break, said before anything is played. */
  private readonly watched = computed(() => barsToWatch(this.opened()?.changes.open ?? [], new Set(this.asked().flatMap(({ one }) => one.bar ?? []))));
  /** What came of what was foretold of the player's first tries. */
  protected readonly record = new ForetoldRecord(this.trials, this.session, this.source);
  protected readonly foretold = computed(() => [foretoldText(this.watched()), this.record.text()].filter((text) => text !== '').join(' '));
  protected readonly also = computed(() => {
    const piece = this.heard.piece();
    if (piece === undefined) return [];
    return [checkedText(this.watched(), piece, this.review.decided()), this.record.text(), this.heard.passes()].filter((text) => text !== '');
  });
  protected readonly logged = computed((): TakeLog => ({
    ...{ title: this.title().slice(0, 200), kind: this.what() === 'all' ? 'tune' : 'part', model: this.opened()?.instrument.id ?? '' },
    count: Math.max(1, this.heard.piece()?.passes.length ?? 1),
  }));
  /** The note of the tune that the chosen one is; -1 before there is a take. */
  protected readonly chosenInTune = computed(() => this.asked()[this.review.chosen()?.asked ?? -1]?.index ?? -1);
  private readonly lines = computed(() => {
    const [opened, tune] = [this.opened(), this.tune()];
    if (opened === undefined || tune === undefined) return [];
    const width = this.width() - scoreGeometryFor(opened.instrument, this.width()).labels;
    return scoreLines(tune, width, { room: width / scoreScaleFor(this.width()) });
  });
  /** The line of music with the chosen note. */
  protected readonly line = computed(() => {
    const note = this.chosenInTune();
    return this.lines().find(({ first, end }) => note >= first && note < end) ?? this.lines().at(0);
  });
  protected readonly canPlan = computed(() => this.source.who() !== undefined && this.review.worst().length > 0);

  constructor() {
    effect(() => {
      const [id, student] = [this.id(), this.state.student()];
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => this.open(id, student?.id));
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.missing.set(messageOf(error)) });
  }

  protected leave(): void {
    void this.router.navigate(['/tunes', this.id()]);
  }

  /** What was foretold is checked once, at the first try that goes into the logbook. */
  protected check(): void {
    const piece = this.heard.piece();
    const result = piece === undefined ? undefined : foretoldResult(this.watched(), piece, this.review.decided());
    if (result !== undefined) this.record.add(this.title(), this.logged().model, result);
  }

  /** What helps the worst place onto the student's sheet: the change as a line, or the bar with its music. */
  protected plan(): void {
    const [opened, player, [worst]] = [this.opened(), this.source.who(), this.review.worst()];
    if (opened === undefined || player === undefined || worst === undefined || this.review.isPlanned()) return;
    const item = this.drillFor(opened, worst);
    if (item === undefined) return;
    const what = { student: player, instrument: opened.instrument.id, tune: { id: this.id(), title: opened.detail.title } };
    this.onto.putSaying(what, [{ ...item, point: this.heard.advice().todo.slice(0, 300) }], (is) => this.review.isPlanned.set(is));
  }

  private drillFor(opened: OpenedTune, worst: JudgedNote): PlannedSheetLine | undefined {
    const change = this.heard.changeAt(worst);
    if (change !== undefined) return plannedForSheet(opened.instrument, [{ home: change.from, other: change.to }])[0];
    const bar = worst.bar ?? 0;
    const found = chunkOf(opened.instrument, opened.tune, { kind: 'bars', from: bar, to: bar }, opened.detail.chordNote);
    if (found.kind === 'none') {
      this.source.fault.set(found.reason);
      return undefined;
    }
    const { title, tune } = found.chunk;
    return plannedExcerpt(opened.instrument, tune, excerptOf(opened.detail.title, title, tune), null);
  }

  private open(id: string, student: string | undefined): void {
    this.tunes.open(id).subscribe({
      next: (opened) => {
        this.opened.set(opened);
        this.missing.set('');
      },
      error: (error: unknown) => this.missing.set(messageOf(error)),
    });
    this.arrangement.set(noArrangement);
    if (student === undefined) return;
    this.arrangements
      .get(id, student)
      .subscribe({ next: ({ arrangement }) => this.arrangement.set(arrangement), error: (error: unknown) => this.notices.fault(error) });
  }
}
