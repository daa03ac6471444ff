import { Component, computed, effect, inject, linkedSignal, signal, type OnDestroy } from '@angular/core';
import {
  chartedFingering,
  heldTone,
  isSameFingers,
  laneLayout,
  noteOf,
  patternKey,
  patternsNear,
  PatternSound,
  soundingPitch,
  teachingOrders,
  type Fingering,
  type LaneNote,
  type Pattern,
  type TeachingOrder,
} from '@zelpit/core';
import { RouterLink } from '@angular/router';
import { LanesComponent, type LaneNames } from '../lanes/lanes.component';
import { ChooserComponent } from '../shell/chooser.component';
import { ForWhomComponent } from '../shell/for-whom.component';
import { KeyService } from '../shell/key.service';
import { SentenceComponent } from '../shell/sentence.component';
import { Transport } from '../sound/transport.service';
import { ChartState } from './chart-state.service';
import { answerSaid, centsSaid, fromSaid, movesBetween, recited, sentence } from './chart-words';
import { HolesComponent, views, type ChartView } from './holes.component';

interface Column {
  readonly key: string;
  readonly fingering: Fingering;
  readonly name: string;
  readonly short: string;
  /** Dots over the name: octaves above the first. */
  readonly dots: number;
  readonly lifts: number;
  readonly lands: number;
  readonly isDifferent: boolean;
}

const toneSeconds = 1.4;
const [narrowest, widest, edges] = [58, 116, 112];
const [largeColumn, largePitch] = [96, 58];
export const namings: readonly { readonly value: LaneNames; readonly said: string }[] = [
  { value: 'fingers', said: 'finger names' },
  { value: 'holes', said: 'hole numbers' },
  { value: 'both', said: 'both' },
];
const withinCents = 25;
const mostOthers = 6;

/** The whole chart of an instrument, and what any pattern of fingers sounds. */
@Component({
  selector: 'zp-charts',
  imports: [RouterLink, SentenceComponent, ForWhomComponent, ChooserComponent, LanesComponent, HolesComponent],
  templateUrl: './charts.page.html',
})
export class ChartsPage implements OnDestroy {
  private readonly transport = inject(Transport);
  protected readonly state = inject(ChartState);
  protected readonly views = views;
  protected readonly namings = namings;
  protected readonly namingSaid = computed(() => namings.find(({ value }) => value === this.naming())?.said ?? '');
  protected readonly left = computed(() => (this.isLarge() ? 190 : 116));
  /** As wide as the page allows, within reason. */
  protected readonly columnWidth = computed(() => {
    const share = (document.documentElement.clientWidth - edges - this.left()) / this.state.instrument().notes.length;
    return Math.floor(Math.max(this.isLarge() ? largeColumn : narrowest, Math.min(widest, share)));
  });

  protected readonly orders = computed(() => teachingOrders(this.state.instrument()).map((order) => ({ value: order, said: order.said })));
  protected readonly order = linkedSignal((): TeachingOrder => this.orders()[0].value);
  protected readonly naming = signal<LaneNames>('fingers');
  /** For the music stand: larger, and nothing but the lanes and the note. */
  protected readonly isLarge = signal(false);
  /** The fingers of the chosen note are hidden until one has tried them. */
  protected readonly isTryingFirst = signal(false);
  protected readonly isSeen = signal(false);
  protected readonly isHidden = computed(() => this.isTryingFirst() && !this.isSeen());
  protected readonly view = signal<ChartView>('player');
  protected readonly chosen = linkedSignal({ source: () => this.order(), computation: () => 0 });
  /** Fingers that were put by hand; undefined where those of the chosen note hold. */
  protected readonly tried = linkedSignal({ source: this.state.instrument, computation: (): Pattern | undefined => undefined });
  protected readonly isMirrored = linkedSignal({ source: this.state.instrument, computation: () => false });

  private readonly sound = computed(() => new PatternSound(this.state.instrument()));
  protected readonly viewSaid = computed(() => views.find(({ value }) => value === this.view())?.said ?? '');
  protected readonly pitch = computed(() => {
    if (this.isLarge()) return largePitch;
    return this.state.instrument().fingers.length > 8 ? 34 : 42;
  });
  protected readonly laneHeight = computed(() => laneLayout(this.state.instrument(), this.pitch()).height + 10);
  protected readonly hasHalves = computed(() => this.state.instrument().holes.some(({ half }) => half !== undefined));
  protected readonly referenceName = computed(() => noteOf(this.state.instrument(), this.state.instrument().reference.note).schoolName);

