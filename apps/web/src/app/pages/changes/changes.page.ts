import { Component, computed, effect, inject, input, linkedSignal, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { scaleSqrt } from 'd3-scale';
import { loudnessShown } from '@zelpit/core/acoustics';
import {
  adviceFor,
  changeName,
  changeOfFingerings,
  comfortHint,
  hintsFor,
  isGlide,
  kindPhrase,
  leadOf,
  mirrorCheck,
  troubleOf,
  type Change,
} from '@zelpit/core/change';
import { patternKey, wayIdOf, wayName, waysOf, type Fingering, type Instrument, type NoteId, type Pattern, isTonguedFamily } from '@zelpit/core/fingering';
import { changeTimeline, type ChangePlay } from '@zelpit/core/sound';
import {
  bestLead,
  graceNotesOver,
  inBetweenSounds,
  levels,
  normalPool,
  RiskTable,
  type Hiding,
  type TimingParameters,
  graceNoteMs,
  tongueSilenceMs,
  usualGraceNoteMs,
} from '@zelpit/core/timing';
import { count } from '@zelpit/core/words';
import { ChartState } from '../../studio/state/chart-state.service';
import { TipComponent } from '../../kernel/tip/tip.component';
import { WideComponent } from '../../kernel/wide/wide.component';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { KeyService } from '../../kernel/keys/key.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { FingeringComponent } from '../../music/lanes/fingering.component';
import { SoundMenuComponent } from '../../music/sound/sound-menu.component';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ChangeLanesComponent } from './change-lanes.component';
import type { ChangeMapAnswer, ChangeMapRequest, MappedChange } from './change-map-messages';
import { startChangeMapWorker } from './change-map-worker';
import {
  inHundred,
  levelChoices,
  loudText,
  moversText,
  nameOfNote,
  risksText,
  soundText,
  wayText,
  worstOf,
  type Whose,
} from '../../music/wording/change-words';
import { GlideComponent } from './glide.component';
import { PlayerTimings } from '../../studio/trials/player-timings.service';

type Quantity = 'difficulty' | 'low' | 'run' | 'gap' | 'length';

const quantities: readonly Choice<Quantity>[] = [
  { value: 'difficulty', label: 'difficulty' },
  { value: 'low', label: 'a low note cuts in' },
  { value: 'run', label: 'notes in between slip in' },
  { value: 'gap', label: 'a gap is heard' },
  { value: 'length', label: 'how long a fault sounds' },
];
const opennessChoices: readonly Choice<number>[] = [
  { value: 1, label: 'as much as a low note' },
  { value: 0.3, label: 'a third as much as a low note' },
  { value: 3, label: 'three times as much as a low note' },
];
const leadDraws = 3000;
const leadNormals = normalPool(2, 32_768);

/** One way of each note, or every way that is charted. */
type Ways = 'first' | 'every';
const waysChoices: readonly Choice<Ways>[] = [
  { value: 'first', label: 'one fingering of each note' },
  { value: 'every', label: 'every fingering' },
];

type Shown = 'all' | 'crosses' | 'steps' | 'once';
const shownChoices: readonly Choice<Shown>[] = [
  { value: 'all', label: 'all changes' },
  { value: 'crosses', label: 'crosses only' },
  { value: 'steps', label: 'neighbours in the scale' },
  { value: 'once', label: 'crosses, once each' },
];

/** What covers the change up: nothing, the grace note of a letter, or the tongue. */
type Cover = 'bare' | 'tongue' | NoteId;
/** How long a player's grace notes last, in ms, by how steady the fingers are. */
const graceMs: Readonly<Record<Whose, number>> = { ...graceNoteMs, measured: usualGraceNoteMs };

/** Notes that a map can hold and still be read. */
const mostNotes = 26;
const widestSquare = 38;
/** A map of so many notes leaves room for the change beside it on a desk. */
const [mostBeside, deskWidth, laneWidth] = [10, 1200, 632];
const noteMs = 550;
const slowest = 20;

