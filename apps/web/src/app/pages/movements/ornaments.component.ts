import { Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { isOverblown } from '@zelpit/core/acoustics';
import { noteOf, type FingerId, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { lineAbc, type Line } from '@zelpit/core/line';
import { ornamentLines, ownScale, wholeScale, type OrnamentExercise } from '@zelpit/core/line-sets';
import {
  compileOrnament,
  neighbourOrnaments,
  ornamentKinds,
  ornamentChoicesSchema,
  ornamentText,
  tapChoices,
  usualOrnaments,
  type CompiledOrnament,
  type NeighbourOrnament,
  type NeighbourWay,
  type OrnamentChoices,
  type OrnamentKind,
  type OrnamentSettings,
} from '@zelpit/core/movement';
import { neighbourTimeline, ornamentTimeline } from '@zelpit/core/sound';
import { count } from '@zelpit/core/words';
import { WideComponent } from '../../kernel/wide/wide.component';
import { Attempt } from '../../kernel/api/attempt';
import { wayText } from '../../music/wording/change-words';
import { neighbourNames, ornamentNames } from '../../music/wording/ornament-words';
import { LinesOntoSheetComponent } from '../../documents/sheet/lines-onto-sheet.component';
import { plannedForSheet } from '../../documents/sheet/planned-lines';
import { ornamentExerciseChoices } from '../../music/lines/line-wishes';
import { StaffLineComponent } from '../../music/score/staff-line.component';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { Transport } from '../../music/sound/transport.service';
import { SessionService } from '../../kernel/session/session.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { capital, dayInWords } from '../../kernel/words/words';
import { MovementBook } from '../../studio/movement-book/movement-book.service';

const does = { cut: 'cuts', tap: 'taps', slide: 'slides off', stop: 'stops', tongue: 'the tongue', note: '' } as const;
const marks = { cut: '↑', tap: '↓', slide: '↗', stop: 'all', tongue: 't', note: '' } as const;
const usualChoices: OrnamentChoices = ornamentChoicesSchema.parse({});
const byRule = 'with the usual finger';
const schools: readonly Choice<OrnamentSettings['cuts']>[] = [
  { value: 'nearest', label: 'the nearest finger cuts' },
  { value: 'fixed', label: 'the same two fingers cut' },
];
const cranOrders: readonly Choice<string>[] = ['L3 R1 R2', 'L3 R2 R1', 'R1 R2 L3', 'R2 R1 L3', 'L2 L3 R1'].map((fingers) => ({
  value: fingers,
  label: fingers,
}));
const slides: readonly Choice<number>[] = [60, 90, 120, 160, 200, 250].map((ms) => ({ value: ms, label: `${ms} ms` }));
const speeds: readonly Choice<number>[] = [
  { value: 1, label: 'at speed' },
  { value: 4, label: 'four times slower' },
];

/** Cuts, taps, rolls and crans of whistle and Irish pipes, with their lines; trills, mordents and grace notes of recorder and ocarina. */
@Component({
  selector: 'zp-ornaments',
  imports: [WideComponent, ChooserComponent, StaffLineComponent, LinesOntoSheetComponent],
  template: `
    <p>
      @if (hasOrnaments()) {
        <zp-chooser purpose="School" [value]="cuts()" [choices]="schools" (valueChange)="keep({ cuts: $event })" /><span class="quiet">, crans </span
        ><zp-chooser purpose="Crans" [value]="hasCransAbove()" [choices]="crans()" (valueChange)="keep({ cranOn: $event ? scale().slice(1, 2) : [] })" /><span
          class="quiet"
        >
          with </span
        ><zp-chooser
          purpose="Cran fingers"
          [value]="chosen().cranFingers.join(' ')"
          [word]="chosen().cranFingers.join(' ')"
          [choices]="cranOrders"
          (valueChange)="chooseCranFingers($event)"
        /><span class="quiet">, slides over </span
        ><zp-chooser
          purpose="Slide"
          [value]="chosen().slideMs"
          [word]="chosen().slideMs + ' ms'"
          [choices]="slides"
          (valueChange)="keep({ slideMs: $event })"
        /><span class="quiet">, heard </span>
      } @else {
        <span class="quiet">Heard </span>
      }
      <zp-chooser purpose="Speed" [(value)]="slower" [choices]="speeds" />.
    </p>
    <zp-wide label="Every ornament on every note">
      <table class="movement-table is-narrow">
        <thead>
          <tr>
            <td class="map-corner">on ↓</td>
            @for (name of columns(); track name) {
              <th scope="col">{{ name }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.id) {
            <tr>
              <th scope="row">{{ row.name }}</th>
              @for (cell of row.cells; track cell.kind) {
                <td>
                  @if (cell.hear) {
                    <button type="button" class="movement-cell" [attr.aria-label]="cell.text" [title]="cell.text" (click)="cell.hear()">
                      <b>{{ cell.short }}</b>
                    </button>
                  } @else {
                    <span class="movement-none" [title]="cell.text">–</span>
                  }
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    </zp-wide>
    @if (hasOrnaments()) {
      <p class="second">
        L1 is the left index finger, L3 the left ring finger, R1 the right index finger. Fingers in playing order: ↑ lifts for a cut, ↓ taps its hole, ↗ slides
        off, t tongue. – not possible; point at it to see why. {{ endText() }}
      </p>
      @if (isStaff()) {
        <p>
          <span class="quiet">On </span><zp-chooser purpose="Note" [(value)]="note" [choices]="noteChoices()" /> <span class="quiet"> we cut </span
          ><zp-chooser purpose="Cut finger" [value]="fingerFor('cutOn')" [choices]="fingerChoices()" (valueChange)="chooseFinger('cutOn', $event)" />
          <span class="quiet"> and tap </span
          ><zp-chooser purpose="Tap finger" [value]="fingerFor('tapOn')" [choices]="tapFingers()" (valueChange)="chooseFinger('tapOn', $event)" />.
        </p>
        <details class="movement-definition">
          <summary>How each is played: {{ confirmedText() }}</summary>
          <ul class="plain-list">
            @for (each of definitions(); track each.kind) {
              <li class="mb-2">
                <b>{{ each.name }}</b>: {{ each.text }}
                @if (each.confirmed) {
                  <small>{{ each.confirmed }}</small>
                } @else {
                  <button
                    type="button"
                    class="word"
                    [attr.aria-label]="'Yes, so a ' + each.name + ' is'"
                    [disabled]="saving.isBusy()"
                    (click)="confirm(each.kind)"
                  >
                    Yes, this is it
                  </button>
                }
              </li>
            }
          </ul>
        </details>
        @if (saving.fault()) {
          <p class="fault-text" role="alert">{{ saving.fault() }}</p>
        }
      }
      <section aria-label="Lines of an ornament">
        <h2 class="heading">Lines: <zp-chooser purpose="Exercise" [(value)]="exercise" [choices]="exercises" /></h2>
        @if (lines().leftOut.length > 0) {
          <p class="second">Left out: {{ lines().leftOut.join('; ') }}.</p>
        }
        @for (line of lines().lines; track $index) {
          @if (line.exercise; as exercise) {
            <h3 class="line-title">{{ exercise.title }}</h3>
            <zp-staff-line [abc]="abcOf(line)" [text]="'The music of ' + exercise.title" />
          }
        } @empty {
          <p>There is no line here: on this instrument the usual fingers cannot play it.</p>
        }
        <zp-lines-onto-sheet [instrument]="instrument()" [title]="capital(exerciseText())" [lines]="planned()" [note]="schoolText()" />
      </section>
    } @else {
      @if (selected(); as way) {
        <p role="status">
          {{ way.text }}.
          @if (way.confirmed) {
            {{ way.confirmed }}
          } @else if (isStaff()) {
            <button type="button" class="btn btn-line btn-low" [disabled]="saving.isBusy()" (click)="confirmPair(way.sign)">Yes, that is how we play it</button>
          }
        </p>
        @if (saving.fault()) {
          <p class="fault-text" role="alert">{{ saving.fault() }}</p>
        }
      }
      <p class="second">
        With the next note of the scale, using the two fingerings that move fewest fingers and stay within 30 cents. ✓ confirmed by a teacher. – no pair is in
        tune, or there is no such note; point at it to see why. {{ endText() }}
      </p>
    }
  `,
})
export class OrnamentsComponent {
  private readonly transport = inject(Transport);
  private readonly book = inject(MovementBook);
  private readonly session = inject(SessionService);
  private readonly notices = inject(NoticeService);
  protected readonly saving = new Attempt();
  protected readonly isStaff = computed(() => !this.session.isFamily());
  protected readonly capital = capital;
  readonly instrument = input.required<Instrument>();

  protected readonly schools = schools;
  protected readonly speeds = speeds;
  protected readonly exercises = ornamentExerciseChoices;
  /** As the studio chose for this model. */
  protected readonly chosen = computed((): OrnamentChoices => this.book.ornaments()[this.instrument().id] ?? usualChoices);
  protected readonly cuts = computed(() => this.chosen().cuts);
  protected readonly slower = signal(1);
  protected readonly exercise = signal<OrnamentExercise>('cuts');
  protected readonly schoolText = computed(() => labelOf(schools, this.cuts()));
  protected readonly speedText = computed(() => labelOf(speeds, this.slower()));
  protected readonly exerciseText = computed(() => labelOf(ornamentExerciseChoices, this.exercise()));
  protected readonly hasCransAbove = computed(() => this.chosen().cranOn.length > 0);
  protected readonly crans = computed((): readonly Choice<boolean>[] => {
    const [lowest, next] = this.scale().map((id) => this.nameOf(id));
    return [
      { value: false, label: `on ${lowest} only` },
      { value: true, label: `on ${lowest} and ${next}` },
    ];
  });
  protected readonly cranOrders = cranOrders;
  protected readonly slides = slides;
  protected readonly cranFingersText = computed(() => this.chosen().cranFingers.join(' '));
  protected readonly slideText = computed(() => `${this.chosen().slideMs} ms`);
  protected readonly cranText = computed(() => labelOf(this.crans(), this.hasCransAbove()));
  protected readonly hasOrnaments = computed(() => this.instrument().family === 'whistle' || this.instrument().family === 'irish-pipes');
  private readonly settings = computed((): OrnamentSettings => ({ ...usualOrnaments, ...this.chosen() }));
  /** A stop is the pipes' own, a triplet the tongue's. */
  private readonly kinds = computed(() => {
    const isPipes = this.instrument().family === 'irish-pipes';
    return ornamentKinds.filter((kind) => (kind === 'stop' ? isPipes : kind !== 'triplet' || !isPipes));
  });
  protected readonly scale = computed(() => ownScale(this.instrument()));
  /** Every register, and C natural where cuts and taps are spoken of. */
  private readonly rowNotes = computed(() => wholeScale(this.instrument()));
  protected readonly endText = computed(() => {
    const { notes } = this.instrument();
    return `The table ends on ${notes[notes.length - 1].schoolName}, the highest note of this chart.`;
  });

  protected readonly columns = computed(() => (this.hasOrnaments() ? this.kinds().map((kind) => ornamentNames[kind]) : Object.values(neighbourNames)));
  protected readonly rows = computed(() =>
    this.rowNotes().map((id) => ({
      id,
      name: this.nameOf(id),
      cells: this.hasOrnaments() ? this.kinds().map((kind) => this.cell(id, kind)) : this.neighbourCells(id),
    })),
  );

  protected readonly lines = computed(() => ornamentLines(this.instrument(), this.exercise(), this.settings()));
  protected readonly planned = computed(() => plannedForSheet(this.instrument(), this.lines().lines));
  private readonly chosenPair = linkedSignal<string, { readonly sign: string; readonly text: string } | undefined>({
    source: () => this.instrument().id,
    computation: () => undefined,
  });
  /** The pair of fingerings that was heard last, and who confirmed it. */
  protected readonly selected = computed(() => {
    const pair = this.chosenPair();
    if (pair === undefined) return undefined;
    const kept = this.book.keptFor(pair.sign);
    return { ...pair, confirmed: kept === undefined ? '' : `Confirmed by ${kept.by}, ${dayInWords(kept.on)}.` };
  });
  /** The note for which fingers are chosen. */
  protected readonly note = linkedSignal((): NoteId => this.instrument().notes[0].id);
  protected readonly noteChoices = computed(() => this.instrument().notes.map(({ id, schoolName }): Choice<NoteId> => ({ value: id, label: schoolName })));
  protected readonly noteText = computed(() => this.nameOf(this.note()));
  protected readonly fingerChoices = computed((): readonly Choice<FingerId | null>[] => [
    { value: null, label: byRule },
    ...this.instrument()
      .fingers.filter(({ thumb }) => !thumb)
      .map(({ id, label }) => ({ value: id, label: `with ${label}` })),
  ]);
  protected readonly tapFingers = computed((): readonly Choice<FingerId | null>[] => [
    { value: null, label: byRule },
    ...tapChoices(this.instrument(), this.note()).map(({ finger, label, isStop }) => ({ value: finger, label: `with ${label}${isStop ? ': a stop' : ''}` })),
  ]);
  protected readonly definitions = computed(() =>
    this.kinds().map((kind) => {
      const kept = this.book.keptFor(`ornament-${kind}`);
      return {
        kind,
        name: ornamentNames[kind],
        text: ornamentText[kind],
        confirmed: kept === undefined ? '' : `Confirmed by ${kept.by}, ${dayInWords(kept.on)}.`,
      };
    }),
  );
  protected readonly confirmedText = computed(() => {
    const all = this.definitions();
    return `${all.filter(({ confirmed }) => confirmed !== '').length} of ${all.length} confirmed`;
  });

  /** Null where the rule decides. */
  protected fingerFor(which: 'cutOn' | 'tapOn'): FingerId | null {
    return this.chosen()[which][this.note()] ?? null;
  }

  protected chooseCranFingers(fingers: string): void {
    this.keep({ cranFingers: fingers.split(' ') as FingerId[] });
  }

  /** Brings a note under the choosers below the table. */
  private chooseTapOf(note: NoteId): void {
    this.note.set(note);
    setTimeout(() => document.querySelector<HTMLElement>('[aria-label^="Tap finger: "]')?.focus());
  }

  protected chooseFinger(which: 'cutOn' | 'tapOn', finger: FingerId | null): void {
    const others = Object.fromEntries(Object.entries(this.chosen()[which]).filter(([note]) => note !== this.note()));
    this.keep({ [which]: finger === null ? others : { ...others, [this.note()]: finger } });
  }

  protected keep(change: Partial<OrnamentChoices>): void {
    const ornaments = { ...this.book.ornaments(), [this.instrument().id]: { ...this.chosen(), ...change } };
    this.saving.run(this.book.saveChoices({ ornaments }), () => this.notices.done('Saved.'));
  }

  protected confirm(kind: OrnamentKind): void {
    this.saving.run(this.book.confirm(`ornament-${kind}`), () => this.notices.done(`${capital(ornamentNames[kind])}: confirmed.`));
  }

  protected abcOf(line: Line): string {
    return lineAbc(this.instrument(), line);
  }

  private nameOf(id: NoteId): string {
    return noteOf(this.instrument(), id).schoolName;
  }

  private hear(note: NoteId, made: CompiledOrnament): void {
    this.transport.sound(this.instrument(), ornamentTimeline(this.instrument(), note, made, this.settings().eighthMs, this.slower()));
  }

  private hearNeighbours(way: NeighbourWay): void {
    this.transport.sound(this.instrument(), neighbourTimeline(way, isOverblown(this.instrument()), this.slower()));
  }

  private signOf(kind: NeighbourOrnament, note: NoteId): string {
    return `${kind}-${this.instrument().id}-${note}`;
  }

  protected confirmPair(sign: string): void {
    this.saving.run(this.book.confirm(sign), () => this.notices.done('Confirmed.'));
  }

  private neighbourCells(id: NoteId): readonly Cell[] {
    const notes = this.rowNotes();
    const ways = neighbourOrnaments(this.instrument(), id, notes);
    return (Object.keys(neighbourNames) as NeighbourOrnament[]).map((kind): Cell => {
      const way = ways.find((each) => each.kind === kind);
      const name = `${neighbourNames[kind]} on ${this.nameOf(id)}`;
      if (way === undefined) {
        const isMissing = notes[notes.indexOf(id) + (kind === 'lower-mordent' ? -1 : 1)] === undefined;
        const why = isMissing ? `this chart has no note ${kind === 'lower-mordent' ? 'below' : 'above'} it` : 'no pair of fingerings stays in tune';
        return { kind, short: '', text: `${name}: ${why}` };
      }
      const { movers, main, upper } = way.pair;
      const text = `${name}: ${wayText(this.instrument(), main)}; ${wayText(this.instrument(), upper)}`;
      const sign = this.signOf(kind, id);
      const mark = this.book.keptFor(sign) === undefined ? '' : ' ✓';
      const hear = (): void => {
        this.chosenPair.set({ sign, text });
        this.hearNeighbours(way);
      };
      return { kind, short: `${count(movers, 'finger')}${mark}`, text, hear };
    });
  }

  private cell(note: NoteId, kind: OrnamentKind): Cell {
    const made = compileOrnament(this.instrument(), kind, note, this.settings());
    if (made.kind === 'unplayable') {
      // What is the teacher's choice is offered where it is missing.
      const isOffered = kind === 'tap' && this.isStaff() && this.instrument().family === 'irish-pipes' && tapChoices(this.instrument(), note).length > 0;
      return { kind, short: isOffered ? 'choose' : '', text: made.reason, ...(isOffered && { hear: () => this.chooseTapOf(note) }) };
    }
    const moves = made.steps.filter((step) => step.kind !== 'note');
    const label = (finger: string): string => this.instrument().fingers.find(({ id }) => id === finger)?.label ?? finger;
    const words = moves.map((step) => `${step.fingers.map(label).join(' ')} ${does[step.kind]}`.trim());
    return {
      kind,
      short: moves.map((step) => `${step.fingers.join('')}${marks[step.kind]}`).join(' '),
      text: `${ornamentNames[kind]} on ${this.nameOf(note)}: ${words.join(', then ')}`,
      hear: () => this.hear(note, made),
    };
  }
}

interface Cell {
  readonly kind: string;
  readonly short: string;
  readonly text: string;
  /** Absent where it cannot be played; then `said` is the reason. */
  readonly hear?: () => void;
}
