import { DatePipe } from '@angular/common';
import { Component, computed, effect, inject, input, linkedSignal, resource, signal, viewChild, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { solvedCover, usualFoot, type Foot } from '@zelpit/core/acoustics';
import {
  cautionsOf,
  chartedFingering,
  isSameFingers,
  isSameToPlay,
  noteOf,
  patternKey,
  soundingPitch,
  teachingOrders,
  withHands,
  type Fingering,
  type NoteId,
  type Pattern,
  type TeachingOrder,
} from '@zelpit/core/fingering';
import { laneLayout, type LaneNote } from '@zelpit/core/lanes';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { LanesComponent, type LaneNames } from '../../music/lanes/lanes.component';
import { SessionService } from '../../kernel/session/session.service';
import { WideComponent } from '../../kernel/wide/wide.component';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayInWords } from '../../kernel/words/words';
import { Transport } from '../../music/sound/transport.service';
import { AnyFingersComponent } from './any-fingers.component';
import { ChartNotes, type NotesShown } from './chart-notes.service';
import { ChartState } from '../../studio/state/chart-state.service';
import { views, type ChartView } from '../../music/lanes/chart-view';
import { FingeringComponent } from '../../music/lanes/fingering.component';
import { holesText } from '../../music/lanes/hole-figure';
import { fromText, movesBetween, sentence } from '../../music/wording/chart-words';

interface Column {
  readonly key: NoteId;
  readonly fingering: Fingering;
  readonly name: string;
  readonly short: string;
  /** Dots over the name: octaves above the first. */
  readonly dots: number;
  readonly lifts: number;
  readonly lands: number;
  readonly isDifferent: boolean;
  readonly isKnown: boolean;
}

const toneSeconds = 1.4;
const [narrowest, widest, edges] = [58, 116, 112];
const [largeColumn, largePitch] = [96, 58];
export const namings: readonly { readonly value: LaneNames; readonly label: string }[] = [
  { value: 'fingers', label: 'finger names' },
  { value: 'holes', label: 'hole numbers' },
  { value: 'both', label: 'both' },
];

/** How the notes of a tune are chosen. */
const tunePrefix = 'tune ';