/** A cell of the map as its fingers alone say it. */
interface BareCell {
  readonly key: string;
  readonly from: Fingering;
  readonly to: Fingering;
  /** Undefined between two ways of one note, which is no change. */
  readonly kind: Change['kind'] | undefined;
  /** Notes from the first to the second, upwards. */
  readonly up: number;
  readonly mark: string;
  readonly name: string;
  readonly movers: string;
}

interface Cell extends BareCell {
  /** Side of the square that shows the quantity, in px. */
  readonly side: number;
  readonly text: string;
  readonly isFaint: boolean;
}

/** Every change of an instrument: how much trouble it is, and one of them taken apart in time. */
@Component({
  selector: 'zp-changes',
  imports: [
    TipComponent,
    FingeringComponent,
    WideComponent,
    SentenceComponent,
    ForWhomComponent,
    ChooserComponent,
    ChangeLanesComponent,
    GlideComponent,
    SoundMenuComponent,
    RouterLink,
  ],
  templateUrl: './changes.page.html',
})
export class ChangesPage implements OnDestroy {
  protected readonly count = count;
  private readonly transport = inject(Transport);
  private readonly chart = inject(ChartState);
  private readonly timings = inject(PlayerTimings);
  private readonly router = inject(Router);
  private readonly sound = inject(SoundSettings);
  protected readonly state = inject(StudioState);
  protected readonly quantities = quantities;
  protected readonly shownChoices = shownChoices;

  /** The change to begin with, from the address. */
  readonly from = input<string>();
  readonly to = input<string>();

  protected readonly instrument = this.chart.instrument;
  protected readonly quantity = signal<Quantity>('difficulty');
  protected readonly shown = signal<Shown>('all');
  protected readonly lead = signal(0);

  /** Measured of the student in hand, where that was done; a level else. */
  protected readonly whose = linkedSignal((): Whose => (this.timings.measured() === undefined ? 'learner' : 'measured'));
  protected readonly whoseChoices = computed((): readonly Choice<Whose>[] => {
    const measured = this.timings.measured() === undefined ? [] : [{ value: 'measured' as const, label: `${this.studentText()}, as measured` }];
    return [...measured, ...levelChoices];
  });
  protected readonly whoseText = computed(() => labelOf(this.whoseChoices(), this.whose()));
  private readonly base = computed((): TimingParameters => {
    const whose = this.whose();
    return whose === 'measured' ? (this.timings.measured()?.timing ?? levels.learner) : levels[whose];
  });
  protected readonly timing = computed((): TimingParameters => ({ ...this.base(), lead: this.base().lead + this.lead() }));

  protected readonly waysChoices = waysChoices;
  protected readonly ways = signal<Ways>('first');
  protected readonly hasOtherWays = computed(() => this.instrument().fingerings.some(({ rank }) => rank > 1));
  /** What the map has rows and columns for, from the lowest note to the highest, the way taught first before the others. */
  protected readonly mappedWays = computed(() => {
    const instrument = this.instrument();
    const mostRank = this.ways() === 'every' ? Number.POSITIVE_INFINITY : 1;
    return instrument.notes.slice(0, mostNotes).flatMap(({ id, writtenName }) =>
      waysOf(instrument, id)
        .filter(({ rank }) => rank <= mostRank)
        .map((fingering) => ({
          ...{ id: wayIdOf(fingering), fingering, note: id, name: wayName(instrument, fingering) },
          short: fingering.rank === 1 ? writtenName : `${writtenName} ${fingering.rank}`,
        })),
    );
  });
  private readonly mapped = signal<ReadonlyMap<string, MappedChange>>(new Map());
  private worker?: Worker;
  private ticket = 0;

