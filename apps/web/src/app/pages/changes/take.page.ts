import { Component, computed, effect, inject, input, linkedSignal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { TakeAsked } from '@zelpit/contract';
import { adviceFor, changeBetween, troubleOf } from '@zelpit/core/change';
import type { NoteId } from '@zelpit/core/fingering';
import { changesInLine, describedLine, lineTitle } from '@zelpit/core/line';
import { askedOfLine, changeText, isFaulty, takeText, timingOfFingers, worstFirst, type HeardChange } from '@zelpit/core/listening';
import { fingersResult, fitText } from '@zelpit/core/playing';
import { plannedForSheet } from '../../documents/sheet/planned-lines';
import { OntoSheet } from '../../documents/sheet/onto-sheet.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import { ChangeFigureComponent, figureSize } from '../../music/lines/change-figure.component';
import { TakeFrameComponent, type PlaceWords, type TakeLog } from '../../music/listening/take-frame.component';
import { TakeReview } from '../../music/listening/take-review';
import { TakeSentenceComponent } from '../../music/listening/take-sentence.component';
import { TakeTimingComponent } from '../../music/listening/take-timing.component';
import { TakeSource } from '../../music/listening/take-source.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { PairChooserComponent, pairFrom } from './pair-chooser.component';
import { TakeRibbonComponent } from './take-ribbon.component';

/** More changes than that are not in ten minutes. */
const mostNotes = 1200;

/** A take of one change, recorded or opened: which changes were clean, what cut in for how long, with the sound of each. */
@Component({
  selector: 'zp-take',
  imports: [
    SentenceComponent,
    ForWhomComponent,
    PairChooserComponent,
    RouterLink,
    TakeFrameComponent,
    TakeSentenceComponent,
    TakeRibbonComponent,
    TakeTimingComponent,
    ChangeFigureComponent,
  ],
  providers: [TakeSource],
  templateUrl: './take.page.html',
})
export class TakePage {
  private readonly session = inject(SessionService);
  private readonly onto = inject(OntoSheet);
  protected readonly source = inject(TakeSource);
  protected readonly state = inject(StudioState);
  readonly from = input<string>();
  readonly to = input<string>();
  /** Id of a take that is kept. */
  readonly kept = input<string>();

  protected readonly instrument = computed(() => this.state.instrument());
  private readonly pair = computed(() => pairFrom(this.instrument(), this.from(), this.to()));
  protected readonly home = linkedSignal(() => this.pair().from);
  protected readonly other = linkedSignal(() => this.pair().to);
  protected readonly title = computed(() => lineTitle(this.instrument(), { home: this.home(), other: this.other() }));
  protected readonly take = computed(() => {
    const heard = this.source.answer()?.heard;
    return heard?.kind === 'changes' ? heard.take : undefined;
  });
  protected readonly review = new TakeReview<HeardChange>(
    computed(() => this.take()?.changes ?? []),
    { worstFirst, isFaulty },
  );
  protected readonly text = computed(() => {
    const take = this.take();
    return take === undefined ? '' : takeText(this.instrument(), take.changes, this.review.decided());
  });
  protected readonly words: PlaceWords<HeardChange> = {
    name: ({ number }) => `Change ${number}`,
    text: (change) => changeText(this.instrument(), change),
    isSame: (change, other) => change.from === other.from && change.to === other.to,
    clean: ({ from, to }) => ({ instrument: this.instrument(), notes: [from, to].map((note) => ({ note, graceNotes: [] })) }),
  };
  protected readonly also = computed(() => {
    const missing = this.take()?.missing ?? 0;
    if (missing === 0) return [];
    return [missing === 1 ? 'One note that was asked for was not heard.' : `${missing} of the notes that were asked for were not heard.`];
  });
  protected readonly logged = computed((): TakeLog => ({
    ...{ title: this.title(), kind: 'line', model: this.state.model().id },
    count: Math.max(1, Math.round(this.review.all().length / changesInLine)),
  }));
  /** Where fingers were taken and no sound: how they keep together. */
  protected readonly timed = computed(() => {
    const [events, instrument] = [this.source.events(), this.instrument()];
    if (events?.kind !== 'fingers' || this.home() === this.other()) return undefined;
    const [there, back] = [changeBetween(instrument, this.home(), this.other()), changeBetween(instrument, this.other(), this.home())];
    const changes = Array.from({ length: mostNotes }, (_, index) => (index % 2 === 0 ? there : back));
    return timingOfFingers(instrument, changes, events.events);
  });
  protected readonly timingText = computed(() => fitText(this.timed()?.fitted));
  protected readonly timingResult = computed(() => {
    const timed = this.timed();
    return timed?.fitted === undefined ? undefined : fingersResult({ from: this.home(), to: this.other() }, timed.played, timed.fitted);
  });
  protected readonly liveFor = computed((): readonly [NoteId, NoteId] => [this.home(), this.other()]);
  /** Once through the line of this change. */
  protected readonly notes = computed(() => askedOfLine(this.instrument(), { home: this.home(), other: this.other() }));
  protected readonly asked = computed((): TakeAsked => ({ kind: 'changes', from: this.home(), to: this.other() }));
  protected readonly line = computed(() => describedLine(this.instrument(), { home: this.home(), other: this.other() }));
  protected readonly figureBox = `0 0 ${figureSize.width} ${figureSize.height + 8}`;
  /** What helps the worst change; where all is clean, what comes next. */
  protected readonly advice = computed(() => {
    const [worst] = this.review.worst();
    if (worst === undefined)
      return this.take()?.changes.length === 0
        ? { todo: `Play ${this.title()}, to and fro.`, otherwise: 'Each note at least as long as a slow step, so that both are heard.' }
        : { todo: 'Clean. Now a little faster, or under a grace note.', otherwise: 'Correct but slower is right, too: do not leave anything out to keep up.' };
    const change = changeBetween(this.instrument(), worst.from, worst.to);
    return adviceFor(this.instrument(), change, troubleOf(this.instrument(), change));
  });

  /** Only those who teach write sheets. */
  protected readonly canPlan = computed(() => !this.session.isFamily() && this.source.who() !== undefined && this.review.worst().length > 0);

  constructor() {
    // Another change or another instrument hears the same recording anew.
    effect(() => {
      this.home();
      this.other();
      this.instrument();
      this.source.samples();
      untracked(() => this.listen());
    });
  }

  /** The drill for the worst change onto the student's sheet, with what helps it. */
  protected plan(): void {
    const [player, [worst]] = [this.source.who(), this.review.worst()];
    if (player === undefined || worst === undefined || !this.canPlan() || this.review.isPlanned()) return;
    const [item] = plannedForSheet(this.instrument(), [{ home: worst.from, other: worst.to }]);
    const what = { student: player, instrument: this.state.model().id, tune: { title: this.title() } };
    this.onto.putSaying(what, [{ ...item, point: this.advice().todo.slice(0, 300) }], (is) => this.review.isPlanned.set(is));
  }

  private listen(): void {
    if (this.source.samples() === undefined || this.source.wasGivenBack()) return;
    this.review.begin();
    const notes = Array.from({ length: mostNotes }, (_, index): NoteId => (index % 2 === 0 ? this.home() : this.other()));
    this.source.listen(this.instrument(), { kind: 'changes', notes }, () => this.review.choosesWorst());
  }
}