/** The whole chart of an instrument, and what any pattern of fingers sounds. */
@Component({
  selector: 'zp-charts',
  imports: [
    FingeringComponent,
    WideComponent,
    RouterLink,
    SentenceComponent,
    ForWhomComponent,
    ChooserComponent,
    LanesComponent,
    AnyFingersComponent,
    NgbDropdownModule,
    DatePipe,
  ],
  templateUrl: './charts.page.html',
})
export class ChartsPage implements OnDestroy {
  private readonly transport = inject(Transport);
  private readonly notices = inject(NoticeService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly session = inject(SessionService);
  private readonly tuneNotes = inject(ChartNotes);
  protected readonly state = inject(ChartState);
  /** A tune whose notes are shown, by its id. */
  readonly tune = input<string>();

  protected readonly views = views;
  protected readonly namings = namings;
  protected readonly isStaff = computed(() => !this.session.isFamily());
  protected readonly namingText = computed(() => labelOf(namings, this.naming()));
  protected readonly left = computed(() => (this.isLarge() ? 190 : 116));
  /** As wide as the page allows, within reason. */
  protected readonly columnWidth = computed(() => {
    const share = (document.documentElement.clientWidth - edges - this.left()) / Math.max(1, this.columns().length);
    return Math.floor(Math.max(this.isLarge() ? largeColumn : narrowest, Math.min(widest, share)));
  });

  protected readonly orders = computed(() => teachingOrders(this.instrument()).map(({ text }): Choice<string> => ({ value: text, label: text })));
  protected readonly orderText = signal('');
  protected readonly order = computed((): TeachingOrder => {
    const all = teachingOrders(this.instrument());
    return all.find(({ text }) => text === this.orderText()) ?? all[0];
  });
  protected readonly naming = signal<LaneNames>('fingers');
  /** For the music stand: larger, and nothing but the lanes and the note. */
  protected readonly isLarge = signal(false);
  /** The fingers of the chosen note are hidden until one has tried them. */
  protected readonly isTryingFirst = signal(false);
  protected readonly isSeen = signal(false);
  protected readonly isHidden = computed(() => this.isTryingFirst() && !this.isSeen());
  protected readonly view = signal<ChartView>('player');
  /** Turned round for once; an instrument of somebody's has its own hands. */
  protected readonly isTurned = linkedSignal({ source: this.state.text, computation: () => false });
  protected readonly instrument = computed(() => (this.isTurned() ? withHands(this.state.instrument(), 'right-on-top') : this.state.instrument()));

  protected readonly shown = linkedSignal<string | undefined, NotesShown>({
    source: () => this.tune(),
    computation: (tune) => (tune === undefined ? 'all' : { tune }),
  });
  protected readonly shownChoices = computed((): readonly Choice<string>[] => {
    const owner = this.state.held()?.owner.name;
    const known: readonly Choice<string>[] =
      owner === undefined
        ? []
        : [
            { value: 'known', label: `notes ${owner} knows` },
            { value: 'unknown', label: `notes still to learn` },
          ];
    const tunes = this.tuneNotes.list().map((tune): Choice<string> => ({ value: tunePrefix + tune.id, label: tune.title }));
    return [{ value: 'all', label: 'all' }, ...known, ...tunes];
  });
  /** @param id as the choices have it */
  protected showNotes(id: string): void {
    this.shown.set(id.startsWith(tunePrefix) ? { tune: id.slice(tunePrefix.length) } : (id as Exclude<NotesShown, object>));
  }

  protected readonly shownId = computed(() => {
    const shown = this.shown();
    return typeof shown === 'string' ? shown : tunePrefix + shown.tune;
  });
  private readonly notesOfTune = resource({
    params: () => ({ shown: this.shown(), instrument: this.state.instrument() }),
    loader: async ({ params: { shown, instrument } }) => {
      if (typeof shown === 'string') return undefined;
      try {
        return await this.tuneNotes.ofTune(instrument, shown.tune);
      } catch (error) {
        this.notices.fault(error);
        return undefined;
      }
    },
  });

  protected readonly viewText = computed(() => labelOf(views, this.view()));
  protected readonly pitch = computed(() => {
    if (this.isLarge()) return largePitch;
    return this.instrument().fingers.length > 8 ? 31 : 38;
  });
  protected readonly laneHeight = computed(() => laneLayout(this.instrument(), this.pitch()).height + 10);
  protected readonly referenceName = computed(() => noteOf(this.instrument(), this.instrument().reference.note).schoolName);

  private readonly known = computed(() => new Set(this.state.held()?.knownNotes ?? []));
  private readonly wanted = computed(() => {
    const shown = this.shown();
    if (shown === 'all') return (): boolean => true;
    if (shown === 'known') return (note: NoteId): boolean => this.known().has(note);
    if (shown === 'unknown') return (note: NoteId): boolean => !this.known().has(note);
    const ofTune = this.notesOfTune.value();
    return (note: NoteId): boolean => ofTune === undefined || ofTune.has(note);
  });

  protected readonly columns = computed((): readonly Column[] => {
    const instrument = this.instrument();
    const other = this.state.otherModel();
    const firsts = this.order()
      .notes.filter((note) => this.wanted()(note))
      .map((note) => chartedFingering(instrument, note));
    return firsts.map((fingering, index) => {
      const note = noteOf(instrument, fingering.note);
      const moves = index === 0 ? { lifts: 0, lands: 0 } : movesBetween(instrument, firsts[index - 1].pattern, fingering.pattern);
      const elsewhere = other === undefined ? undefined : chartedFingering(other, note.id);
      return {
        key: note.id,
        fingering,
        name: note.schoolName,
        short: note.writtenName,
        dots: Math.floor((note.writtenSemitone - instrument.notes[0].writtenSemitone) / 12),
        ...moves,
        isDifferent: other !== undefined && elsewhere !== undefined && !isSameToPlay(other, elsewhere.pattern, instrument, fingering.pattern),
        isKnown: this.known().has(note.id),
      };
    });
  });

  /** Stays when something is ticked or kept; another instrument, or one without it, begins at its first note. */
  /** Which note, from the address. */
  readonly note = input<string>();
  private readonly chosenNote = linkedSignal<NoteId>(() => this.note() ?? '');
  protected readonly chosen = computed(() =>
    Math.max(
      0,
      this.columns().findIndex(({ key }) => key === this.chosenNote()),
    ),
  );
  /** Fingers that were put by hand; undefined where those of the chosen note hold. */
  protected readonly tried = linkedSignal({ source: this.state.text, computation: (): Pattern | undefined => undefined });

  /** The other model, where its chart differs. */
  protected readonly different = computed(() => (this.columns().some(({ isDifferent }) => isDifferent) ? this.state.otherModel() : undefined));

  protected readonly current = computed((): Column | undefined => this.columns()[this.chosen()]);
  /** The way in which the chosen note is shown. */
  protected readonly way = linkedSignal((): Fingering => this.current()?.fingering ?? this.instrument().fingerings[0]);
  protected readonly width = computed(() => this.left() + this.columns().length * this.columnWidth() + 16);

  protected readonly laneNotes = computed((): readonly LaneNote[] =>
    this.columns().map(({ fingering }, index) => ({
      x: this.left() + (index + 0.5) * this.columnWidth(),
      note: fingering.note,
      graceNotes: [],
      pattern: index === this.chosen() ? this.way().pattern : fingering.pattern,
    })),
  );

  /** How many octaves the highest note lies above the lowest register. */
  protected readonly hasDots = computed(() => Math.max(0, ...this.columns().map(({ dots }) => dots)));

  protected readonly fromBefore = computed(() => {
    const before = this.columns()[this.chosen() - 1];
    return before === undefined ? [] : fromText(this.instrument(), before.fingering, this.way());
  });

  /** What the tried fingers were, once the right ones are seen. */
  protected readonly triedText = computed(() => {
    const tried = this.tried();
    if (!this.isTryingFirst() || !this.isSeen() || tried === undefined) return undefined;
    const instrument = this.instrument();
    const way = instrument.fingerings.find(({ note, pattern }) => note === this.way().note && isSameFingers(pattern, tried));
    if (way === undefined) return `The chart has ${holesText(instrument, this.way().pattern)}.`;
    return way.rank === 1 ? 'Yes: those are the fingers.' : 'Yes: that is another way to play it.';
  });

  /** Remark, half cover and whose it is, of the way that is shown. */
  protected readonly caution = computed(() => cautionsOf(this.instrument(), [this.way().note]));
  protected readonly aboutWay = computed((): readonly string[] => {
    const instrument = this.instrument();
    const { remark } = this.way();
    const cover = solvedCover(instrument, this.way());
    return [
      ...(remark === undefined ? [] : [sentence(remark)]),
      ...(cover === undefined ? [] : [`Find it by ear. The model has that hole ${Math.round(cover * 100)} % covered.`]),
    ];
  });
  /** What is taught after a fingering that is only for now. */
  protected readonly later = computed(() => {
    const { forNow } = this.way();
    return forNow === undefined ? undefined : { text: `For now, until ${dayInWords(`${forNow.until}T12:00:00`)}; then`, pattern: forNow.eventually };
  });
  /** What the studio said of the way that is shown. */
  protected readonly kept = computed(() => {
    const { note, pattern } = this.way();
    return this.shelf.fingerings().find((each) => each.model === this.instrument().id && each.note === note && isSameFingers(each.pattern, pattern));
  });

  protected readonly ways = computed(() => {
    const instrument = this.instrument();
    const all = instrument.fingerings.filter(({ note }) => note === this.way().note);
    const ranked = [...all].sort((one, other) => one.rank - other.rank);
    return ranked.map((fingering) => ({ fingering, key: patternKey(fingering.pattern), isShown: fingering === this.way() }));
  });

  protected readonly pattern = computed((): Pattern => this.tried() ?? this.way().pattern);
  protected readonly foot = computed((): Foot => {
    if (this.tried() === undefined) return this.way().foot ?? 'open';
    return usualFoot(this.instrument());
  });
  private readonly fingers = viewChild(AnyFingersComponent);

  private readonly release = inject(KeyService).use('chart', {
    play: () => this.hear(),
    hear: () => this.fingers()?.hear(),
    next: () => this.pick(this.chosen() + 1),
    before: () => this.pick(this.chosen() - 1),
    hole: (key) => this.fingers()?.press('1234567890'.indexOf(key)),
  });

  constructor() {
    if (this.isStaff()) this.tuneNotes.load();
    effect(() => {
      const index = this.chosen();
      setTimeout(() => document.querySelectorAll('.chart-head')[index]?.scrollIntoView({ block: 'nearest', inline: 'nearest' }));
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  protected pick(index: number): void {
    if (index < 0 || index >= this.columns().length) return;
    this.chosenNote.set(this.columns()[index].key);
    this.begin();
    this.hear();
  }

  protected toggleTrying(): void {
    this.isTryingFirst.update((on) => !on);
    this.begin();
  }

  /** The chosen note from the start: its own fingers, or none yet where one tries first. */
  private begin(): void {
    this.isSeen.set(false);
    this.tried.set(this.isTryingFirst() ? this.instrument().holes.map(() => 0) : undefined);
  }

  /** Shows the fingers of the note beside those that were tried. */
  protected see(): void {
    this.isSeen.set(true);
  }

  protected show(fingering: Fingering): void {
    this.way.set(fingering);
    this.tried.set(undefined);
  }

  /** Ticks a note as known on the instrument in hand, or unticks it. */
  protected tick({ key }: Column): void {
    const held = this.state.held();
    if (held === undefined) return;
    const knownNotes = held.knownNotes.includes(key) ? held.knownNotes.filter((note) => note !== key) : [...held.knownNotes, key];
    this.shelf.setKnown(held, knownNotes).subscribe({
      error: (error: unknown) => {
        this.notices.fault(error);
        this.shelf.load().subscribe({ error: () => undefined });
      },
    });
  }

  /** Puts the shown way first for its note, or hides it; the built-in chart stays as it is. */
  protected decide(change: { readonly isFirst?: boolean; readonly isHidden?: boolean }): void {
    const { note, pattern, foot, remark, forNow } = this.way();
    const kept = { model: this.instrument().id, note, pattern: [...pattern], ...(foot !== undefined && { foot }), isFirst: false, isHidden: false, ...change };
    const later = forNow === undefined ? null : { until: forNow.until, eventually: [...forNow.eventually] };
    this.shelf.keep({ ...kept, remark: remark ?? '', forNow: later }).subscribe({
      next: (stored) => {
        const text = change.isHidden === true ? 'That fingering is hidden.' : 'That fingering is now taught first.';
        this.notices.done(text, () => this.shelf.drop(stored).subscribe({ error: (error: unknown) => this.notices.fault(error) }));
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected takeBack(): void {
    const kept = this.kept();
    if (kept === undefined) return;
    const { id: _id, by: _by, on: _on, ...text } = kept;
    const again = (): void => void this.shelf.keep(text).subscribe({ error: (error: unknown) => this.notices.fault(error) });
    this.shelf.drop(kept).subscribe({ next: () => this.notices.done('Back to the chart’s own.', again), error: (error: unknown) => this.notices.fault(error) });
  }

  protected hear(): void {
    const instrument = this.instrument();
    this.transport.holdTone(instrument, soundingPitch(instrument, this.way().note), toneSeconds);
  }
}