  /** What stands in the cells before anything is computed: it stays while the map fills. */
  private readonly bareRows = computed(() => {
    const [instrument, ways] = [this.instrument(), this.mappedWays()];
    const places = new Map(instrument.notes.map(({ id }, place) => [id, place]));
    const up = (from: NoteId, to: NoteId): number => (places.get(to) ?? 0) - (places.get(from) ?? 0);
    return ways.map((from) => ({ ...from, cells: ways.map((to) => bareCell(instrument, from.fingering, to.fingering, up(from.note, to.note))) }));
  });
  protected readonly rows = computed(() => {
    const mapped = this.mapped();
    const values = [...mapped.values()].map((each) => this.valueOf(each));
    const side = scaleSqrt()
      .domain([0, Math.max(this.least(), ...values)])
      .range([0, widestSquare]);
    return this.bareRows().map((row) => ({ ...row, cells: row.cells.map((cell): Cell => this.cell(cell, mapped.get(cell.key), side)) }));
  });

  /** Ways under the hand, by their ids: those of the address, else of the hardest change, until others are chosen. */
  private readonly chosenKey = linkedSignal({
    source: () => ({ instrument: this.instrument().id, key: keyOf(this.from() ?? '', this.to() ?? '') }),
    computation: ({ key }) => key,
  });
  protected readonly chosen = computed((): { readonly from: Fingering; readonly to: Fingering } | undefined => {
    const [mapped, key] = [this.mapped(), this.chosenKey()];
    const found = this.pairOf(key);
    if (found !== undefined) return found;
    const hardest = [...mapped.values()].reduce<MappedChange | undefined>(
      (best, each) => (best === undefined || each.difficulty.total > best.difficulty.total ? each : best),
      undefined,
    );
    return hardest === undefined ? undefined : this.pairOf(keyOf(hardest.from, hardest.to));
  });

  /** The ways of the two notes, where one has several. */
  protected readonly wayChoices = computed(() => {
    const [instrument, chosen] = [this.instrument(), this.chosen()];
    if (chosen === undefined) return [];
    return (['from', 'to'] as const).flatMap((end) => {
      const all = waysOf(instrument, chosen[end].note);
      if (all.length < 2) return [];
      const choices = all.map((each): Choice<string> => ({
        value: wayIdOf(each),
        label: wayText(instrument, each),
        ...(each.rank === 1 && { beside: 'taught first' }),
      }));
      return [{ end, name: nameOfNote(instrument, chosen[end].note), choices, value: wayIdOf(chosen[end]), ways: all }];
    });
  });

  protected patternOfWay(ways: readonly Fingering[], id: string): Pattern {
    return (ways.find((each) => wayIdOf(each) === id) ?? ways[0]).pattern;
  }

  protected readonly change = computed((): Change | undefined => {
    const chosen = this.chosen();
    return chosen === undefined ? undefined : changeOfFingerings(this.instrument(), chosen.from, chosen.to);
  });
  protected readonly isGlide = computed(() => {
    const change = this.change();
    return change !== undefined && isGlide(change);
  });
  private readonly table = computed(() => new RiskTable(this.instrument(), this.timing()));

  protected readonly about = computed(() => {
    const [instrument, change] = [this.instrument(), this.change()];
    if (change === undefined) return undefined;
    const hint = comfortHint(instrument, change.fromPattern, change.toPattern);
    const difficulty = this.table().difficultyOf(change);
    const trouble = troubleOf(instrument, change);
    const { listen, physical } = hintsFor(instrument, change, trouble);
    return {
      name: changeName(instrument, change),
      kind: kindPhrase(change),
      advice: adviceFor(instrument, change, trouble),
      hints: [listen, physical, change.movers.length === 0 ? '' : mirrorCheck(instrument, change), hint ?? ''].filter((text) => text !== ''),
      terms: difficulty.terms,
      total: difficulty.total.toFixed(1),
    };
  });

