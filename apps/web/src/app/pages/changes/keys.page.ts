import { Component, computed, inject, input, linkedSignal, signal, viewChild, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { changeBetween, type Change } from '@zelpit/core/change';
import { chartedFingering, noteOf, type FingerId, type NoteId } from '@zelpit/core/fingering';
import { scaleFrom } from '@zelpit/core/line-sets';
import {
  canBeSensed,
  fingersDown,
  fingersResult,
  fitPlayed,
  fitText,
  judgePlaying,
  simulatedPlaying,
  type FingerEvent,
  type PlayedChange,
  verdictCounts,
  type Verdict,
} from '@zelpit/core/playing';
import { changeTimeline } from '@zelpit/core/sound';
import { levels, seededNormal } from '@zelpit/core/timing';
import { count } from '@zelpit/core/words';
import type { Student } from '@zelpit/contract';
import { Attempt } from '../../kernel/api/attempt';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { PainCautionComponent } from '../../music/lines/pain-caution.component';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { FingerPadsComponent, type KeyWay } from '../../music/fingers/finger-pads.component';
import { PairChooserComponent, pairFrom } from './pair-chooser.component';
import { TrialsService } from '../../studio/trials/trials.service';

type What = 'change' | 'scale';

const wayChoices: readonly Choice<KeyWay>[] = [
  { value: 'inverted', label: 'pressing a key lifts its finger' },
  { value: 'held', label: 'holding a key puts its finger down' },
];
const whatChoices: readonly Choice<What>[] = [
  { value: 'change', label: 'there and back' },
  { value: 'scale', label: 'the scale from the first note' },
];
/** Changes that are wantedChange for: forty there and forty back. */
const most = 80;
const noteMs = 700;
const slowest = 20;
const shownBefore = 12;
const simulatedSeed = 7;

const verdictText: Readonly<Record<Verdict, string>> = { clean: 'clean', low: 'cuts in', run: 'slips in', 'over-open': 'a gap' };

/** Fingers as sensors: keys or touches stand for the holes; every change is judged, and the player's own timing is estimated. */
@Component({
  selector: 'zp-keys',
  imports: [SentenceComponent, ForWhomComponent, PairChooserComponent, ChooserComponent, FingerPadsComponent, PainCautionComponent, RouterLink],
  templateUrl: './keys.page.html',
})
export class KeysPage implements OnDestroy {
  private readonly transport = inject(Transport);
  private readonly trials = inject(TrialsService);
  private readonly notices = inject(NoticeService);
  protected readonly state = inject(StudioState);
  protected readonly keeping = new Attempt();
  /** The change to begin with, from the address. */
  readonly from = input<string>();
  readonly to = input<string>();

  protected readonly wayChoices = wayChoices;
  protected readonly whatChoices = whatChoices;
  protected readonly instrument = this.state.instrument;
  private readonly first = computed(() => pairFrom(this.instrument(), this.from(), this.to()));
  protected readonly home = linkedSignal((): NoteId => this.first().from);
  protected readonly other = linkedSignal((): NoteId => this.first().to);
  protected readonly way = signal<KeyWay>('inverted');
  protected readonly what = signal<What>('change');
  protected readonly wayText = computed(() => labelOf(wayChoices, this.way()));
  protected readonly whatText = computed(() => labelOf(whatChoices, this.what()));

  /** The changes that are wantedChange for, one after another. */
  protected readonly changes = computed((): readonly Change[] => {
    const [instrument, from, to] = [this.instrument(), this.home(), this.other()];
    if (from === to) return [];
    const there = this.what() === 'change' ? [from, to] : scaleFrom(instrument, from);
    const round = this.what() === 'change' ? there : [...there, ...there.slice(1, -1).reverse()];
    if (round.length < 2) return [];
    const notes = Array.from({ length: most + 1 }, (_, index) => round[index % round.length]);
    return notes.slice(1).map((note, index) => changeBetween(instrument, notes[index], note));
  });
  /** What keys cannot tell of this: nothing is wantedChange for then. */
  protected readonly cannot = computed(() => {
    if (this.changes().length === 0) return 'Choose two different notes.';
    const blind = this.changes().find(({ fromPattern, toPattern }) => !canBeSensed(fromPattern, toPattern));
    if (blind === undefined) return '';
    return `Keys and pads cannot show half covers or breath, so ${this.nameOf(blind)} cannot be judged here. Choose other notes.`;
  });

  /** Everything that the fingers did since the start, and the fingers as they lie. */
  private readonly events = linkedSignal({ source: this.changes, computation: (): readonly FingerEvent[] => [] });
  protected readonly isSimulated = linkedSignal({ source: this.changes, computation: () => false });
  private readonly pads = viewChild(FingerPadsComponent);
  protected readonly isReady = linkedSignal({ source: this.changes, computation: () => false });

  protected readonly judged = computed(() => judgePlaying(this.instrument(), this.changes(), this.events()));
  protected readonly wantedChange = computed((): Change | undefined => this.changes()[this.judged().reached]);

  /** Fingers that the next note asks for. */
  protected readonly wanted = computed((): ReadonlySet<FingerId> | undefined => {
    const wantedChange = this.wantedChange();
    return wantedChange === undefined ? undefined : fingersDown(this.instrument(), this.isReady() ? wantedChange.toPattern : wantedChange.fromPattern);
  });
  /** How many keys must be down at once, this way. */
  protected readonly needed = computed(() => {
    const [instrument, [change]] = [this.instrument(), this.changes()];
    if (change === undefined) return 0;
    const down = Math.max(...[change.fromPattern, change.toPattern].map((pattern) => fingersDown(instrument, pattern).size));
    const up = Math.max(...[change.fromPattern, change.toPattern].map((pattern) => instrument.fingers.length - fingersDown(instrument, pattern).size));
    return this.way() === 'held' ? down : up;
  });
  protected readonly keyboardText = computed(() => {
    const [needed, seen] = [this.needed(), this.pads()?.mostPressed() ?? 0];
    if (needed === 0) return '';
    const start = `This needs up to ${count(needed, 'key')} down at once`;
    if (seen >= needed) return `${start}; your keyboard has shown that it can report them.`;
    if (seen === 0) return `${start}. Press that many together once, to test whether your keyboard can report them all.`;
    const other =
      this.way() === 'held'
        ? ' If you held more, your keyboard cannot report them all: choose “pressing a key lifts its finger”, or use the pads on a tablet.'
        : '';
    return `${start}; it has reported ${seen} so far.${other}`;
  });

  protected readonly last = computed(() => {
    const { played } = this.judged();
    return played.length === 0 ? undefined : this.playedInWords(played[played.length - 1]);
  });
  protected readonly before = computed(() =>
    this.judged()
      .played.slice(-shownBefore)
      .reverse()
      .map((each) => this.playedInWords(each)),
  );
  protected readonly counts = computed(() => verdictCounts(this.judged().played));
  protected readonly fitted = computed(() => fitPlayed(this.changes(), this.judged().played));
  protected readonly estimates = computed(() => {
    const fitted = this.fitted();
    if (fitted === undefined) return [];
    return fitted.fingers.map(({ finger, bias, sigma }) => ({
      label: this.instrument().fingers.find(({ id }) => id === finger)?.label ?? finger,
      bias: `${Math.abs(bias.value).toFixed(0)} ms ${bias.value < 0 ? 'early' : 'late'}`,
      biasError: `± ${(1.64 * bias.error).toFixed(0)}`,
      sigma: `${sigma.value.toFixed(0)} ms`,
      sigmaError: `± ${(1.64 * sigma.error).toFixed(0)}`,
    }));
  });
  protected readonly fitText = computed(() => fitText(this.fitted()));

  constructor() {
    this.state.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  ngOnDestroy(): void {
    this.transport.stop();
  }

  protected take(event: FingerEvent): void {
    if (this.isReady()) this.events.update((events) => [...events, event]);
  }

  /** The first note stands: from now on every finger counts. */
  protected follow(lying: ReadonlySet<FingerId>): void {
    const [first] = this.changes();
    if (first === undefined || this.isReady()) return;
    const wanted = fingersDown(this.instrument(), first.fromPattern);
    if (wanted.size === lying.size && [...wanted].every((finger) => lying.has(finger))) this.isReady.set(true);
  }

  protected chooseWay(way: KeyWay): void {
    this.way.set(way);
    this.again();
  }

  protected again(): void {
    this.events.set([]);
    this.isSimulated.set(false);
    this.isReady.set(false);
    const pads = this.pads();
    if (pads === undefined) return;
    pads.mostPressed.set(0);
    this.follow(pads.lying());
  }

  /** Stands in where no one plays: a beginner, the same each time. */
  protected simulate(): void {
    const instrument = this.instrument();
    const [first] = this.changes();
    if (first === undefined || this.cannot() !== '') return;
    const notes = [first.from, ...this.changes().map(({ to }) => to)].map((note) => ({ fingering: chartedFingering(instrument, note), ms: noteMs }));
    this.events.set(simulatedPlaying(instrument, notes, levels.beginner, seededNormal(simulatedSeed)).events);
    this.isReady.set(true);
    this.isSimulated.set(true);
  }

  protected hearLast(slower: boolean): void {
    const { played } = this.judged();
    const last = played[played.length - 1];
    if (last === undefined) return;
    const timeline = changeTimeline(this.instrument(), this.changes()[last.index], last.moments, { noteMs, slower: slower ? slowest : 1 });
    this.transport.sound(this.instrument(), timeline);
  }

  protected keep(isTaken: boolean): void {
    const [fitted, { played }] = [this.fitted(), this.judged()];
    if (played.length === 0) return;
    const result = { ...fingersResult({ from: this.home(), to: this.other() }, played, fitted), isTaken };
    const who = this.whoText();
    this.keeping.run(this.trials.add({ studentId: this.state.student()?.id ?? null, model: this.instrument().id, result }, 'the result'), () =>
      this.notices.done(isTaken ? `Saved. Changes, lines and tunes now use this timing for ${who}.` : 'Saved.'),
    );
  }

  protected whoText(): string {
    return (this.state.student() as Student | undefined)?.alias ?? 'you';
  }

  protected nameOf({ from, to }: Change): string {
    return `${noteOf(this.instrument(), from).schoolName} to ${noteOf(this.instrument(), to).schoolName}`;
  }

  private playedInWords({ index, verdict, ms, heard, stray }: PlayedChange): {
    readonly index: number;
    readonly name: string;
    readonly verdict: Verdict;
    readonly text: string;
  } {
    const worst = heard.filter(({ kind }) => kind === verdict).sort((one, other) => other.ms - one.ms)[0];
    const note = worst === undefined ? '' : noteOf(this.instrument(), worst.note).schoolName;
    const strays =
      stray.length === 0 ? '' : `; ${stray.map((id) => this.instrument().fingers.find((each) => each.id === id)?.label ?? id).join(', ')} moved too`;
    const text = {
      clean: `clean, all within ${Math.round(ms)} ms`,
      low: `${note} ${verdictText.low} for ${Math.round(ms)} ms`,
      run: `${note} ${verdictText.run} for ${Math.round(ms)} ms`,
      'over-open': `a gap of ${Math.round(ms)} ms`,
    }[verdict];
    return { index, name: this.nameOf(this.changes()[index]), verdict, text: text + strays };
  }
}
