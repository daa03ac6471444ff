import { Component, computed, effect, inject, Injector, input, type OnDestroy, signal, untracked, viewChild, type ElementRef } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { cautionsOf, isTonguedFamily, noteOf, noteReadAs, patternKey, type Pattern, type NoteId } from '@zelpit/core/fingering';
import { usualRange, type Form, type FormPart } from '@zelpit/core/form';
import { changesToPractise, tenMinuteSheet } from '@zelpit/core/plan';
import { findingText, keyNameOf, troubleOfTune, placePhrase, type Articulation, type KeyChoice, type TuneChange } from '@zelpit/core/tune';
import type { TuneDetail, TuneSummary } from '@zelpit/contract';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { scoreLines, type ScoreLine } from '../../music/score/score-lines';
import { scoreGeometryFor, ScoreLineComponent, scoreScaleFor } from '../../music/score/score-line.component';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { Transport } from '../../music/sound/transport.service';
import { SoundMenuComponent } from '../../music/sound/sound-menu.component';
import { TempoComponent } from '../../music/sound/tempo.component';
import { UndoComponent } from '../../kernel/saving/undo.component';
import { differingOf, InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { FingeringComponent } from '../../music/lanes/fingering.component';
import { holesText } from '../../music/lanes/hole-figure';
import { PlayerTimings } from '../../studio/trials/player-timings.service';
import { LastTune } from '../../documents/tune/last-tune';
import { PinnedFingers } from '../../documents/tune/pins.service';
import { TuneEditor } from '../../documents/tune/tune-editor';
import type { TuneDraft } from '../../documents/tune/tune-kind';
import { from, switchMap } from 'rxjs';
import { OntoSheet } from '../../documents/sheet/onto-sheet.service';
import { formOfTune } from '../../documents/tune/form-of-tune';
import { movementNames } from '../../documents/tune/movement-names';
import { keysOf, TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { messageOf } from '../../kernel/api/api.service';
import { ArticulationSettings, articulations } from '../../music/sound/articulation.service';
import { TipComponent } from '../../kernel/tip/tip.component';
import { pageWidth } from '../../kernel/wide/page-width';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { allChanges, successors } from './all-changes';
import { AllChangesComponent } from './all-changes.component';
import { BarStripComponent } from './bar-strip.component';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { changeFacts } from './change-facts';
import { ChangeListComponent } from './change-list.component';
import { lanesLegend } from './lanes-legend';
import { chordNoteChoices, voiceChoices } from './voice-choices';
import { newNotesFor, unknownNotes } from './new-notes';
import { TunePlayer } from './tune-player';

/** A tune taken apart: music, finger lanes, what will give trouble and why, and its sound. */
@Component({
  selector: 'zp-tune-page',
  imports: [
    SentenceComponent,
    AllChangesComponent,
    TipComponent,
    FingeringComponent,
    ForWhomComponent,
    ChooserComponent,
    RouterLink,
    ScoreLineComponent,
    BarStripComponent,
    ChangeListComponent,
    TempoComponent,
    SoundMenuComponent,
    UndoComponent,
    NgbDropdownModule,
  ],
  templateUrl: './tune.page.html',
  providers: [TunePlayer, TuneEditor],
})
export class TunePage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly lastTune = inject(LastTune);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  private readonly player = inject(TunePlayer);
  protected readonly words = inject(LineWordsChoice);
  private readonly shelf = inject(InstrumentShelf);
  private readonly pins = inject(PinnedFingers);
  private readonly onto = inject(OntoSheet);
  private readonly injector = inject(Injector);
  private readonly timings = inject(PlayerTimings);
  private readonly state = inject(StudioState);
  private readonly book = inject(MovementBook);
  private readonly articulationSettings = inject(ArticulationSettings);
  protected readonly editor = inject(TuneEditor);
  protected readonly transport = inject(Transport);
  protected readonly sound = inject(SoundSettings);

  readonly id = input.required<string>();
  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly others = signal<readonly Choice<string>[]>([]);
  protected readonly change = signal<TuneChange | undefined>(undefined);
  protected readonly ticked = signal<ReadonlySet<string>>(new Set());
  protected readonly isWhole = signal(false);
  protected readonly visibleLine = signal(0);
  /** Bar under the hand: played alone with B, and where the tune starts. */
  protected readonly bar = signal(1);
  protected readonly width = pageWidth();
  /** Bar whose movements were opened although they have no room. */
  private readonly unfoldedBar = signal<number | undefined>(undefined);
  protected readonly legend = lanesLegend;
  private readonly score = viewChild<ElementRef<HTMLElement>>('score');

  private readonly geometry = computed(() => scoreGeometryFor(this.opened()?.instrument, this.width()));
  protected readonly lines = computed(() => {
    const opened = this.opened();
    if (opened === undefined) return [];
    const width = this.width() - this.geometry().labels;
    return scoreLines(opened.tune, width, { room: width / scoreScaleFor(this.width()), openBar: this.unfoldedBar() });
  });
  protected readonly scoreHeight = computed(() => `${this.geometry().height}px`);
  /** True while every change stands in place of the drawing. */
  protected readonly showsAll = signal(false);

  /** Notes of the tune that the student does not know; none where nothing is known of the student. */
  protected readonly unknown = computed((): ReadonlySet<NoteId> => {
    const opened = this.opened();
    return opened === undefined ? new Set() : unknownNotes(opened);
  });
  /** "F is new for Pim", and each new note with how often it comes. */
  protected readonly newNotes = computed(() => {
    const [opened, student] = [this.opened(), this.state.student()];
    return opened === undefined || student === undefined ? undefined : newNotesFor(opened, this.unknown(), student.alias);
  });
  /** Ornaments, and movements of two grace notes and more, by the index of the note that they decorate. */
  protected readonly movements = computed((): ReadonlyMap<number, string> => {
    const opened = this.opened();
    return opened === undefined ? new Map() : movementNames(opened, this.book.own());
  });
  /** Difficulty times occurrences over all changes that can be heard going wrong. */
  protected readonly difficulty = computed(() => {
    const opened = this.opened();
    return opened === undefined ? 0 : Math.round(troubleOfTune(allChanges(opened)));
  });

  protected readonly facts = computed(() => {
    const change = this.change();
    const opened = this.opened();
    return change === undefined || opened === undefined ? undefined : changeFacts(opened.instrument, change, this.book.own());
  });

  /** How it is built, as it is found or as a teacher corrected it. */
  protected readonly form = computed((): Form => {
    const opened = this.opened();
    return opened === undefined ? noForm : formOfTune(opened);
  });
  /** The bar under the hand as the address of its page has it. */
  protected readonly stretchHere = computed(() => {
    const [opened, bar] = [this.opened(), this.bar()];
    const range = opened === undefined ? undefined : usualRange(opened.tune, bar);
    return range?.kind === 'half' ? `${bar}a` : `${bar}-${bar}`;
  });

  protected readonly instrumentChoices = this.shelf.modelChoices;
  /** The student's own by its name, or the model that stands in. */
  protected readonly instrumentText = computed(() => {
    const opened = this.opened();
    return opened?.held?.name ?? nameOf(opened?.instrument ?? this.shelf.known(this.editor.draft()?.instrument));
  });
  /** Where the student has no instrument of the tune's family: whose is shown. */
  protected readonly standsIn = computed(() => {
    const [opened, student] = [this.opened(), this.state.student()];
    if (opened === undefined || opened.held !== undefined || student === undefined) return '';
    return `${student.alias} has no ${familyWords[opened.instrument.family]} here: this is the ${nameOf(opened.instrument)} as the studio fingers it.`;
  });
  /** The other model, where the tune has notes that are fingered otherwise on it. */
  protected readonly differing = computed(() => {
    const opened = this.opened();
    const found = opened === undefined ? undefined : differingOf(opened.instrument);
    return opened?.tune.notes.some(({ written }) => written.kind === 'note' && found?.notes.has(written.note) === true) === true ? found : undefined;
  });
  protected readonly articulations = articulations;
  /** How it is tongued; undefined for an instrument that is not. */
  protected readonly articulation = computed(() => {
    const opened = this.opened();
    return opened === undefined || !isTonguedFamily(opened.instrument.family) ? undefined : opened.articulation;
  });

  /** Its key by its name; empty where the letters have none, as the pipes' own. */
  protected readonly keyName = computed(() => keyNameOf(this.opened()?.tune.key ?? ''));
  private readonly keys = signal<readonly KeyChoice[]>([]);
  /** Keys by how far the tune is moved to them. */
  protected readonly keyChoices = computed(() => this.keys().map(({ semitones, text }): Choice<number> => ({ value: semitones, label: text })));

  protected readonly outside = computed(() => {
    const opened = this.opened();
    if (opened === undefined || opened.tune.notices.length === 0) return undefined;
    const text = opened.tune.notices.slice(0, 4).map((notice) => `${notice.text} (${placePhrase(notice.bar, notice.beat)})`);
    const more = opened.tune.notices.length - text.length;
    return { text: text.join(', ') + (more > 0 ? ` and ${more} more` : ''), move: opened.move };
  });

  /** Voices of a tune that has several, the first under no name. */
  protected readonly voiceChoices = computed(() => {
    const voices = this.opened()?.tune.score.voices ?? [];
    return voices.length < 2 ? undefined : voiceChoices(voices);
  });
  protected readonly chordNotes = chordNoteChoices;
  protected readonly hasChords = computed(() => this.opened()?.tune.voice.events.some(({ pitches }) => pitches.length > 1) === true);
  /** What was passed over in the text, and what does not add up. */
  protected readonly findings = computed(() => {
    const findings = this.opened()?.tune.findings ?? [];
    return findings.length === 0 ? undefined : findings.map((finding) => ({ bar: finding.bar, text: findingText(finding) }));
  });

  /** Whether something is said over the music. */
  private readonly isSaying = computed(
    () =>
      this.editor.conflict() !== undefined ||
      this.differing() !== undefined ||
      this.standsIn() !== '' ||
      this.outside() !== undefined ||
      this.cautions() !== '',
  );
  /** What the lanes mean gives way to what is said of this tune. */
  protected readonly showsLegend = computed(() => this.legend.isOpen() && !this.isSaying());
  /** Lines of the list: what stands above takes one of them. */
  protected readonly listLines = computed(() => (this.isSaying() || this.showsLegend() ? mostLines - 1 : mostLines));

  /** What is to be minded with notes of the tune; empty for nothing. */
  protected readonly cautions = computed(() => {
    const opened = this.opened();
    return opened === undefined
      ? ''
      : cautionsOf(
          opened.instrument,
          opened.tune.notes.flatMap(({ written }) => (written.kind === 'note' ? [written.note] : [])),
        );
  });

  /** A tune that nobody edits here says nothing about saving. */
  protected readonly isSaving = computed(
    () => this.editor.undoes() !== undefined || this.editor.redoes() !== undefined || !['untouched', 'saved'].includes(this.editor.state()),
  );

  protected readonly tempo = computed(() => {
    const opened = this.opened();
    return opened === undefined ? 0 : this.player.tempoOf(opened);
  });
  protected readonly playingNote = computed(() => this.transport.position()?.note ?? -1);
  protected readonly waitingNote = computed(() => {
    const position = this.transport.position();
    return position !== undefined && position.beat < 0 ? this.player.firstPlayed() : -1;
  });

  private readonly release = inject(KeyService).use('tune', {
    play: () => this.toggle(),
    bar: () => this.playBar(),
    clean: () => this.playChange(false),
    faulty: () => this.playChange(true),
    withFaults: () => this.playTune(true),
    repeat: () => this.sound.repeats.update((on) => !on),
    slower: () => this.slower(),
    faster: () => this.faster(),
    nextChange: () => this.stepChange(1),
    changeBefore: () => this.stepChange(-1),
    nextBar: () => this.chooseBar(this.bar() + 1),
    barBefore: () => this.chooseBar(this.bar() - 1),
    nextLine: () => this.goToLine(this.visibleLine() + 1),
    lineBefore: () => this.goToLine(this.visibleLine() - 1),
    tick: () => this.tickChosen(),
    lines: () => this.makeLines(),
    tenMinutes: () => this.tenMinutes(),
    letters: () => this.nextLetters(),
    whole: () => this.toggleWhole(),
    leave: () => this.showsAll.set(false),
    fold: () => this.fold(this.bar()),
    apart: () => void this.router.navigate(['/tunes', this.id(), 'bars', this.stretchHere()]),
    edit: () => void this.router.navigate(['/tunes', this.id(), 'text']),
    arrange: () => void this.router.navigate(['/tunes', this.id(), 'arrange']),
    home: () => this.takeHome(),
    along: () => void this.router.navigate(['/tunes', this.id(), 'along']),
    take: () => void this.router.navigate(['/tunes', this.id(), 'take']),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => {
        this.transport.stop();
        this.opened.set(undefined);
        void this.editor.open(id);
      });
    });
    effect(() => {
      const draft = this.editor.draft();
      // For whom and how it is played are part of what is taken apart.
      const family = this.shelf.known(draft?.instrument).family;
      this.articulationSettings.of(family);
      this.state.student();
      this.pins.of(this.id());
      this.timings.timing();
      // Whose fingers they are decides how it is taken apart: once, when that is known.
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      const stored = untracked(() => this.editor.stored());
      if (draft !== undefined && stored !== undefined) untracked(() => this.takeApart(stored, draft));
    });
    // The other tunes are only chosen from: they come when this one stands.
    let isListed = false;
    effect(() => {
      if (this.opened() === undefined || isListed) return;
      isListed = true;
      untracked(() =>
        this.tunes.list().subscribe({
          next: (tunes: readonly TuneSummary[]) => this.others.set(tunes.map((tune) => ({ value: tune.id, label: tune.title }))),
          error: (error: unknown) => this.notices.fault(error),
        }),
      );
    });
    effect(() => {
      if (this.editor.state() === 'missing') this.fault.set(this.editor.message());
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  /** The ways of the chosen change's notes where there are several, and what the next best would cost. */
  protected readonly waysHere = computed(() => {
    const [opened, change] = [this.opened(), this.change()];
    if (opened === undefined || change === undefined) return [];
    const [place] = change.places;
    const pins = opened.pins;
    return [place.from, place.to].flatMap((index) => {
      const choice = opened.path.get(index);
      if (choice === undefined) return [];
      const { note } = choice.fingering;
      const all = opened.instrument.fingerings.filter((each) => each.note === note);
      const usual = choice.others.find(({ fingering: { rank } }) => rank === 1);
      const next = usual ?? choice.others.at(0);
      return [
        {
          note,
          name: noteOf(opened.instrument, note).schoolName,
          label: holesText(opened.instrument, choice.fingering.pattern),
          isPinned: pins.has(note),
          next: next === undefined ? undefined : { pattern: next.fingering.pattern, more: next.more.toFixed(1), isUsual: usual !== undefined },
          value: pins.get(note) ?? '',
          // Where nothing is fixed, the word shows what is easiest here.
          patterns: new Map([
            ...all.map(({ pattern }): [string, Pattern] => [patternKey(pattern), pattern]),
            ...(pins.has(note) ? [] : [['', choice.fingering.pattern] as [string, Pattern]]),
          ]),
          choices: [
            { value: '', label: 'the easiest here', beside: 'the easiest here' },
            ...all.map(({ pattern }) => ({ value: patternKey(pattern), label: holesText(opened.instrument, pattern) })),
          ],
        },
      ];
    });
  });

  /** @param key `patternKey` of the holes; empty for whatever is easiest */
  protected pin(note: string, key: string, name: string): void {
    const opened = this.opened();
    if (opened === undefined) return;
    const chosen = opened.instrument.fingerings.find((each) => each.note === note && patternKey(each.pattern) === key);
    // It is kept under the note of the instrument that the tune is written for.
    const written = noteReadAs(opened.instrument, note, this.shelf.known(opened.detail.instrument));
    if (written !== undefined) this.pins.pin(this.id(), written, chosen?.pattern, name);
  }

  protected chooseArticulation(articulation: Articulation): void {
    const family = this.opened()?.instrument.family;
    if (family !== undefined) this.articulationSettings.choose(family, articulation);
  }

  protected goToTune(id: string): void {
    void this.router.navigate(['/tunes', id]);
  }

  protected choose(change: TuneChange): void {
    this.change.set(change);
    const [place] = change.places;
    if (!change.places.some((each) => each.bar === this.bar())) this.goToBar(place.bar);
  }

  protected tick(change: TuneChange): void {
    this.ticked.update((ticked) => {
      const next = new Set(ticked);
      if (!next.delete(change.id)) next.add(change.id);
      return next;
    });
  }

  protected tickChosen(): void {
    const change = this.change();
    if (change !== undefined) this.tick(change);
  }

  protected toggle(): void {
    if (this.transport.playing() !== undefined) this.transport.stop();
    else this.playTune(false);
  }

  protected slower(): void {
    this.sound.slower();
    this.player.playAgain();
  }

  protected faster(): void {
    this.sound.faster();
    this.player.playAgain();
  }

  protected playTune(isFaulty: boolean): void {
    const opened = this.opened();
    if (opened !== undefined) this.player.playTune(opened, this.bar(), isFaulty);
  }

  protected playBar(isFaulty = false): void {
    const opened = this.opened();
    if (opened !== undefined) this.player.playBar(opened, this.bar(), isFaulty);
  }

  protected playChange(isFaulty: boolean): void {
    const opened = this.opened();
    const change = this.change();
    if (opened !== undefined && change !== undefined) this.player.playChange(opened, change, isFaulty);
  }

  protected toggleWhole(): void {
    const bar = this.bar();
    this.isWhole.update((whole) => !whole);
    setTimeout(() => this.goToLine(this.lineOfBar(bar), false));
  }

  protected goToNote(index: number): void {
    const opened = this.opened();
    if (opened !== undefined) this.bar.set(Math.max(1, opened.tune.notes[index].bar));
  }

  protected makeLines(): void {
    const chosen = this.change();
    const ids = [...this.ticked()];
    if (ids.length === 0 && chosen !== undefined) ids.push(chosen.id);
    if (ids.length > 0) void this.router.navigate(['/tunes', this.id(), 'lines'], { queryParams: { changes: ids.join(',') } });
  }

  protected tenMinutes(): void {
    const opened = this.opened();
    if (opened === undefined) return;
    const { lines } = tenMinuteSheet(opened.instrument, changesToPractise(opened.changes));
    if (lines.length === 0) {
      this.notices.done('Nothing in this tune can go wrong between two notes, so there is no line to make.');
      return;
    }
    void this.router.navigate(['/tunes', this.id(), 'lines'], { queryParams: { ten: 1 } });
  }

  /** Parts that are new, each once. */
  protected readonly partsToTake = computed(() => {
    const { parts } = this.form();
    return parts.length < 2 ? [] : parts.filter(({ again }) => again === undefined).slice(0, mostParts);
  });

  /** The whole tune, or a part of it, onto the student's sheet, as this student plays it. */
  protected takeHome(part?: FormPart): void {
    const [opened, student] = [this.opened(), this.state.student()];
    if (opened === undefined || student === undefined) return;
    const what = { student, instrument: opened.instrument.id, tune: { id: this.id(), title: opened.detail.title } };
    // What makes it is fetched when somebody takes a tune home.
    from(import('../../documents/tune/take-home.service'))
      .pipe(
        switchMap(({ TakeHome }) => this.injector.get(TakeHome).itemOf(opened, student.id, this.tempo(), this.form(), part)),
        switchMap((item) => this.onto.put(what, [item])),
      )
      .subscribe({
        next: ({ sheet, undo }) => {
          const name = part === undefined ? 'The tune' : `Part ${part.letter}`;
          this.notices.done(`${name} is on ${student.alias}’s sheet “${sheet.title}”.`, () =>
            undo().subscribe({ error: (error: unknown) => this.notices.fault(error) }),
          );
        },
        error: (error: unknown) => this.notices.fault(error),
      });
  }

  /** A bar that is chosen brings its worst change with it. */
  protected chooseBar(number: number): void {
    this.showsAll.set(false);
    this.goToBar(number);
    const opened = this.opened();
    if (opened === undefined || this.change()?.places.some(({ bar }) => bar === this.bar()) === true) return;
    const here = allChanges(opened).find(({ places }) => places.some(({ bar }) => bar === this.bar()));
    if (here !== undefined) this.change.set(here);
  }

  /** The student knows this note now. */
  protected learned(note: NoteId): void {
    const held = this.opened()?.held;
    if (held === undefined) return;
    const failed = (error: unknown): void => this.notices.fault(error);
    this.shelf.setKnown(held, [...held.knownNotes, note]).subscribe({
      next: () => {
        const now = this.shelf.held().find(({ id }) => id === held.id);
        this.notices.done('The note is known now.', () => {
          if (now !== undefined) this.shelf.setKnown(now, held.knownNotes).subscribe({ error: failed });
        });
      },
      error: failed,
    });
  }

  /** Opens the movements of a line that has no room for them, or folds them again. */
  protected fold(bar: number): void {
    const line = this.lines()[this.lineOfBar(bar)];
    if (line === undefined) return;
    if (this.isUnfolded(line)) this.unfoldedBar.set(undefined);
    else if (line.folded.size > 0) this.unfoldedBar.set(bar);
  }

  protected foldLine(line: ScoreLine): void {
    const opened = this.opened();
    if (opened !== undefined) this.fold(opened.tune.bars[line.bars[line.bars.length - 1]].number);
  }

  protected isUnfolded(line: ScoreLine): boolean {
    return line.bars.some((index) => this.opened()?.tune.bars[index].number === this.unfoldedBar());
  }

  protected nextLetters(): void {
    this.words.next();
  }

  protected goToBar(number: number): void {
    const opened = this.opened();
    if (opened === undefined) return;
    const last = opened.tune.bars[opened.tune.bars.length - 1].number;
    const wanted = Math.min(last, Math.max(1, number));
    this.bar.set(wanted);
    const index = this.lineOfBar(wanted);
    if (index !== this.visibleLine() || this.isWhole()) this.goToLine(index, false);
  }

  private lineOfBar(number: number): number {
    const opened = this.opened();
    return Math.max(
      0,
      this.lines().findIndex((line) => line.bars.some((bar) => opened?.tune.bars[bar].number === number)),
    );
  }

  protected goToLine(index: number, movesBar = true): void {
    const wanted = Math.min(this.lines().length - 1, Math.max(0, index));
    const line = this.lines()[wanted];
    const opened = this.opened();
    if (line === undefined || opened === undefined) return;
    this.visibleLine.set(wanted);
    if (movesBar) this.bar.set(Math.max(1, opened.tune.bars[line.bars[line.bars.length - 1]].number - this.numbersIn(wanted).size + 1));
    const row = this.score()?.nativeElement.querySelectorAll<HTMLElement>('zp-score-line')[wanted];
    if (row === undefined) return;
    if (this.isWhole()) row.scrollIntoView({ block: 'nearest' });
    else this.score()?.nativeElement.scrollTo({ top: row.offsetTop });
  }

  protected onScroll(): void {
    const score = this.score()?.nativeElement;
    if (score === undefined || this.isWhole()) return;
    this.visibleLine.set(Math.round(score.scrollTop / this.geometry().height));
  }

  protected readonly visibleBars = computed(() => (this.isWhole() ? new Set<number>() : this.numbersIn(this.visibleLine())));

  protected readonly worstInBar = computed(() => {
    const opened = this.opened();
    const worst = new Map<number, TuneChange>();
    if (opened === undefined) return worst;
    for (const change of opened.changes.open) {
      if (change.trouble.kind === 'blur' || change.trouble.kind === 'none') continue;
      for (const { bar } of change.places) if (!worst.has(bar)) worst.set(bar, change);
    }
    return worst;
  });

  /** Keys are weighed when they are looked at: that takes a moment. */
  protected weighKeys(): void {
    const opened = this.opened();
    if (opened !== undefined) this.keys.set(keysOf(opened));
  }

  protected chooseKey(semitones: number): void {
    const chosen = this.keys().find((each) => each.semitones === semitones);
    if (chosen !== undefined) this.moveKey(chosen);
  }

  protected moveKey({ semitones, name }: KeyChoice): void {
    if (semitones === 0) return;
    this.editor.moveKey(semitones).then(
      () => this.notices.done(`The tune is in ${name} now. Undo moves it back.`),
      () => this.notices.done('The tune could not be moved to that key, so nothing was changed.'),
    );
  }

  private numbersIn(line: number): ReadonlySet<number> {
    const opened = this.opened();
    return new Set((this.lines()[line]?.bars ?? []).map((index) => opened?.tune.bars[index].number ?? 0).filter((number) => number > 0));
  }

  private takeApart(stored: TuneDetail, draft: TuneDraft): void {
    this.transport.stop();
    this.tunes.takeApart({ ...stored, ...draft }).subscribe({
      next: (opened) => {
        const before = this.opened();
        this.opened.set(opened);
        this.fault.set('');
        if (before === undefined) this.begin(opened);
        else this.carryOver(before, opened);
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  /** A tune that was just opened is shown where its worst change stands. */
  private begin(opened: OpenedTune): void {
    this.lastTune.keep(this.id());
    this.ticked.set(new Set());
    this.bar.set(1);
    this.visibleLine.set(0);
    const [worst] = [...opened.changes.open, ...opened.changes.tongued];
    this.change.set(worst);
    if (worst === undefined) return;
    this.bar.set(Math.max(1, worst.places[0].bar));
    const line = this.lineOfBar(this.bar());
    this.visibleLine.set(line);
    setTimeout(() => this.goToLine(line, false));
  }

  /** The same tune taken apart anew, with other fingers or for another player: what was ticked, chosen and in hand stays, under its new fingers. */
  private carryOver(before: OpenedTune, opened: OpenedTune): void {
    const [was, all] = [allChanges(before), allChanges(opened)];
    const ticked = was.filter(({ id }) => this.ticked().has(id)).flatMap((change) => successors(all, change));
    this.ticked.set(new Set(ticked.map(({ id }) => id)));
    const chosen = this.change();
    this.change.set((chosen === undefined ? [] : successors(all, chosen)).at(0) ?? all.at(0));
    this.bar.update((bar) => Math.min(bar, opened.tune.bars[opened.tune.bars.length - 1].number));
    this.visibleLine.set(this.lineOfBar(this.bar()));
  }

  private stepChange(step: number): void {
    const opened = this.opened();
    const change = this.change();
    if (opened === undefined) return;
    const all = allChanges(opened);
    const index = change === undefined ? 0 : all.indexOf(change) + step;
    const next = all[Math.min(all.length - 1, Math.max(0, index))];
    if (next !== undefined) this.choose(next);
  }
}

/** Parts of a tune that can be taken home one by one. */
const mostParts = 6;
const noForm: Form = { measures: [], parts: [], order: '', sections: [], sentences: [] };

/** Lines of the list of changes, headings counted. */
const mostLines = 5;

/** What a family is called where somebody has none of it. */
const familyWords = { pipes: 'Highland chanter', 'irish-pipes': 'Irish chanter', whistle: 'whistle', recorder: 'recorder', ocarina: 'ocarina' } as const;