  protected readonly covers = computed((): readonly Choice<Cover>[] => {
    const [instrument, change] = [this.instrument(), this.change()];
    if (change === undefined) return [];
    const graces = graceNotesOver(instrument, change).map(({ name, written }): Choice<Cover> => ({ value: written, label: `under the ${name}` }));
    return [
      { value: 'bare', label: instrument.family === 'pipes' ? 'bare' : 'slurred' },
      ...graces,
      ...(isTonguedFamily(instrument.family) ? [{ value: 'tongue', label: 'tongued' }] : []),
    ];
  });
  private readonly wantedCover = signal<Cover>('bare');
  /** What was chosen, where it is possible here. */
  protected readonly coverKind = computed(() => (this.covers().some(({ value }) => value === this.wantedCover()) ? this.wantedCover() : 'bare'));
  protected readonly coverText = computed(() => labelOf(this.covers(), this.coverKind()));
  private readonly hiding = computed((): Hiding | undefined => {
    const kind = this.coverKind();
    if (kind === 'bare') return undefined;
    if (kind === 'tongue') return { kind: 'tongue', lengthMs: tongueSilenceMs };
    const rule = this.instrument().graceNotes.find(({ written }) => written === kind);
    return rule === undefined ? undefined : { kind: 'grace-note', opens: rule.opens, lengthMs: graceMs[this.whose()] };
  });
  protected readonly cover = computed((): ChangePlay['cover'] => {
    const hiding = this.hiding();
    if (hiding === undefined) return undefined;
    return { opens: hiding.kind === 'tongue' ? null : hiding.opens, from: -hiding.lengthMs / 2, to: hiding.lengthMs / 2 };
  });

  /** How often it goes wrong as it is chosen, and what is heard then. */
  protected readonly risk = computed(() => {
    const [change, hiding] = [this.change(), this.hiding()];
    if (change === undefined) return undefined;
    if (hiding === undefined) {
      const risk = this.table().riskOf(change);
      return { worst: inHundred(worstOf(risk)), rows: risksText(risk), covered: '' };
    }
    const { risk, covered, hiddenMs } = this.table().hiddenRiskOf(change, hiding);
    const by = hiding.kind === 'tongue' ? 'the tongue' : 'the grace note';
    const text = `In ${inHundred(covered)} of 100 tries every finger moves while ${by} covers it; this hides ${hiddenMs.toFixed(1)} ms of noise on average.`;
    return { worst: inHundred(worstOf(risk)), rows: risksText(risk), covered: text };
  });

  /** Every pattern that could stand between, each with what it is to the ear; the loudest of a class first. */
  protected readonly between = computed(() => {
    const [instrument, change] = [this.instrument(), this.change()];
    if (change === undefined || change.movers.length < 2 || change.movers.length > 6) return [];
    return inBetweenSounds(instrument, change)
      .slice(1, -1)
      .map(({ pattern, kind, note, hertz, spread, isSteady }) => ({
        key: patternKey(pattern),
        pattern,
        kind: soundText[kind],
        isWrong: kind === 'low' || kind === 'run' || kind === 'over-open',
        sounds: kind === 'silent' ? soundText[kind] : `${nameOfNote(instrument, note)}, ${soundText[kind]}`,
        spread: kind === 'silent' ? '' : `± ${Math.round(spread / 2)} cents${isSteady ? '' : ', unsteady'}`,
        loud: loudText(loudnessShown(instrument, hertz)),
      }))
      .sort((one, other) => Number(other.isWrong) - Number(one.isWrong) || one.kind.localeCompare(other.kind));
  });

  protected readonly openness = opennessChoices;
  /** How much a sound that is too open is minded, against one that is too closed. */
  protected readonly tooOpen = signal(1);
  protected readonly tooOpenText = computed(() => labelOf(opennessChoices, this.tooOpen()));
  /** The lead that is best for the chosen change, in ms; undefined where nothing can be too closed or too open. */
  protected readonly bestLead = computed(() => {
    const change = this.change();
    if (change?.kind !== 'cross') return undefined;
    const weights = { tooClosed: 1, tooOpen: this.tooOpen() };
    const lead = bestLead(this.instrument(), [change], this.base(), weights, leadDraws, leadNormals);
    const risk = new RiskTable(this.instrument(), { ...this.base(), lead }).riskOf(change);
    return { lead, low: inHundred(risk.low.probability), open: inHundred(risk['over-open'].probability) };
  });

