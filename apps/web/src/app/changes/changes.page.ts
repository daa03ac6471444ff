import { Component, computed, effect, inject, linkedSignal, signal, untracked, type OnDestroy } from '@angular/core';
import { scaleSqrt } from 'd3';
import {
  adviceFor,
  bestLead,
  changeBetween,
  changeTimeline,
  linesOf,
  lineTitle,
  plannedLine,
  comfortHint,
  kindPhrase,
  levels,
  normalPool,
  noteOf,
  renderTimeline,
  troubleOf,
  type Change,
  type ChangeLine,
  type Level,
  type LineSetKind,
  type NoteId,
} from '@zelpit/core';
import { Router } from '@angular/router';
import { Attempt } from '../api/attempt';
import { SheetsService } from '../sheets/sheets.service';
import { StudioState } from '../state/studio-state.service';
import { ChooserComponent, saidOf, type Choice } from '../shell/chooser.component';
import { ForWhomComponent } from '../shell/for-whom.component';
import { KeyService } from '../shell/key.service';
import { SentenceComponent } from '../shell/sentence.component';
import { capital } from '../shell/words';
import { Transport } from '../sound/transport.service';
import { ChartState } from '../charts/chart-state.service';
import { ChangeLanesComponent } from './change-lanes.component';
import { startChangeMapWorker } from './change-map-worker';
import type { ChangeMapAnswer, ChangeMapRequest, MappedChange } from './change-map-messages';

type Quantity = 'difficulty' | 'low' | 'run' | 'gap' | 'length';

const quantities: readonly Choice<Quantity>[] = [
  { value: 'difficulty', said: 'how hard it is' },
  { value: 'low', said: 'a low note cuts in' },
  { value: 'run', said: 'notes between slip in' },
  { value: 'gap', said: 'too open for a moment' },
  { value: 'length', said: 'how long a fault sounds' },
];
const levelChoices: readonly Choice<Level>[] = [
  { value: 'beginner', said: 'a beginner' },
  { value: 'learner', said: 'a learner' },
  { value: 'fluent', said: 'a fluent player' },
];
const opennessChoices: readonly Choice<number>[] = [
  { value: 1, said: 'as much as too closed' },
  { value: 0.3, said: 'a third as much as too closed' },
];
const leadDraws = 3000;
const leadNormals = normalPool(2, 32_768);

type Shown = 'all' | 'crosses' | 'steps';
const shownChoices: readonly Choice<Shown>[] = [
  { value: 'all', said: 'all changes' },
  { value: 'crosses', said: 'crosses only' },
  { value: 'steps', said: 'neighbours in the scale' },
];

const lineSets: readonly Choice<LineSetKind>[] = [
  { value: 'crosses-with', said: 'crosses with' },
  { value: 'crosses-once', said: 'all crosses, once each' },
  { value: 'crosses-by-note', said: 'all crosses, note by note' },
  { value: 'lift-only', said: 'fingers only lift' },
  { value: 'lower-only', said: 'fingers only land' },
  { value: 'neighbours', said: 'neighbours in the scale' },
];
/** What a sheet can hold. */
const mostLines = 60;

/** Notes that a map can hold and still be read. */
const mostNotes = 26;
const cellSize = 46;
const noteMs = 550;
const slowest = 20;

interface Cell {
  readonly key: string;
  readonly from: NoteId;
  readonly to: NoteId;
  /** Side of the square that shows the quantity, in px. */
  readonly side: number;
  readonly mark: string;
  readonly said: string;
  readonly isFaint: boolean;
  readonly mapped: MappedChange | undefined;
}

/** Every change of an instrument: how much trouble it is, and one of them taken apart in time. */
@Component({
  selector: 'zp-changes',
  imports: [SentenceComponent, ForWhomComponent, ChooserComponent, ChangeLanesComponent],
  templateUrl: './changes.page.html',
})
export class ChangesPage implements OnDestroy {
  private readonly transport = inject(Transport);
  private readonly chart = inject(ChartState);
  protected readonly quantities = quantities;
  protected readonly levelChoices = levelChoices;
  protected readonly shownChoices = shownChoices;