  protected readonly columns = computed((): readonly Column[] => {
    const instrument = this.state.instrument();
    const other = this.state.otherModel();
    const firsts = this.order().notes.map((note) => chartedFingering(instrument, note));
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
        isDifferent: elsewhere !== undefined && !isSameFingers(elsewhere.pattern, fingering.pattern),
      };
    });
  });

  /** The other model, where its chart differs. */
  protected readonly different = computed(() => (this.columns().some(({ isDifferent }) => isDifferent) ? this.state.otherModel() : undefined));

  protected readonly current = computed(() => this.columns()[this.chosen()]);
  /** The way in which the chosen note is shown. */
  private readonly shown = linkedSignal((): Fingering => this.current().fingering);
  protected readonly width = computed(() => this.left() + this.columns().length * this.columnWidth() + 16);

  protected readonly laneNotes = computed((): readonly LaneNote[] =>
    this.columns().map(({ fingering }, index) => ({
      x: this.left() + (index + 0.5) * this.columnWidth(),
      note: fingering.note,
      graceNotes: [],
      pattern: index === this.chosen() ? this.shown().pattern : fingering.pattern,
    })),
  );

  protected readonly fromBefore = computed(() => {
    const before = this.columns()[this.chosen() - 1];
    return before === undefined ? [] : fromSaid(this.state.instrument(), before.fingering, this.shown());
  });

  /** What the tried fingers were, once the right ones are seen. */
  protected readonly triedSaid = computed(() => {
    const tried = this.tried();
    if (!this.isTryingFirst() || !this.isSeen() || tried === undefined) return undefined;
    const instrument = this.state.instrument();
    const way = instrument.fingerings.find(({ note, pattern }) => note === this.current().fingering.note && isSameFingers(pattern, tried));
    if (way === undefined) return `Your fingers were ${recited(instrument, tried)}; the chart has ${recited(instrument, this.shown().pattern)}.`;
    return way.rank === 1 ? 'Yes: those are the fingers.' : 'Yes: that is another way to play it.';
  });

  protected readonly remark = computed(() => {
    const { remark } = this.shown();
    return remark === undefined ? undefined : sentence(remark);
  });

  protected readonly ways = computed(() => {
    const instrument = this.state.instrument();
    const all = instrument.fingerings.filter(({ note }) => note === this.current().fingering.note);
    if (all.length < 2) return [];
    return all.map((fingering) => ({ fingering, said: recited(instrument, fingering.pattern), isShown: fingering === this.shown() }));
  });

  protected readonly pattern = computed((): Pattern => this.tried() ?? this.shown().pattern);
  private readonly foot = computed(() => (this.tried() === undefined ? (this.shown().foot ?? 'open') : this.footOfFamily()));
  private readonly given = computed(() => this.sound().answer(this.pattern(), this.foot()));
  protected readonly answer = computed(() => answerSaid(this.state.instrument(), this.given()));

  protected readonly others = computed(() => {
    const instrument = this.state.instrument();
    const given = this.given();
    if (given.kind !== 'sounds') return [];
    const wanted = soundingPitch(instrument, given.sounding.note);
    return patternsNear(instrument, wanted, withinCents, [this.pattern()])
      .filter(({ pattern }) => patternKey(pattern) !== patternKey(this.pattern()))
      .slice(0, mostOthers)
      .map(({ pattern, cents, moved }) => ({
        pattern,
        said: recited(instrument, pattern),
        cents: centsSaid(cents),
        moved: `${moved} ${moved === 1 ? 'hole' : 'holes'} away`,
      }));
  });

  private readonly release = inject(KeyService).use([
    { keys: [' '], cap: 'Space', said: 'Hear the chosen note', run: () => this.hear() },
    { keys: ['h'], cap: 'H', said: 'Hear the fingers as they are', run: () => this.hearPattern() },
    { keys: ['ArrowRight'], cap: '→', said: 'Next note', run: () => this.pick(this.chosen() + 1) },
    { keys: ['ArrowLeft'], cap: '←', said: 'Note before it', run: () => this.pick(this.chosen() - 1) },
    ...['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'].map((key, hole) => ({
      keys: [key],
      cap: key,
      said: `Hole ${hole + 1} from the top, covered or open`,
      run: () => this.press(hole),
    })),
  ]);

  constructor() {
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
    this.chosen.set(index);
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
    this.tried.set(this.isTryingFirst() ? this.state.instrument().holes.map(() => 0) : undefined);
  }

  /** Shows the fingers of the note beside those that were tried. */
  protected see(): void {
    this.isSeen.set(true);
  }

  protected show(fingering: Fingering): void {
    this.shown.set(fingering);
    this.tried.set(undefined);
  }

  /** Covers a hole, opens it, and between the two half covers it where that is done. */
  protected press(index: number): void {
    const hole = this.state.instrument().holes[index];
    if (hole === undefined) return;
    const now = this.pattern()[index];
    const steps = hole.half === undefined ? [0, 1] : [0, hole.half, 1];
    const next = steps[(steps.findIndex((step) => step >= now) + 1) % steps.length];
    this.tried.set(this.pattern().map((coverage, at) => (at === index ? next : coverage)));
  }

  protected hear(): void {
    const instrument = this.state.instrument();
    this.play(soundingPitch(instrument, this.current().fingering.note));
  }

  protected hearPattern(): void {
    const given = this.given();
    if (given.kind === 'sounds') this.play(given.sounding.hertz);
  }

  private play(pitch: number): void {
    this.transport.hold((sampleRate) => heldTone(this.state.instrument().family, pitch, toneSeconds, sampleRate));
  }

  private footOfFamily(): 'open' | 'closed' {
    return this.state.instrument().family === 'irish-pipes' ? 'closed' : 'open';
  }
}
