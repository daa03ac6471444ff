import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type KeptArrangement } from '@zelpit/contract';
import { arrangedTune } from '@zelpit/core/arrange';
import { countUnit, roundOf } from '@zelpit/core/form';
import { bentNotes, type Feel, type PlayedNote } from '@zelpit/core/sound';
import { PathCosts, usualGraceNoteMs } from '@zelpit/core/timing';
import { changesOfTune, pathOfTune } from '@zelpit/core/tune';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ShortenedComponent } from '../../kernel/sentence/shortened.component';
import { pageWidth } from '../../kernel/wide/page-width';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { scoreGeometryFor, ScoreLineComponent, scoreScaleFor } from '../../music/score/score-line.component';
import { scoreLines } from '../../music/score/score-lines';
import { SoundMenuComponent } from '../../music/sound/sound-menu.component';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { TempoComponent } from '../../music/sound/tempo.component';
import { Transport } from '../../music/sound/transport.service';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { formOfTune } from '../../documents/tune/form-of-tune';
import { barsIn, barsOfStretch, stretchChoices } from '../../documents/tune/stretches-of-tune';
import { playedNotesOf, TunesService, type OpenedTune } from '../../documents/tune/tunes.service';

const feels: readonly Choice<Feel>[] = [
  { value: 'straight', label: 'as written' },
  { value: 'swing', label: 'swung' },
  { value: 'pointed', label: 'with sharper dots and cuts' },
];
const clickChoices: readonly Choice<number>[] = [
  { value: 0, label: 'no click' },
  { value: 1, label: 'the click on the beats' },
  { value: 2, label: 'the click on halves of the beat' },
  { value: 3, label: 'the click on thirds of the beat' },
  { value: 4, label: 'the click on quarters of the beat' },
];
const mineChoices: readonly Choice<'with' | 'alone'>[] = [
  { value: 'with', label: 'the tune sounds along' },
  { value: 'alone', label: 'only the click: you play' },
];