  /** When each finger moves: as it was dragged, else all in one instant. */
  protected readonly moments = linkedSignal({ source: this.change, computation: (change): readonly number[] => (change?.movers ?? []).map(() => 0) });
  protected readonly slower = signal(1);
  /** The map and the change stand side by side where both have room. */
  protected readonly isBeside = computed(() => this.mappedWays().length <= mostBeside && document.documentElement.clientWidth >= deskWidth);
  protected readonly width = computed(() => (this.isBeside() ? laneWidth : Math.min(820, Math.max(560, document.documentElement.clientWidth - 96))));

  private readonly release = inject(KeyService).use('changes', {
    play: () => this.hear(),
    clean: () => this.clean(),
    faulty: () => this.faulty(),
    open: () => this.tooSoonOpen(),
    outOfOrder: () => this.outOfOrder(),
    slow: () => this.toggleSlow(),
    ear: () => this.goTo('ear'),
    onKeys: () => this.goTo('keys'),
  });

  constructor() {
    effect(() => {
      const [instrument, ways, timing] = [this.instrument(), this.mappedWays().map(({ fingering }) => fingering), this.timing()];
      untracked(() => {
        this.worker?.terminate();
        this.worker = startChangeMapWorker();
        this.ticket += 1;
        this.mapped.set(new Map());
        this.worker.addEventListener('message', ({ data }: MessageEvent<ChangeMapAnswer>) => this.take(data));
        const request: ChangeMapRequest = { id: this.ticket, instrument, ways, timing };
        this.worker.postMessage(request);
      });
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.worker?.terminate();
    this.transport.stop();
  }

  protected studentText(): string {
    return this.state.student()?.alias ?? 'you';
  }

  protected choose({ from, to }: Cell): void {
    if (from.note === to.note) return;
    this.chosenKey.set(keyOf(wayIdOf(from), wayIdOf(to)));
    document.getElementById('change-in-time')?.scrollIntoView({ block: 'nearest' });
  }

  protected chooseWay(end: 'from' | 'to', way: string): void {
    const chosen = this.chosen();
    if (chosen === undefined) return;
    const [from, to] = [wayIdOf(chosen.from), wayIdOf(chosen.to)];
    this.chosenKey.set(end === 'from' ? keyOf(way, to) : keyOf(from, way));
  }

  protected chooseCover(cover: Cover): void {
    this.wantedCover.set(cover);
  }

  protected goTo(page: 'ear' | 'keys'): void {
    const chosen = this.chosen();
    if (chosen !== undefined) void this.router.navigate(['/changes', page], { queryParams: { from: chosen.from.note, to: chosen.to.note } });
  }

  protected move({ index, ms }: { readonly index: number; readonly ms: number }): void {
    this.moments.update((moments) => moments.map((each, at) => (at === index ? ms : each)));
  }

  protected moved(): void {
    this.hear();
  }

  protected clean(): void {
    this.moments.update((moments) => moments.map(() => 0));
    this.hear();
  }

  /** Landings before lifts by the length that the sound menu says: the fault that is heard most. */
  protected faulty(): void {
    this.spreadOut(-this.sound.faultMs() / 2, this.sound.faultMs() / 2);
  }

  /** Lifts before landings: for fear of the cross all is off for a moment. */
  protected tooSoonOpen(): void {
    this.spreadOut(this.sound.faultMs() / 2, -this.sound.faultMs() / 2);
  }

  /** Lifts, then landings, each in the reverse of the order that is taught: what lies between slips in. */
  protected outOfOrder(): void {
    const change = this.change();
    if (change === undefined || change.movers.length < 2) return;
    const { lifts, lowers } = leadOf(change);
    const order = [...[...lifts].reverse(), ...[...lowers].reverse()];
    const step = this.sound.faultMs() / (order.length - 1);
    this.moments.set(change.movers.map(({ finger }) => Math.round(order.indexOf(finger) * step - this.sound.faultMs() / 2)));
    this.hear();
  }

  protected toggleSlow(): void {
    this.slower.update((slower) => (slower === 1 ? slowest : 1));
  }

  protected hear(): void {
    const [instrument, change, moments, slower, cover] = [this.instrument(), this.change(), this.moments(), this.slower(), this.cover()];
    if (change !== undefined) this.transport.sound(instrument, changeTimeline(instrument, change, moments, { noteMs, slower, cover }));
  }

  private spreadOut(lowers: number, lifts: number): void {
    const movers = this.change()?.movers ?? [];
    this.moments.set(movers.map(({ direction }) => Math.round(direction === 'lower' ? lowers : lifts)));
    this.hear();
  }

  private take({ id, row }: ChangeMapAnswer): void {
    if (id !== this.ticket) return;
    this.mapped.update((mapped) => new Map([...mapped, ...row.map((each) => [keyOf(each.from, each.to), each] as const)]));
  }

  private valueOf({ risk, difficulty }: MappedChange): number {
    switch (this.quantity()) {
      case 'difficulty':
        return difficulty.total;
      case 'low':
        return risk.low.probability;
      case 'run':
        return risk.run.probability;
      case 'gap':
        return risk['over-open'].probability;
      case 'length':
        return risk.low.meanMs + risk.run.meanMs + risk['over-open'].meanMs;
    }
  }

  /** What fills a cell at least, so that a harmless map stays light. */
  private least(): number {
    return { difficulty: 6, low: 0.3, run: 0.5, gap: 0.3, length: 10 }[this.quantity()];
  }

  /** The two ways of a key; undefined where the instrument has one of them not, or both are of one note. */
  private pairOf(key: string): { readonly from: Fingering; readonly to: Fingering } | undefined {
    const [from, to] = key.split('>').map((id) => this.instrument().fingerings.find((each) => wayIdOf(each) === id));
    return from === undefined || to === undefined || from.note === to.note ? undefined : { from, to };
  }

  private cell(bare: BareCell, mapped: MappedChange | undefined, side: (value: number) => number): Cell {
    const { kind, up, name } = bare;
    if (kind === undefined) return { ...bare, side: 0, text: '', isFaint: true };
    const isShown = { all: true, crosses: kind === 'cross', steps: Math.abs(up) === 1, once: kind === 'cross' && up > 0 }[this.shown()];
    const value = mapped === undefined ? undefined : this.valueOf(mapped);
    return {
      ...bare,
      side: value === undefined || !isShown ? 0 : side(value),
      text: `${name}${value === undefined ? '' : `, ${this.amountText(value)}`}`,
      isFaint: !isShown,
    };
  }

  private amountText(value: number): string {
    if (this.quantity() === 'difficulty') return `difficulty ${value.toFixed(1)}`;
    return this.quantity() === 'length' ? `${value.toFixed(1)} ms` : `${inHundred(value)} of 100 tries`;
  }

  protected isChosen({ from, to }: Cell): boolean {
    const chosen = this.chosen();
    if (chosen === undefined) return false;
    const isShown = (one: Fingering, other: Fingering): boolean => one.note === other.note && (this.ways() === 'first' || one.rank === other.rank);
    return isShown(chosen.from, from) && isShown(chosen.to, to);
  }
}

const marks: Readonly<Record<Change['kind'], string>> = { none: '=', 'lift-only': '↑', 'lower-only': '↓', cross: '×' };

const keyOf = (from: string, to: string): string => `${from}>${to}`;

function bareCell(instrument: Instrument, from: Fingering, to: Fingering, up: number): BareCell {
  const place = { key: keyOf(wayIdOf(from), wayIdOf(to)), from, to, up };
  if (from.note === to.note) return { ...place, kind: undefined, mark: '', name: '', movers: '' };
  const change = changeOfFingerings(instrument, from, to);
  const name = `${changeName(instrument, change)}, ${kindPhrase(change)}`;
  return { ...place, kind: change.kind, mark: marks[change.kind], name, movers: moversText(instrument, change) };
}