  protected readonly instrument = this.chart.instrument;
  protected readonly quantity = signal<Quantity>('difficulty');
  protected readonly level = signal<Level>('learner');
  protected readonly shown = signal<Shown>('all');
  protected readonly quantitySaid = computed(() => saidOf(quantities, this.quantity()));
  protected readonly levelSaid = computed(() => saidOf(levelChoices, this.level()));
  protected readonly shownSaid = computed(() => saidOf(shownChoices, this.shown()));
  protected readonly lead = signal(0);
  protected readonly timing = computed(() => ({ ...levels[this.level()], lead: this.lead() }));

  protected readonly notes = computed(() =>
    this.instrument()
      .notes.slice(0, mostNotes)
      .map(({ id, writtenName, schoolName }) => ({ id, short: writtenName, name: schoolName })),
  );
  private readonly mapped = signal<ReadonlyMap<string, MappedChange>>(new Map());
  private worker?: Worker;
  private ticket = 0;

  protected readonly rows = computed(() => {
    const notes = this.notes();
    const mapped = this.mapped();
    const values = [...mapped.values()].map((each) => this.valueOf(each));
    const side = scaleSqrt()
      .domain([0, Math.max(this.least(), ...values)])
      .range([0, cellSize - 8]);
    return notes.map((from, row) => ({
      ...from,
      cells: notes.map((to, column): Cell => this.cell(from, to, mapped.get(keyOf(from.id, to.id)), Math.abs(row - column), side)),
    }));
  });

  /** Pair under the hand: the hardest, until one is chosen. */
  private readonly chosenKey = linkedSignal({ source: () => this.instrument().id, computation: () => '' });
  protected readonly chosen = computed((): MappedChange | undefined => {
    const mapped = this.mapped();
    return (
      mapped.get(this.chosenKey()) ??
      [...mapped.values()].reduce<MappedChange | undefined>(
        (best, each) => (best === undefined || each.difficulty.total > best.difficulty.total ? each : best),
        undefined,
      )
    );
  });
  protected readonly change = computed((): Change | undefined => {
    const chosen = this.chosen();
    return chosen === undefined ? undefined : changeBetween(this.instrument(), chosen.from, chosen.to);
  });
  protected readonly about = computed(() => {
    const [instrument, change, chosen] = [this.instrument(), this.change(), this.chosen()];
    if (change === undefined || chosen === undefined) return undefined;
    const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
    const hint = comfortHint(instrument, change.fromPattern, change.toPattern);
    return {
      name: `${name(change.from)} to ${name(change.to)}`,
      kind: kindPhrase(change),
      advice: adviceFor(instrument, change, troubleOf(instrument, change)),
      hints: [...(wristHint(change) ?? []), ...(hint === undefined ? [] : [hint])],
      risks: risksSaid(chosen),
      terms: chosen.difficulty.terms.map(({ said, value }) => `${said} ${value.toFixed(1)}`).join(' · '),
      total: chosen.difficulty.total.toFixed(1),
    };
  });

  protected readonly openness = opennessChoices;
  /** How much a sound that is too open is minded, against one that is too closed. */
  protected readonly tooOpen = signal(1);
  protected readonly tooOpenSaid = computed(() => saidOf(opennessChoices, this.tooOpen()));
  /** The lead that is best for the chosen change, in ms; undefined where nothing can be too closed or too open. */
  protected readonly bestLead = computed(() => {
    const change = this.change();
    if (change?.kind !== 'cross') return undefined;
    const weights = { tooClosed: 1, tooOpen: this.tooOpen() };
    return bestLead(this.instrument(), [change], levels[this.level()], weights, leadDraws, leadNormals);
  });