/** A tune to play along with, hands on the instrument: score and fingers move with the sound, one key starts, stops and goes on. */
@Component({
  selector: 'zp-along-page',
  imports: [SentenceComponent, ShortenedComponent, ForWhomComponent, ChooserComponent, RouterLink, ScoreLineComponent, TempoComponent, SoundMenuComponent],
  templateUrl: './along.page.html',
})
export class AlongPage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  protected readonly state = inject(StudioState);
  protected readonly transport = inject(Transport);
  protected readonly sound = inject(SoundSettings);
  protected readonly words = inject(LineWordsChoice);
  readonly id = input.required<string>();

  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  private readonly kept = signal<KeptArrangement>({ arrangement: noArrangement, version: 0 });
  private readonly arrangement = computed(() => this.kept().arrangement);
  protected readonly fault = signal('');
  protected readonly feel = signal<Feel>('straight');
  protected readonly clicks = signal(1);
  protected readonly countIn = signal(0);
  protected readonly mine = signal<'with' | 'alone'>('with');
  /** "all", "part 0", "section 2" */
  protected readonly what = signal('all');
  protected readonly pausesAfterPhrases = signal(false);
  /** Which voice of a round is the student's own, from 1; 0 where nobody sings along. Kept with how the student plays the tune. */
  protected readonly voice = computed(() => this.arrangement().voice);
  /** The phrase that comes next where it pauses. */
  private readonly phrase = signal(0);
  protected readonly isPaused = signal(false);
  protected readonly width = pageWidth();
  protected readonly feels = feels;
  protected readonly clickChoices = clickChoices;
  protected readonly mineChoices = mineChoices;
  private hasStarted = false;

  protected readonly tune = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : arrangedTune(opened.instrument, opened.tune, this.arrangement());
  });
  protected readonly path = computed(() => {
    const [opened, tune] = [this.opened(), this.tune()];
    return opened === undefined || tune === undefined ? new Map() : pathOfTune(new PathCosts(opened.instrument), tune, opened.articulation, opened.pins);
  });
  protected readonly form = computed(() => {
    const [opened, tune] = [this.opened(), this.tune()];
    return opened === undefined || tune === undefined ? undefined : formOfTune({ ...opened, tune });
  });
  protected readonly whatChoices = computed(() => stretchChoices(this.form()));
  protected readonly countInChoices = computed((): readonly Choice<number>[] => {
    const beats = this.tune()?.meter.beats ?? 4;
    return [
      { value: 0, label: 'one bar' },
      { value: 2 * beats, label: 'two bars' },
      { value: 2, label: 'two beats' },
      { value: 4, label: 'four beats' },
    ];
  });
  /** The voices of a round, where the tune is one. */
  protected readonly round = computed(() => {
    const [form, round] = [this.form(), this.opened()?.detail.about.round];
    if (form === undefined || round == null) return undefined;
    const found = roundOf(form, round.voices, round.after ?? undefined);
    return found.kind === 'round' ? found : undefined;
  });
  protected readonly voiceChoices = computed((): readonly Choice<number>[] => [
    { value: 0, label: 'one voice' },
    ...(this.round()?.entries ?? []).map(({ voice }) => ({ value: voice, label: `as a round, mine is voice ${voice}` })),
  ]);

  protected readonly lines = computed(() => {
    const tune = this.tune();
    if (tune === undefined) return [];
    const width = this.width() - scoreGeometryFor(this.opened()?.instrument, this.width()).labels;
    return scoreLines(tune, width, { room: width / scoreScaleFor(this.width()) });
  });
  protected readonly changeAt = computed(() => {
    const [opened, tune] = [this.opened(), this.tune()];
    if (opened === undefined || tune === undefined) return new Map();
    const changes = changesOfTune(opened.instrument, tune, opened.articulation, new Map(), opened.risks);
    const all = [...changes.open, ...changes.underGraceNotes, ...changes.tongued];
    return new Map(all.flatMap((change) => change.places.map((place) => [`${place.from}-${place.to}`, change] as const)));
  });
  protected readonly playing = computed(() => this.transport.position()?.note ?? -1);
  /** The line that sounds, and the one after it. */
  protected readonly shown = computed(() => {
    const lines = this.lines();
    const note = Math.max(0, this.playing());
    const place = Math.max(
      0,
      lines.findIndex(({ first, end }) => note >= first && note < end),
    );
    return lines.slice(place, place + 2);
  });
  protected readonly counted = computed(() => {
    const position = this.transport.position();
    return position === undefined || position.beat >= 0 ? '' : String(Math.ceil(-position.beat));
  });
  protected readonly tempo = computed(() => Math.round(((this.opened()?.tune.tempo ?? 60) * this.sound.percent()) / 100));
  protected readonly todo = computed(() => {
    if (this.isPaused()) return { first: `Pause after phrase ${this.phrase()}.`, second: 'Play it alone now. The same key goes on.' };
    if (this.transport.playing() !== undefined)
      return { first: this.counted() === '' ? 'Play along.' : `Get ready: ${this.counted()}`, second: 'The same key or pedal stops.' };
    return {
      first: 'One key starts it: the space bar, a pedal, or a touch.',
      second: this.mine() === 'alone' ? 'You hear the count-in and the click. The tune is yours.' : 'Slower is always allowed.',
    };
  });

  private readonly release = inject(KeyService).use('along', {
    play: () => this.toggle(),
    main: () => this.toggle(),
    slower: () => this.changeTempo(false),
    faster: () => this.changeTempo(true),
    next: () => this.stepWhat(1),
    before: () => this.stepWhat(-1),
    repeat: () => this.sound.repeats.update((on) => !on),
    leave: () => void this.router.navigate(['/tunes', this.id()]),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      const student = this.state.student();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => this.open(id, student?.id));
    });
    // Silence that nobody asked for is the end: of a phrase, where it pauses, or of everything.
    effect(() => {
      if (this.transport.playing() === undefined && this.hasStarted) {
        this.hasStarted = false;
        untracked(() => this.ended());
      }
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  ngOnDestroy(): void {
    this.release();
    this.hasStarted = false;
    this.transport.stop();
  }

  protected toggle(): void {
    if (this.transport.playing() !== undefined) {
      this.hasStarted = false;
      this.transport.stop();
      return;
    }
    if (!this.isPaused()) this.phrase.set(0);
    this.isPaused.set(false);
    this.start();
  }

  protected choose(what: string): void {
    this.what.set(what);
    this.isPaused.set(false);
    this.phrase.set(0);
    this.again();
  }

  protected chooseVoice(voice: number): void {
    const [student, { arrangement, version }] = [this.state.student(), this.kept()];
    const tuneVersion = version === 0 ? (this.opened()?.detail.version ?? 1) : arrangement.tuneVersion;
    const changed = { ...arrangement, voice, tuneVersion };
    this.kept.set({ arrangement: changed, version });
    this.again();
    if (student === undefined) return;
    this.arrangements
      .save(this.id(), student.id, changed, version)
      .subscribe({ next: (kept) => this.kept.set(kept), error: (error: unknown) => this.notices.fault(error) });
  }

  protected togglePauses(): void {
    this.pausesAfterPhrases.update((on) => !on);
    this.isPaused.set(false);
    this.again();
  }

  protected changeTempo(isFaster: boolean): void {
    if (isFaster) this.sound.faster();
    else this.sound.slower();
    this.again();
  }

  private again(): void {
    if (this.transport.playing() === undefined) return;
    this.hasStarted = false;
    this.start();
  }

  private stepWhat(by: number): void {
    const choices = this.whatChoices();
    const place = choices.findIndex(({ value }) => value === this.what());
    this.choose(choices[Math.max(0, Math.min(choices.length - 1, place + by))].value);
  }

  /** Bars as they are played: what was chosen, or one phrase of it where it pauses. */
  private barsToPlay(): readonly number[] {
    const [form, tune] = [this.form(), this.tune()];
    if (form === undefined || tune === undefined) return [];
    if (!this.pausesAfterPhrases()) return barsOfStretch(form, tune, this.what());
    const section = form.sections[this.phrase()];
    return section === undefined ? [] : barsIn(form, section);
  }

  private start(): void {
    const [opened, tune] = [this.opened(), this.tune()];
    if (opened === undefined || tune === undefined) return;
    const bars = this.barsToPlay();
    const all = playedNotesOf({ tune, articulation: opened.articulation, path: this.path() }, bars);
    if (all.length === 0) return;
    const firstBeat = tune.notes[all[0].index].beat - 1;
    const isAlone = this.mine() === 'alone';
    const notes = bentNotes(isAlone ? all.map((note): PlayedNote => ({ ...note, note: null, graceNotes: [] })) : all, this.feel(), firstBeat);
    const beats = tune.meter.beats;
    const lead = firstBeat > 1e-6 ? firstBeat : 0;
    const countIn = this.countIn() === 0 ? beats : this.countIn();
    const entries = this.entriesInBeats();
    void this.transport.play({
      id: 'along',
      instrument: opened.instrument,
      notes,
      ...(entries.length > 0 && { entries }),
      settings: {
        ...{ tempo: this.tempo(), beatsInBar: beats, firstBeat, graceNoteMs: usualGraceNoteMs },
        countInBeats: this.sound.hasCountIn() ? countIn + lead : 0,
        isClickOn: this.clicks() > 0 || isAlone,
        clicksInBeat: Math.max(1, this.clicks()),
      },
      times: this.sound.repeats() && !this.pausesAfterPhrases() ? 0 : 1,
    });
    this.hasStarted = true;
  }

  /** When the other voices enter; the student's own is left out, so that it can be played. */
  private entriesInBeats(): readonly number[] {
    const [round, form, tune] = [this.round(), this.form(), this.tune()];
    if (round === undefined || form === undefined || tune === undefined || this.voice() === 0 || this.what() !== 'all') return [];
    const unit = countUnit(tune.meter, 'beats');
    const beatsBefore = (measure: number): number => form.measures.slice(0, measure).reduce((sum, { bar }) => sum + tune.bars[bar].length / unit, 0);
    return round.entries.filter(({ voice }) => voice !== this.voice() || this.mine() === 'with').map(({ measure }) => beatsBefore(measure));
  }

  private ended(): void {
    const sections = this.form()?.sections.length ?? 0;
    if (!this.pausesAfterPhrases()) return;
    this.phrase.update((phrase) => phrase + 1);
    this.isPaused.set(this.phrase() < sections);
    if (!this.isPaused()) this.notices.done('That was the last phrase.');
  }

  private open(id: string, student: string | undefined): void {
    this.tunes.open(id).subscribe({
      next: (opened) => {
        this.opened.set(opened);
        this.fault.set('');
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
    this.kept.set({ arrangement: noArrangement, version: 0 });
    if (student === undefined) return;
    this.arrangements.get(id, student).subscribe({ next: (kept) => this.kept.set(kept), error: (error: unknown) => this.notices.fault(error) });
  }
}
