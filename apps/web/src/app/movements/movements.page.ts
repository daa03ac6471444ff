import { Component, computed, inject, input, linkedSignal, signal, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import {
  compileMovement,
  elementsOf,
  findMovements,
  innerChanges,
  leastTime,
  lineAbc,
  movementById,
  movementLines,
  movementRisk,
  movementsOf,
  movementTable,
  movementTimeline,
  noteOf,
  plannedLine,
  usualMovementSettings,
  usualPace,
  type ChangeLine,
  type CompiledMovement,
  type InnerChange,
  type MovementDefinition,
  type MovementExercise,
  type MovementFault,
  type MovementPace,
  type MovementSettings,
  type NoteId,
} from '@zelpit/core';
import { Attempt } from '../api/attempt';
import { inHundred } from '../changes/change-words';
import { PlayerTimings } from '../changes/player-timings.service';
import { ExportLinesComponent } from '../lines/export-lines.component';
import { PainCautionComponent } from '../lines/pain-caution.component';
import { StaffLineComponent } from '../lines/staff-line.component';
import { SheetsService } from '../sheets/sheets.service';
import { ChooserComponent, saidOf, type Choice } from '../shell/chooser.component';
import { ForWhomComponent } from '../shell/for-whom.component';
import { KeyService } from '../shell/key.service';
import { SentenceComponent } from '../shell/sentence.component';
import { capital } from '../shell/words';
import { SoundMenuComponent } from '../sound/sound-menu.component';
import { Transport } from '../sound/transport.service';
import { StudioState } from '../state/studio-state.service';
import { MovementKeysComponent } from './movement-keys.component';
import { MovementLanesComponent } from './movement-lanes.component';
import { OrnamentsComponent } from './ornaments.component';

const paces: readonly Choice<number>[] = [
  { value: 90, said: 'a beginner: 90 ms' },
  { value: 60, said: 'a learner: 60 ms' },
  { value: 40, said: 'a fluent player: 40 ms' },
  { value: 30, said: 'a soloist: 30 ms' },
];
const exercises: readonly Choice<MovementExercise>[] = [
  { value: 'scale', said: 'on each note, up and down' },
  { value: 'from-every-note', said: 'into this note from every other' },
  { value: 'repeated', said: 'between these two notes' },
];
const noteMs = 600;
/** 40 % of the speed, and slow motion. */
const speeds: readonly Choice<number>[] = [
  { value: 1, said: 'at speed' },
  { value: 2.5, said: 'at 40 % of the speed' },
  { value: 20, said: '20 times slower' },
];
const usualMovement = 'doubling';

/** A movement from every start into every arrival; one of them taken apart; and the lines that practise it. */
@Component({
  selector: 'zp-movements',
  imports: [
    SentenceComponent,
    ForWhomComponent,
    ChooserComponent,
    MovementKeysComponent,
    MovementLanesComponent,
    OrnamentsComponent,
    StaffLineComponent,
    SoundMenuComponent,
    ExportLinesComponent,
    PainCautionComponent,
    RouterLink,
  ],
  templateUrl: './movements.page.html',
})
export class MovementsPage implements OnDestroy {
  private readonly transport = inject(Transport);
  private readonly timings = inject(PlayerTimings);
  private readonly sheets = inject(SheetsService);
  private readonly router = inject(Router);
  protected readonly state = inject(StudioState);
  protected readonly making = new Attempt();

  /** Which movement, from the address. */
  readonly movement = input<string>();

  protected readonly paces = paces;
  protected readonly speeds = speeds;
  protected readonly exercises = exercises;
  protected readonly instrument = this.state.instrument;
  protected readonly all = computed(() => movementsOf(this.instrument()));
  protected readonly ornamentsSaid = computed(() =>
    this.instrument().family === 'whistle' || this.instrument().family === 'irish-pipes'
      ? 'Cuts, taps, rolls and crans: which finger, on which note.'
      : 'Trills: the easiest pair of fingerings that stays in tune.',
  );
  protected readonly words = signal('');
  protected readonly found = computed(() => findMovements(this.instrument(), this.words()));
  private readonly chosenId = linkedSignal((): string =>
    this.all().some(({ id }) => id === this.movement()) ? (this.movement() ?? usualMovement) : usualMovement,
  );
  protected readonly chosen = computed((): MovementDefinition => movementById(this.chosenId()));
  protected readonly movementChoices = computed(() => this.all().map((each): Choice<string> => ({ value: each.id, said: each.names[0] })));
  protected readonly otherNames = computed(() => this.chosen().names.slice(1).join(', '));
  protected readonly prerequisites = computed(() =>
    this.chosen()
      .after.map((id) => movementById(id).names[0])
      .join(', '),
  );
  protected readonly simpler = computed(() => this.chosen().simpler.map((id) => ({ id, said: movementById(id).names[0] })));

  protected readonly graceMs = signal(usualPace.graceMs);
  protected readonly paceSaid = computed(() => saidOf(paces, this.graceMs()));
  protected readonly pace = computed((): MovementPace => ({ ...usualPace, graceMs: this.graceMs() }));
  protected readonly settings = signal<MovementSettings>(usualMovementSettings);

  protected readonly notes = computed(() => this.instrument().notes.map(({ id, schoolName, writtenName }) => ({ id, name: schoolName, short: writtenName })));
  private readonly risks = computed(() => this.timings.tableFor(this.instrument()));

  /** Every start by every arrival. */
  protected readonly rows = computed(() =>
    this.all().length === 0
      ? []
      : movementTable(this.instrument(), this.chosen(), this.settings()).map(({ before, cells }) => ({
          id: before,
          name: this.nameOf(before),
          cells: cells.map((cell) => this.cell(cell)),
        })),
  );
  private readonly hasArrival = computed(() => {
    const { arrivals } = this.chosen();
    return this.notes()
      .map(({ id }) => id)
      .filter((id) => arrivals === undefined || arrivals.includes(id) || (this.settings().classical && id === this.notes()[0].id));
  });
  protected readonly before = linkedSignal((): NoteId => this.notes()[Math.min(5, this.notes().length - 1)].id);
  private readonly wantedAfter = signal<NoteId>('c');
  protected readonly after = computed((): NoteId =>
    this.hasArrival().includes(this.wantedAfter()) ? this.wantedAfter() : (this.hasArrival()[0] ?? this.notes()[0].id),
  );

  protected readonly compiled = computed((): CompiledMovement =>
    compileMovement(this.instrument(), this.chosen(), this.before(), this.after(), this.settings()),
  );
  protected readonly inner = computed(() => innerChanges(this.risks(), this.compiled()).map((inner) => ({ inner, ...this.innerSaid(inner) })));
  protected readonly about = computed(() => {
    const compiled = this.compiled();
    const title = `${capital(this.chosen().names[0])}, ${this.nameOf(this.before())} to ${this.nameOf(this.after())}`;
    if (compiled.kind === 'unplayable') return { title, written: '', todo: compiled.reason, otherwise: '', abc: '', elements: [] };
    const elements = elementsOf(compiled);
    const [worst] = [...this.inner()].sort((one, other) => other.probability - one.probability);
    return {
      title,
      written: compiled.written,
      todo: `${compiled.written}: ${elements === 1 ? 'one element' : `${elements} elements`}, ${Math.round(leastTime(compiled, this.pace()))} ms at least.`,
      otherwise:
        [...compiled.said, ...(worst === undefined || worst.probability < 0.05 ? [] : [worst.said])].join(' ') || 'No change inside it is likely to go wrong.',
      abc: `X:1\nM:none\nL:1/4\nK:${this.instrument().ownKeys[0] ?? 'C'}\n${noteOf(this.instrument(), this.before()).abc}2 ${compiled.written}2 |]\n`,
      elements: compiled.steps.map(({ written, kind }, index) => ({
        index,
        said: `${index + 1}, ${this.nameOf(written)}${kind === 'tap' ? ' by a tap' : ''}`,
      })),
    };
  });

  /** The pads are there when they are asked for: keys that are fingers do nothing else then. */
  protected readonly isOnKeys = signal(false);
  protected readonly slower = signal(1);
  protected readonly slowerSaid = computed(() => saidOf(speeds, this.slower()));
  protected readonly width = Math.min(640, Math.max(420, document.documentElement.clientWidth - 60));

  protected readonly exercise = signal<MovementExercise>('scale');
  protected readonly exerciseSaid = computed(() => saidOf(exercises, this.exercise()));
  protected readonly lines = computed(() =>
    this.all().length === 0
      ? { lines: [], leftOut: [] }
      : movementLines(this.instrument(), {
          kind: this.exercise(),
          movement: this.chosen(),
          before: this.before(),
          after: this.after(),
          settings: this.settings(),
        }),
  );
  protected readonly planned = computed(() =>
    this.lines().lines.map((line: ChangeLine) => ({ ...plannedLine(this.instrument(), line), point: '', exercise: line.exercise ?? null })),
  );
  protected readonly leftOutSaid = computed(() => [...new Set(this.lines().leftOut)].join('; '));

  private readonly release = inject(KeyService).use([
    { keys: [' '], cap: 'Space', said: 'Hear the movement', run: () => this.hear() },
    { keys: ['s'], cap: 'S', said: 'At speed, at 40 %, in slow motion', run: () => this.nextSpeed() },
  ]);

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  protected choose(id: string): void {
    this.chosenId.set(id);
    this.words.set('');
  }

  protected search(event: Event): void {
    this.words.set((event.target as HTMLInputElement).value);
  }

  /** Enter takes the best match. */
  protected takeFirst(): void {
    const [first] = this.found();
    if (first !== undefined) this.choose(first.id);
  }

  protected open(before: NoteId, after: NoteId): void {
    this.before.set(before);
    this.wantedAfter.set(after);
  }

  protected set(change: Partial<MovementSettings>): void {
    this.settings.update((settings) => ({ ...settings, ...change }));
  }

  protected hear(fault?: MovementFault): void {
    const timeline = movementTimeline(this.instrument(), this.compiled(), { pace: this.pace(), noteMs, slower: this.slower(), fault });
    if (timeline.steps.length > 0) this.transport.sound(this.instrument(), timeline);
  }

  protected hearNoise(inner: InnerChange): void {
    this.hear({ kind: 'noise', inner });
  }

  protected hearWithout(element: number): void {
    this.hear({ kind: 'missing', element });
  }

  protected hearUneven(element: number): void {
    this.hear({ kind: 'uneven', element });
  }

  protected hearExtra(element: number): void {
    this.hear({ kind: 'extra', element });
  }

  protected nextSpeed(): void {
    const at = speeds.findIndex(({ value }) => value === this.slower());
    this.slower.set(speeds[(at + 1) % speeds.length].value);
  }

  protected makeSheet(): void {
    const student = this.state.student();
    const sheet = {
      ...{ studentId: student.id, tuneId: null, instrument: this.instrument().id, note: 'Slow, a little faster, full speed; back to slow at the first slip.' },
      title: `${capital(this.chosen().names[0])}, ${this.exerciseSaid()}, for ${student.alias}`.slice(0, 120),
      lines: this.planned(),
    };
    this.making.run(this.sheets.add(sheet), (made) => void this.router.navigate(['/sheets', made.id]));
  }

  protected abcOf(line: ChangeLine): string {
    return lineAbc(this.instrument(), line);
  }

  protected nameOf(id: NoteId): string {
    return noteOf(this.instrument(), id).schoolName;
  }

  private cell(cell: CompiledMovement): {
    readonly after: NoteId;
    readonly written: string;
    readonly said: string;
    readonly isPossible: boolean;
    readonly isOther: boolean;
    readonly under: string;
    readonly isRisky: boolean;
  } {
    const [from, to] = [cell.before === null ? '' : this.nameOf(cell.before), this.nameOf(cell.after)];
    if (cell.kind === 'unplayable')
      return { after: cell.after, written: '', said: `${from} to ${to}: ${cell.reason}`, isPossible: false, isOther: false, under: '', isRisky: false };
    const risk = movementRisk(innerChanges(this.risks(), cell));
    const elements = elementsOf(cell);
    return {
      after: cell.after,
      written: cell.written,
      said: [`${from} to ${to}: ${cell.written}`, `${elements} elements`, `${inHundred(risk)} in 100 go wrong inside`, ...cell.said].join('. '),
      isPossible: true,
      isOther: cell.said.length > 0,
      under: `${elements} · ${Math.round(leastTime(cell, this.pace()))} ms`,
      isRisky: risk >= 0.2,
    };
  }

  private innerSaid({ to, change, risk }: InnerChange): { readonly name: string; readonly said: string; readonly probability: number } {
    const compiled = this.compiled();
    const steps = compiled.kind === 'compiled' ? compiled.steps : [];
    const place = (index: number): string => {
      if (index < 0) return this.nameOf(this.before());
      const step = steps.at(index);
      if (step === undefined || index >= steps.length) return this.nameOf(this.after());
      return step.kind === 'grace' || step.kind === 'opener' ? `the ${this.nameOf(step.written)} grace note` : this.nameOf(step.written);
    };
    if (to === 0 && steps[0]?.kind === 'opener') {
      const worst = Math.max(risk.low.probability, risk.run.probability);
      const said = `Under ${place(0)} the other fingers change from ${this.nameOf(this.before())} to ${this.nameOf(this.after())}: ${inHundred(worst)} in 100 show.`;
      return { name: `${this.nameOf(this.before())} to ${this.nameOf(this.after())}`, said, probability: worst };
    }
    const kind = risk.low.probability >= risk.run.probability ? 'low' : 'run';
    const probability = risk[kind].probability;
    const fingers = change.movers.map(({ finger }) => this.instrument().fingers.find(({ id }) => id === finger)?.label ?? finger).join(', ');
    const heard = kind === 'low' ? 'a low note cuts in' : 'a note between slips in';
    return {
      name: `${place(to - 1)} to ${place(to)}`,
      said: `From ${place(to - 1)} to ${place(to)} ${fingers} go together, or ${heard}: ${inHundred(probability)} in 100.`,
      probability,
    };
  }
}
