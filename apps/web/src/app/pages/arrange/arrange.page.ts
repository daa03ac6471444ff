import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type Arrangement } from '@zelpit/contract';
import {
  arrangedTune,
  commonKeys,
  embellish,
  instrumentsFor,
  keyRows,
  LieWeigher,
  proposalOf,
  proposedKey,
  simplifiedFor,
  soundsAbove,
  type Embellishment,
  type KeyRow,
} from '@zelpit/core/arrange';
import { excerptOf, hardestPair } from '@zelpit/core/excerpt';
import { formOf } from '@zelpit/core/form';
import type { OrnamentKind } from '@zelpit/core/movement';
import { writeAbc, type PhraseRhythm } from '@zelpit/core/score';
import { PathCosts, usualGraceNoteMs } from '@zelpit/core/timing';
import { pathOfTune, readTune, type Density, type Tune } from '@zelpit/core/tune';
import { count } from '@zelpit/core/words';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ShortenedComponent } from '../../kernel/sentence/shortened.component';
import { pageWidth } from '../../kernel/wide/page-width';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { formOfTune } from '../../documents/tune/form-of-tune';
import { playedNotesOf, TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { OntoSheet } from '../../documents/sheet/onto-sheet.service';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { TempoComponent } from '../../music/sound/tempo.component';
import { Transport } from '../../music/sound/transport.service';
import { InstrumentShelf, isAlike, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { PlayerTimings } from '../../studio/trials/player-timings.service';
import { ArrangeDrawingComponent } from './arrange-drawing.component';
import { KeyTableComponent } from './key-table.component';

const densities: readonly Choice<Density | 'none'>[] = [
  { value: 'none', label: 'as written' },
  { value: 'plain', label: 'plain' },
  { value: 'a-few', label: 'a few' },
  { value: 'session', label: 'session' },
];
const rhythmChoices: readonly Choice<PhraseRhythm | ''>[] = [
  { value: '', label: 'its own' },
  { value: 'even', label: 'even' },
  { value: 'dotted', label: 'dot and cut' },
  { value: 'cut', label: 'cut and dot' },
];
/** Rows of the table that are shown at once. */
const shownRows = 5;
const mostInPhrase = 8;

/** A tune arranged for the player in front of the teacher: key, folds, ornaments, what is left out. The tune itself stays as written. */
@Component({
  selector: 'zp-arrange-page',
  imports: [SentenceComponent, ShortenedComponent, ChooserComponent, ForWhomComponent, RouterLink, KeyTableComponent, ArrangeDrawingComponent, TempoComponent],
  templateUrl: './arrange.page.html',
})
export class ArrangePage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly onto = inject(OntoSheet);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  private readonly shelf = inject(InstrumentShelf);
  private readonly book = inject(MovementBook);
  private readonly timings = inject(PlayerTimings);
  private readonly sound = inject(SoundSettings);
  protected readonly state = inject(StudioState);
  protected readonly transport = inject(Transport);
  readonly id = input.required<string>();

  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  private readonly kept = signal<{ readonly arrangement: Arrangement; readonly version: number }>({ arrangement: noArrangement, version: 0 });
  protected readonly draft = signal<Arrangement>(noArrangement);
  protected readonly density = signal<Density | 'none'>('none');
  protected readonly perPhrase = signal(2);
  protected readonly isSimplified = signal(false);
  protected readonly isForSingers = signal(false);
  protected readonly showsAllRows = signal(false);
  /** Another instrument that plays along; empty for none. */
  protected readonly together = signal('');
  /** The phrase whose rhythm is chosen, by its place in the form. */
  protected readonly phrase = signal(0);
  protected readonly bar = signal(1);
  protected readonly width = pageWidth();
  protected readonly densities = densities;
  protected readonly rhythmChoices = rhythmChoices;

  private readonly weigher = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : new LieWeigher(opened.instrument, opened.tune, opened.articulation, this.timings.tableFor(opened.instrument));
  });
  private readonly rows = computed((): readonly KeyRow[] => {
    const [opened, weigher] = [this.opened(), this.weigher()];
    if (opened === undefined || weigher === undefined) return [];
    return keyRows(weigher, opened.tune, formOf(opened.instrument, opened.tune), this.isForSingers() ? 'lowest' : 'easiest');
  });
  private readonly written = computed(() => this.rows().find(({ semitones, folds }) => semitones === 0 && folds.length === 0));
  protected readonly chosen = computed(() => {
    const { semitones, folds } = this.draft();
    return this.rows().find((row) => row.semitones === semitones && JSON.stringify(row.folds) === JSON.stringify(folds)) ?? this.written();
  });
  /** The best rows, with the chosen one and the one as written. */
  protected readonly shown = computed(() => {
    const rows = this.rows();
    if (this.showsAllRows() || rows.length <= shownRows) return rows;
    const wanted = new Set<KeyRow | undefined>([...rows.slice(0, shownRows - 1), this.chosen(), this.written()]);
    return rows.filter((row) => wanted.has(row));
  });
  protected readonly moreRows = computed(() => this.rows().length - this.shown().length);
  protected readonly hasKeys = computed(() => this.rows().length > 1);

  protected readonly proposed = computed(() => {
    const [chosen, written] = [this.chosen(), this.written()];
    if (chosen === undefined || written === undefined) return undefined;
    return chosen === written ? proposedKey(this.rows()) : proposalOf(chosen, written);
  });
  /** True where something better is proposed than what is chosen. */
  protected readonly isOffered = computed(() => this.proposed() !== undefined && this.proposed()?.row !== this.chosen());

  protected readonly after = computed((): Tune | undefined => {
    const opened = this.opened();
    return opened === undefined ? undefined : arrangedTune(opened.instrument, opened.tune, this.draft());
  });
  private readonly simpler = computed(() => {
    const opened = this.opened();
    const student = this.state.student();
    if (opened === undefined) return undefined;
    const moved = arrangedTune(opened.instrument, opened.tune, { ...noArrangement, semitones: this.draft().semitones, folds: this.draft().folds });
    return simplifiedFor(opened.instrument, moved, { notes: opened.held?.knownNotes ?? [], movements: student?.movements ?? [] }, this.book.own());
  });
  protected readonly simplerText = computed(() => {
    const simpler = this.simpler();
    if (simpler === undefined) return '';
    if (simpler.kind === 'none') return simpler.reason;
    if (simpler.leftOut.length === 0) return 'nothing to leave out';
    const shown = simpler.leftOut.slice(0, 2).map(({ bar, text }) => `bar ${bar}: ${text}`);
    return `${shown.join('; ')}${simpler.leftOut.length > 2 ? ` and ${simpler.leftOut.length - 2} more` : ''}`;
  });
  /** Everything that simplifying changes, a line each. */
  protected readonly leftOut = computed(() => {
    const simpler = this.simpler();
    return simpler?.kind === 'simpler' ? simpler.leftOut.map(({ bar, text }) => `Bar ${bar}: ${text}.`) : [];
  });
  private readonly added = computed((): readonly Embellishment[] => {
    const [opened, density] = [this.opened(), this.density()];
    if (opened === undefined || density === 'none') return [];
    const moved = arrangedTune(opened.instrument, opened.tune, {
      ...noArrangement,
      semitones: this.draft().semitones,
      folds: this.draft().folds,
      instead: this.draft().instead,
    });
    const perPhrase = density === 'a-few' ? this.perPhrase() : undefined;
    return embellish(opened.instrument, moved, {
      density,
      ...(perPhrase !== undefined && { perPhrase }),
      movements: this.state.student()?.movements,
      settings: this.book.settings(),
    });
  });
  /** Phrases by the bars that are written for them: one that comes again is the same bars. */
  private readonly phrases = computed((): readonly { readonly from: number; readonly to: number }[] => {
    const opened = this.opened();
    if (opened === undefined) return [];
    const { measures, sections } = formOfTune(opened);
    const all = sections.map(({ first, end }) => measures.slice(first, end).map(({ number }) => number));
    const spans = all.map((numbers) => ({ from: Math.min(...numbers), to: Math.max(...numbers) }));
    return spans.filter(({ from, to }, place) => spans.findIndex((span) => span.from === from && span.to === to) === place);
  });
  protected readonly phraseChoices = computed((): readonly Choice<number>[] =>
    this.phrases().map(({ from, to }, index) => ({ value: index, label: from === to ? `bar ${from}` : `bars ${from} to ${to}` })),
  );
  protected readonly rhythm = computed((): PhraseRhythm | '' => {
    const phrase = this.phrases().at(this.phrase());
    return this.draft().rhythms.find(({ from, to }) => from === phrase?.from && to === phrase.to)?.rhythm ?? '';
  });
  /** Everybody else whose instrument has the same notes: a class that plays it together. */
  private readonly classmates = computed((): readonly string[] => {
    const opened = this.opened();
    if (opened === undefined) return [];
    const owners = this.shelf
      .held()
      .flatMap(({ owner, model }) => (owner.kind === 'student' && owner.id !== null && isAlike(this.shelf.known(model), opened.instrument) ? [owner.id] : []));
    return [...new Set(owners)];
  });
  protected readonly classSize = computed(() => this.classmates().length);
  /** Why each ornament stands where it does. */
  protected readonly reasons = computed(() => this.added().map(({ bar, name, text }) => `Bar ${bar}, ${name}: ${text}`));
  protected readonly isTongued = computed(() => ['recorder', 'ocarina'].includes(this.opened()?.instrument.family ?? ''));

  /** Two bars at a time, with what stands between them. */
  protected readonly bars = computed((): readonly number[] => {
    const bars = this.opened()?.tune.bars ?? [];
    const wanted = [this.bar(), this.bar() + 1];
    const found = bars.flatMap(({ number, first, end }, index) => (wanted.includes(number) && end > first ? [index] : []));
    return this.width() < narrowWindow ? found.slice(0, 1) : found;
  });
  protected readonly lastBar = computed(() => (this.opened()?.tune.bars ?? []).reduce((most, { number }) => Math.max(most, number), 1));
  protected readonly barsText = computed(() => {
    const numbers = this.bars().map((index) => this.opened()?.tune.bars[index].number ?? 0);
    const [from, to] = [numbers[0] ?? 1, numbers.at(-1) ?? 1];
    return from === to ? `bar ${from} of ${this.lastBar()}` : `bars ${from} and ${to} of ${this.lastBar()}`;
  });

  protected readonly others = computed((): readonly Choice<string>[] => [
    { value: '', label: 'nobody else' },
    ...this.shelf
      .held()
      .filter(({ id }) => id !== this.opened()?.held?.id)
      .map(({ id, name }) => ({ value: id, label: name })),
  ]);
  /** Keys that both can play. */
  protected readonly common = computed((): readonly { readonly semitones: number; readonly text: string }[] => {
    const [opened, weigher] = [this.opened(), this.weigher()];
    const held = this.shelf.held().find(({ id }) => id === this.together());
    if (opened === undefined || weigher === undefined || held === undefined) return [];
    const other = this.shelf.played(held) ?? this.shelf.known(held.model);
    const tune = readTune(other, opened.detail.abc, opened.detail);
    const players = [
      { weigher, tune: opened.tune },
      { weigher: new LieWeigher(other, tune, opened.articulation, this.timings.tableFor(other)), tune },
    ];
    return commonKeys(players).map(({ players: [own, their], hard }) => ({
      semitones: own.semitones,
      text: `${own.name} ${own.way} (theirs: ${their.name} ${their.way}), ${hard}`,
    }));
  });
  /** How the chosen key lies on the player's other instruments of the family. */
  protected readonly elsewhere = computed((): readonly string[] => {
    const opened = this.opened();
    if (opened === undefined || opened.held === undefined) return [];
    const { owner } = opened.held;
    const own = this.shelf
      .held()
      .filter((held) => held.owner.kind === owner.kind && held.id !== opened.held?.id && JSON.stringify(held.owner) === JSON.stringify(owner));
    const players = own.map((held) => {
      const instrument = this.shelf.played(held) ?? this.shelf.known(held.model);
      const tune = readTune(instrument, opened.detail.abc, opened.detail);
      return { held, weigher: new LieWeigher(instrument, tune, opened.articulation, this.timings.tableFor(instrument)), tune };
    });
    const sounding = this.draft().semitones + soundsAbove(opened.instrument);
    return instrumentsFor(players, sounding).map(({ instrument, row }) => `${nameOf(instrument)}: ${row.name} ${row.way}, ${row.hard}`);
  });

  protected readonly instrumentText = computed(() => {
    const opened = this.opened();
    return opened === undefined ? '' : (opened.held?.name ?? nameOf(opened.instrument));
  });
  /** The caution of the shrill notes that are in it as it is chosen now. */
  protected readonly caution = computed(() => {
    const opened = this.opened();
    const lie = this.chosen()?.lie;
    if (opened === undefined || lie === undefined || lie.shrill === 0) return '';
    const note = opened.instrument.notes.find(({ caution }) => caution !== undefined);
    return `${lie.shrill} ${lie.shrill === 1 ? 'note is' : 'notes are'} ${note?.caution ?? ''}`;
  });
  protected readonly isChanged = computed(() => JSON.stringify(this.draft()) !== JSON.stringify(this.kept().arrangement));
  protected readonly isStale = computed(() => this.kept().version > 0 && this.kept().arrangement.tuneVersion !== (this.opened()?.detail.version ?? 1));
  protected readonly tempo = computed(() => Math.round(((this.opened()?.tune.tempo ?? 60) * this.sound.percent()) / 100));
  protected readonly playing = computed(() => this.transport.position()?.note ?? -1);

  private readonly release = inject(KeyService).use('arrange', {
    play: () => this.toggle(true),
    before: () => this.toggle(false),
    next: () => this.goTo(this.bar() + 2),
    back: () => this.goTo(this.bar() - 2),
    up: () => this.stepRow(-1),
    down: () => this.stepRow(1),
    ornaments: () => this.nextDensity(),
    simplify: () => this.simplify(),
    main: () => (this.isOffered() ? this.takeOffer() : this.keep()),
    slower: () => this.changeTempo(false),
    faster: () => this.changeTempo(true),
    leave: () => void this.router.navigate(['/tunes', this.id()]),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      this.state.student();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => this.open(id));
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
    this.book.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  protected chooseRow({ semitones, folds }: KeyRow): void {
    // Notes that were left out in one key are others in the next.
    this.isSimplified.set(false);
    this.change({ semitones, folds: [...folds], instead: {} });
    this.decorate();
  }

  protected chooseKey(semitones: number): void {
    const row = this.rows().find((each) => each.semitones === semitones && each.folds.length === 0);
    if (row !== undefined) this.chooseRow(row);
  }

  protected takeOffer(): void {
    const row = this.proposed()?.row;
    if (row !== undefined) this.chooseRow(row);
  }

  protected chooseDensity(density: Density | 'none'): void {
    this.density.set(density);
    this.decorate();
  }

  protected changePerPhrase(by: number): void {
    this.perPhrase.update((count) => Math.max(1, Math.min(mostInPhrase, count + by)));
    this.decorate();
  }

  protected simplify(): void {
    const simpler = this.simpler();
    if (simpler === undefined) return;
    if (simpler.kind === 'none') {
      this.notices.done(simpler.reason);
      return;
    }
    this.isSimplified.update((on) => !on);
    this.change(this.isSimplified() ? { layers: { ...simpler.layers }, instead: { ...simpler.instead } } : { layers: {}, instead: {} });
    this.decorate();
  }

  protected goTo(bar: number): void {
    this.bar.set(Math.max(1, Math.min(this.lastBar(), bar)));
  }

  protected toggle(isAfter: boolean): void {
    const id = isAfter ? 'after' : 'before';
    if (this.transport.playing() === id) {
      this.transport.stop();
      return;
    }
    const [opened, after] = [this.opened(), this.after()];
    if (opened === undefined || after === undefined) return;
    const tune = isAfter ? after : opened.tune;
    const path = pathOfTune(new PathCosts(opened.instrument), tune, opened.articulation, opened.pins);
    const from = Math.max(
      0,
      tune.playedBars.findIndex((index) => tune.bars[index].number >= this.bar()),
    );
    const notes = playedNotesOf({ tune, articulation: opened.articulation, path }, tune.playedBars.slice(this.bar() === 1 ? 0 : from));
    const firstBeat = notes[0] === undefined ? 0 : tune.notes[notes[0].index].beat - 1;
    void this.transport.play({
      id,
      instrument: opened.instrument,
      notes,
      settings: {
        ...{ tempo: this.tempo(), beatsInBar: tune.meter.beats, firstBeat, graceNoteMs: usualGraceNoteMs, isClickOn: this.sound.hasClick() },
        countInBeats: this.sound.hasCountIn() ? tune.meter.beats + (firstBeat > 1e-6 ? firstBeat : 0) : 0,
      },
      times: 1,
    });
  }

  protected changeTempo(isFaster: boolean): void {
    if (isFaster) this.sound.faster();
    else this.sound.slower();
    const playing = this.transport.playing();
    if (playing === undefined) return;
    this.transport.stop();
    this.toggle(playing === 'after');
  }

  /** Kept for this student; the tune itself stays as it is written. */
  protected keep(): void {
    const [opened, student] = [this.opened(), this.state.student()];
    if (opened === undefined || student === undefined) return;
    const before = this.kept();
    const arrangement = { ...this.draft(), tuneVersion: opened.detail.version };
    this.arrangements.save(this.id(), student.id, arrangement, before.version).subscribe({
      next: (kept) => {
        this.kept.set(kept);
        this.draft.set(kept.arrangement);
        this.notices.done(`Kept for ${student.alias}. The tune itself stays as written.`, () =>
          this.arrangements
            .save(this.id(), student.id, before.arrangement, kept.version)
            .subscribe({ next: (back) => this.take(back), error: (error: unknown) => this.notices.fault(error) }),
        );
      },
      error: (error: unknown) => {
        this.notices.fault(error);
      },
    });
  }

  protected chooseRhythm(rhythm: PhraseRhythm | ''): void {
    const phrase = this.phrases().at(this.phrase());
    if (phrase === undefined) return;
    const others = this.draft().rhythms.filter(({ from, to }) => to < phrase.from || from > phrase.to);
    this.change({ rhythms: rhythm === '' ? others : [...others, { ...phrase, rhythm }].sort((one, other) => one.from - other.from) });
    this.goTo(phrase.from);
  }

  /** The same key, folds, rhythms and ornaments for everybody who plays it; simpler notes stay each one's own. */
  protected keepForClass(): void {
    const opened = this.opened();
    if (opened === undefined) return;
    const { semitones, folds, ornaments, graces, rhythms } = this.draft();
    const tuneVersion = opened.detail.version;
    const forOne = (theirs: Arrangement): Arrangement => ({
      ...{ semitones, folds, ornaments, graces, rhythms, tuneVersion, layers: theirs.layers, voice: theirs.voice },
      instead: theirs.semitones === semitones && JSON.stringify(theirs.folds) === JSON.stringify(folds) ? theirs.instead : {},
    });
    this.arrangements.saveForAll(this.id(), this.classmates(), forOne).subscribe({
      next: (undo) => {
        this.loadKept();
        this.notices.done(`Kept for ${count(this.classSize(), 'student')}. Simpler notes stay as each has them.`, () =>
          undo().subscribe({ next: () => this.loadKept(), error: (error: unknown) => this.notices.fault(error) }),
        );
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected leaveAsWritten(): void {
    this.density.set('none');
    this.isSimplified.set(false);
    this.draft.set({ ...noArrangement, voice: this.draft().voice, tuneVersion: this.opened()?.detail.version ?? 1 });
  }

  /** The tune as this student has it, onto the sheet. */
  protected takeHome(): void {
    const [opened, after, student] = [this.opened(), this.after(), this.state.student()];
    if (opened === undefined || after === undefined || student === undefined) return;
    const [home, other] = hardestPair(opened.instrument, after);
    const item = {
      ...{ kind: 'tune' as const, home, other, repetitions: 1, tempo: this.tempo(), point: '', exercise: null, fingering: null },
      excerpt: excerptOf(opened.detail.title, '', after),
    };
    this.onto.put({ student, instrument: opened.instrument.id, tune: { id: this.id(), title: opened.detail.title } }, [item]).subscribe({
      next: ({ sheet, undo }) =>
        this.notices.done(`On ${student.alias}’s sheet “${sheet.title}”.`, () => undo().subscribe({ error: (error: unknown) => this.notices.fault(error) })),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** The arrangement becomes the tune's own text; a notice takes it back. */
  protected writeIntoText(): void {
    const [opened, after] = [this.opened(), this.after()];
    if (opened === undefined || after === undefined) return;
    const { abc, version } = opened.detail;
    const save = (text: string, at: number, done: (version: number) => void): void => {
      this.tunes.save(this.id(), { abc: text, version: at }).subscribe({
        next: (saved) => {
          if (saved.kind === 'refused') this.notices.done('The text could not be read that way, so nothing was changed.');
          else done(saved.tune.version);
        },
        error: (error: unknown) => this.notices.fault(error),
      });
    };
    save(writeAbc({ ...after.score, header: opened.tune.score.header, titles: opened.tune.score.titles, words: opened.tune.score.words }), version, (now) => {
      this.notices.done('The tune’s text is as arranged now.', () => save(abc, now, () => this.open(this.id())));
      this.leaveAsWritten();
      this.open(this.id());
    });
  }

  private stepRow(by: number): void {
    const rows = this.shown();
    const chosen = this.chosen();
    const next = rows[Math.max(0, Math.min(rows.length - 1, (chosen === undefined ? 0 : rows.indexOf(chosen)) + by))];
    if (next !== undefined) this.chooseRow(next);
  }

  private nextDensity(): void {
    const place = densities.findIndex(({ value }) => value === this.density());
    this.chooseDensity(densities[(place + 1) % densities.length].value);
  }

  private decorate(): void {
    const added = this.added();
    const ornaments = Object.fromEntries(
      added.flatMap(({ note, ornament }): [string, OrnamentKind][] => (ornament === undefined ? [] : [[String(note), ornament]])),
    );
    const graces = Object.fromEntries(
      added.flatMap(({ note, graces: letters }): [string, string[]][] => (letters === undefined ? [] : [[String(note), [...letters]]])),
    );
    this.change({ ornaments, graces });
  }

  private change(change: Partial<Arrangement>): void {
    this.draft.update((draft) => ({ ...draft, ...change }));
  }

  private take(kept: { readonly arrangement: Arrangement; readonly version: number }): void {
    this.kept.set(kept);
    this.draft.set(kept.arrangement);
  }

  private open(id: string): void {
    this.tunes.open(id).subscribe({
      next: (opened) => {
        this.opened.set(opened);
        this.fault.set('');
        this.loadKept();
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  private loadKept(): void {
    const student = this.state.student();
    if (student === undefined) return;
    this.arrangements.get(this.id(), student.id).subscribe({ next: (kept) => this.take(kept), error: (error: unknown) => this.notices.fault(error) });
  }
}

const narrowWindow = 560;