  /** When each finger moves: as it was dragged, else all in one instant. */
  protected readonly moments = linkedSignal({ source: this.change, computation: (change): readonly number[] => (change?.movers ?? []).map(() => 0) });
  protected readonly slower = signal(1);
  protected readonly width = Math.min(1184, Math.max(560, document.documentElement.clientWidth - 96));

  protected readonly lineSets = lineSets;
  protected readonly making = new Attempt();
  private readonly sheets = inject(SheetsService);
  private readonly router = inject(Router);
  protected readonly state = inject(StudioState);
  protected readonly lineSet = signal<LineSetKind>('crosses-with');
  protected readonly lineSetSaid = computed(() => saidOf(lineSets, this.lineSet()));
  protected readonly noteChoices = computed(() => this.notes().map(({ id, name }): Choice<NoteId> => ({ value: id, said: name })));
  protected readonly lineNote = linkedSignal((): NoteId => this.chosen()?.from ?? this.notes()[0].id);
  protected readonly lineNoteSaid = computed(() => saidOf(this.noteChoices(), this.lineNote()));

  /** The lines of the chosen set from easy to hard, each with what is hardest in it. */
  protected readonly lines = computed(() => {
    const [instrument, mapped] = [this.instrument(), this.mapped()];
    const { lines, leftOut } = linesOf(instrument, { kind: this.lineSet(), note: this.lineNote() });
    const known = lines.flatMap((line) => {
      const found = mapped.get(keyOf(line.home, line.other));
      return found === undefined
        ? []
        : [{ line, title: lineTitle(instrument, line), hard: found.difficulty.total, why: found.difficulty.terms[0]?.said ?? '' }];
    });
    const ordered = [...known].sort((one, other) => one.hard - other.hard || one.title.localeCompare(other.title));
    return { ordered: ordered.slice(0, mostLines), isCut: ordered.length > mostLines, leftOut: leftOut.map((line) => lineTitle(instrument, line)) };
  });
  protected readonly linesSaid = computed(() => {
    const { ordered, isCut } = this.lines();
    if (ordered.length === 0) return 'No change is of that kind.';
    const count = ordered.length === 1 ? 'One line' : `${ordered.length} lines`;
    return `${count}, from easy to hard${isCut ? `; a sheet holds ${mostLines}, so the hardest are left out` : ''}.`;
  });

  private readonly release = inject(KeyService).use([
    { keys: [' '], cap: 'Space', said: 'Hear the change as the fingers stand', run: () => this.hear() },
    { keys: ['c'], cap: 'C', said: 'All fingers in one instant', run: () => this.clean() },
    { keys: ['f'], cap: 'F', said: 'Landings too soon', run: () => this.faulty() },
    { keys: ['s'], cap: 'S', said: 'Slow motion on or off', run: () => this.toggleSlow() },
  ]);

