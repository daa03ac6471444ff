import { Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import type { Line, Mode } from '@zelpit/core/line';
import { movementLines, ornamentLines, type MovementExercise, type OrnamentExercise } from '@zelpit/core/line-sets';
import { usualOrnaments } from '@zelpit/core/movement';
import { NoticeService } from '../../kernel/notices/notice.service';
import { plannedForSheet, type PlannedSheetLine } from './planned-lines';
import { asksFor, lineWishes, modes, movementExerciseChoices, ornamentExerciseChoices, wishedLines, type LineWish } from '../../music/lines/line-wishes';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { PlayerTimings } from '../../studio/trials/player-timings.service';

/** What another line can be: one change, a set of lines, a movement's or an ornament's exercise. */
type Kind = 'change' | LineWish | `movement ${MovementExercise}` | `ornament ${OrnamentExercise}`;

interface KindGroup {
  readonly label: string;
  readonly kinds: readonly { readonly value: Kind; readonly label: string }[];
}

const movementKind = /^movement (.+)$/;
const ornamentKind = /^ornament (.+)$/;
/** Exercises of one movement between two notes; the others name one note or none. */
const fromTwo: ReadonlySet<string> = new Set<Kind>(['movement repeated', 'movement both-ways']);
const intoOne: ReadonlySet<string> = new Set<Kind>(['movement from-every-note', 'movement opened-and-back']);

/** Adds lines of any kind to a sheet. */
@Component({
  selector: 'zp-another-line',
  template: `
    <form class="line-add" (submit)="$event.preventDefault(); add()">
      <span class="line-title">Another line</span>
      <div>
        <label for="add-kind">Which</label>
        <select id="add-kind" class="form-select is-wide" (change)="kind.set($any(valueOf($event)))">
          <option value="change" [selected]="kind() === 'change'">one change, there and back</option>
          @for (group of groups(); track group.label) {
            <optgroup [label]="group.label">
              @for (each of group.kinds; track each.value) {
                <option [value]="each.value" [selected]="kind() === each.value">{{ each.label }}</option>
              }
            </optgroup>
          }
        </select>
      </div>
      @if (needs().movement) {
        <div>
          <label for="add-movement">Movement</label>
          <select id="add-movement" class="form-select" (change)="movement.set(valueOf($event))">
            @for (each of movements(); track each.id) {
              <option [value]="each.id" [selected]="movement() === each.id">{{ each.names[0] }}</option>
            }
          </select>
        </div>
      }
      @if (needs().home) {
        <div>
          <label for="add-home">From</label>
          <select id="add-home" class="form-select" (change)="home.set(valueOf($event))">
            <option value="">note</option>
            @for (note of instrument().notes; track note.id) {
              <option [value]="note.id">{{ note.schoolName }}</option>
            }
          </select>
        </div>
      }
      @if (needs().other) {
        <div>
          <label for="add-other">to</label>
          <select id="add-other" class="form-select" (change)="other.set(valueOf($event))">
            <option value="">note</option>
            @for (note of instrument().notes; track note.id) {
              <option [value]="note.id">{{ note.schoolName }}</option>
            }
          </select>
        </div>
      }
      @if (needs().mode) {
        <div>
          <label for="add-mode">Mode</label>
          <select id="add-mode" class="form-select" (change)="mode.set($any(valueOf($event)))">
            @for (each of modes; track each.value) {
              <option [value]="each.value" [selected]="mode() === each.value">{{ each.label }}</option>
            }
          </select>
        </div>
      }
      <button type="submit" class="btn btn-line btn-low">{{ made().length > 1 ? 'Add ' + made().length + ' lines' : 'Add the line' }}</button>
    </form>
  `,
})
export class AnotherLineComponent {
  private readonly book = inject(MovementBook);
  private readonly timings = inject(PlayerTimings);
  private readonly notices = inject(NoticeService);

  readonly instrument = input.required<Instrument>();
  /** Notes that the student knows. */
  readonly known = input<readonly NoteId[]>([]);
  readonly added = output<readonly PlannedSheetLine[]>();

  protected readonly modes = modes;
  protected readonly kind = linkedSignal<string, Kind>({ source: () => this.instrument().family, computation: () => 'change' });
  protected readonly home = signal<NoteId>('');
  protected readonly other = signal<NoteId>('');
  protected readonly mode = signal<Mode>('major');
  protected readonly movements = computed(() => this.book.movementsOf(this.instrument()));
  protected readonly movement = linkedSignal(() => this.movements().at(0)?.id ?? '');

  protected readonly groups = computed((): readonly KindGroup[] => {
    const { family } = this.instrument();
    const groups: KindGroup[] = [
      { label: 'Changes and scales', kinds: lineWishes.map(({ value, label }) => ({ value, label: label.replace(/,? from$|:$/, '') })) },
    ];
    if (this.movements().length > 0)
      groups.push({ label: 'A movement', kinds: movementExerciseChoices.map(({ value, label }) => ({ value: `movement ${value}`, label })) });
    if (family === 'whistle' || family === 'irish-pipes')
      groups.push({ label: 'An ornament', kinds: ornamentExerciseChoices.map(({ value, label }) => ({ value: `ornament ${value}`, label })) });
    return groups;
  });

  /** What is asked for beside the kind. */
  protected readonly needs = computed(() => {
    const kind = this.kind();
    const asks = asksFor(kind, this.instrument());
    return {
      movement: movementKind.test(kind),
      home: kind === 'change' || asks.note || fromTwo.has(kind),
      other: kind === 'change' || asks.other || fromTwo.has(kind) || intoOne.has(kind),
      mode: asks.mode,
    };
  });
  /** True where every note that is asked for is chosen, and two that are, are two. */
  private readonly isWhole = computed(() => {
    const [{ home, other }, from, to] = [this.needs(), this.home(), this.other()];
    const isSame = from === to && !fromTwo.has(this.kind());
    return (!home || from !== '') && (!other || to !== '') && !(home && other && isSame);
  });
  private readonly wished = computed(() => (this.isWhole() ? this.linesOf(this.kind()) : { lines: [], leftOut: [] }));
  protected readonly made = computed(() => this.wished().lines);

  constructor() {
    this.book.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  protected valueOf(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  protected add(): void {
    if (!this.isWhole()) {
      this.notices.done(
        this.needs().other && this.needs().home ? 'Choose two different notes. The line goes from the first to the second and back.' : 'Choose the note.',
      );
      return;
    }
    const lines = this.made();
    if (lines.length === 0) this.notices.done(`No line is of that kind. ${this.wished().leftOut.slice(0, 3).join('; ')}`.trim());
    else this.added.emit(plannedForSheet(this.instrument(), lines));
  }

  private linesOf(kind: Kind): { readonly lines: readonly Line[]; readonly leftOut: readonly string[] } {
    const [instrument, home, other] = [this.instrument(), this.home(), this.other()];
    if (kind === 'change') return { lines: [{ home, other }], leftOut: [] };
    const [lowest] = instrument.notes;
    const ofMovement = movementKind.exec(kind);
    const movement = this.movements().find(({ id }) => id === this.movement());
    if (ofMovement !== null && movement !== undefined) {
      const wish = { kind: ofMovement[1] as MovementExercise, movement, settings: this.book.settings() };
      return movementLines(instrument, { ...wish, before: home || lowest.id, after: other || lowest.id });
    }
    const ofOrnament = ornamentKind.exec(kind);
    if (ofOrnament !== null)
      return ornamentLines(instrument, ofOrnament[1] as OrnamentExercise, { ...usualOrnaments, ...this.book.ornaments()[instrument.id] });
    const table = this.timings.tableFor(instrument);
    return wishedLines(instrument, {
      ...{ kind: kind as LineWish, start: home || lowest.id, other: other || lowest.id, mode: this.mode(), focus: 'fingers' },
      ...{ known: this.known(), hardness: (change) => table.difficultyOf(change).total },
    });
  }
}