  constructor() {
    effect(() => {
      const [instrument, notes, timing] = [this.instrument(), this.notes().map(({ id }) => id), this.timing()];
      untracked(() => {
        this.worker?.terminate();
        this.worker = startChangeMapWorker();
        this.ticket += 1;
        this.mapped.set(new Map());
        this.worker.addEventListener('message', ({ data }: MessageEvent<ChangeMapAnswer>) => this.take(data));
        const request: ChangeMapRequest = { id: this.ticket, instrument, notes, timing };
        this.worker.postMessage(request);
      });
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.worker?.terminate();
    this.transport.stop();
  }

  /** Puts the lines of the set on a new sheet of the student in hand. */
  protected makeSheet(): void {
    const student = this.state.student();
    const instrument = this.instrument();
    const title = this.lineSet() === 'crosses-with' ? `Crosses with ${this.lineNoteSaid()}` : capital(this.lineSetSaid());
    const lines = this.lines().ordered.map(({ line }: { readonly line: ChangeLine }) => ({ ...plannedLine(instrument, line), point: '' }));
    const sheet = {
      studentId: student.id,
      tuneId: null,
      instrument: instrument.id,
      title: `${title} for ${student.alias}`.slice(0, 120),
      note: 'Slow and clean before faster.',
      lines,
    };
    this.making.run(this.sheets.add(sheet), (made) => void this.router.navigate(['/sheets', made.id]));
  }

  protected choose({ from, to }: Cell): void {
    if (from !== to) this.chosenKey.set(keyOf(from, to));
  }

  protected move({ index, ms }: { readonly index: number; readonly ms: number }): void {
    this.moments.update((moments) => moments.map((each, at) => (at === index ? ms : each)));
  }

  protected clean(): void {
    this.moments.update((moments) => moments.map(() => 0));
    this.hear();
  }

  /** Landings 20 ms before lifts, the fault that is heard most. */
  protected faulty(): void {
    const movers = this.change()?.movers ?? [];
    this.moments.set(movers.map(({ direction }, index) => (direction === 'lower' ? -10 : 10) + index));
    this.hear();
  }

  protected toggleSlow(): void {
    this.slower.update((slower) => (slower === 1 ? slowest : 1));
  }

  protected hear(): void {
    const [instrument, change, moments, slower] = [this.instrument(), this.change(), this.moments(), this.slower()];
    if (change === undefined) return;
    const timeline = changeTimeline(instrument, change, moments, { noteMs, slower });
    this.transport.hold((sampleRate) => renderTimeline(instrument, timeline, { sampleRate }));
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

  private cell(
    from: { id: NoteId; name: string },
    to: { id: NoteId; name: string },
    mapped: MappedChange | undefined,
    apart: number,
    side: (value: number) => number,
  ): Cell {
    const key = keyOf(from.id, to.id);
    if (from.id === to.id) return { key, from: from.id, to: to.id, side: 0, mark: '', said: '', isFaint: true, mapped: undefined };
    const change = changeBetween(this.instrument(), from.id, to.id);
    const isFaint = (this.shown() === 'crosses' && change.kind !== 'cross') || (this.shown() === 'steps' && apart > 1);
    const value = mapped === undefined ? undefined : this.valueOf(mapped);
    return {
      key,
      from: from.id,
      to: to.id,
      side: value === undefined || isFaint ? 0 : side(value),
      mark: marks[change.kind],
      said: `${from.name} to ${to.name}, ${kindPhrase(change)}${value === undefined ? '' : `, ${this.amountSaid(value)}`}`,
      isFaint,
      mapped,
    };
  }

  private amountSaid(value: number): string {
    if (this.quantity() === 'difficulty') return `${value.toFixed(1)} hard`;
    return this.quantity() === 'length' ? `${value.toFixed(1)} ms` : `${Math.round(value * 100)} %`;
  }
}

const marks: Readonly<Record<Change['kind'], string>> = { none: '=', 'lift-only': '↑', 'lower-only': '↓', cross: '×' };

const keyOf = (from: NoteId, to: NoteId): string => `${from}>${to}`;

function risksSaid({ risk }: MappedChange): readonly { readonly said: string; readonly percent: string; readonly ms: string }[] {
  const rows = [
    { said: 'a low note cuts in', of: risk.low },
    { said: 'notes between slip in', of: risk.run },
    { said: 'too open for a moment', of: risk['over-open'] },
    { said: 'a sound between', of: risk.between },
  ];
  return rows.map(({ said, of }) => ({ said, percent: `${Math.round(of.probability * 100)} %`, ms: `${of.meanMs.toFixed(1)} ms` }));
}

/** For three or more fingers of the lower hand a small turn of the wrist helps. */
function wristHint({ movers }: Change): readonly string[] | undefined {
  const lower = movers.filter(({ finger }) => /^R\d$/.test(finger)).length;
  return lower >= 3 ? ['A small turn of the wrist, about ten degrees, helps the index finger of the lower hand.'] : undefined;
}
