import { Component, computed, input, output } from '@angular/core';
import { noteOf, soundingPitch, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { cutInMs, isFaulty, type Decision, type HeardChange } from '@zelpit/core/listening';

interface Size {
  readonly width: number;
  /** Where the ribbon begins, behind the names of the notes. */
  readonly left: number;
  /** So much of a take is drawn at once, in ms. */
  readonly shown: number;
}

/** One drawing is so wide and has rows so far apart, in units of its own; a phone shows less of the take at once. */
const sizes = { desk: { width: 1184, left: 104, shown: 12_000 }, phone: { width: 370, left: 62, shown: 4000 } } as const satisfies Readonly<
  Record<string, Size>
>;
const [right, top, row] = [8, 44, 34];
/** How long a change takes on the ribbon, in units; what cut in is drawn at least so wide, since milliseconds would not be seen. */
const [bend, widestCut] = [10, 26];

interface Piece {
  readonly path: string;
  /** 0 for the ribbon itself. */
  readonly number: number;
  readonly kind: 'clean' | 'faulty' | 'unsure';
}

/** A take as one ribbon of pitch: what cut in leaves it in vermilion, what is not certain is a broken outline; the chosen change stands in the pillar. */
@Component({
  selector: 'zp-take-ribbon',
  template: `
    <svg class="take-ribbon" [attr.viewBox]="'0 0 ' + width + ' ' + height()" role="img" [attr.aria-label]="label()">
      @for (each of rows(); track each.note) {
        <text class="take-note" [class.is-between]="each.isBetween" [attr.x]="left - 14" [attr.y]="each.y + 7" text-anchor="end">{{ each.name }}</text>
        <line class="take-row" [class.is-between]="each.isBetween" [attr.x1]="left" [attr.y1]="each.y + 8" [attr.x2]="width - right" [attr.y2]="each.y + 8" />
      }
      @if (pillar(); as place) {
        <rect class="take-pillar" [attr.x]="place - 19" y="22" width="38" [attr.height]="height() - 30" rx="9" />
      }
      <!-- What lies before and after the part that is shown is cut off. -->
      <svg [attr.x]="left - 6" y="0" [attr.width]="width - left + 6" [attr.height]="height()" [attr.viewBox]="window()">
        @for (piece of pieces(); track $index) {
          <path
            class="take-line"
            [class.is-faulty]="piece.kind === 'faulty'"
            [class.is-unsure]="piece.kind === 'unsure'"
            [class.is-chosen]="piece.number === chosen()"
            [attr.d]="piece.path"
          />
        }
      </svg>
      @for (mark of marks(); track mark.number) {
        <text class="take-number" [class.is-faulty]="mark.isFaulty" [attr.x]="mark.x" y="16" text-anchor="middle">{{ mark.number }}</text>
        <rect class="take-touch" [attr.x]="mark.x - 24" y="0" width="48" [attr.height]="height()" (click)="chosenChange.emit(mark.number)" />
      }
    </svg>
  `,
  styles: `
    .take-ribbon {
      display: block;
      width: 100%;
    }
    .take-note,
    .take-number {
      fill: currentColor;
      font-size: 18px;
      font-weight: 800;
    }
    .take-note.is-between,
    .take-number {
      font-weight: 500;
    }
    .take-number.is-faulty {
      fill: var(--vermilion);
      font-weight: 800;
    }
    .take-row {
      stroke: var(--wood);
      stroke-width: 1.5;
    }
    .take-row.is-between {
      stroke-dasharray: 2 5;
    }
    .take-pillar {
      fill: var(--brass);
      stroke: var(--brass-edge);
      stroke-width: 2;
    }
    .take-line {
      fill: none;
      stroke: currentColor;
      stroke-width: 9;
      stroke-linecap: round;
      stroke-linejoin: round;
    }
    .take-line.is-faulty {
      stroke: var(--vermilion);
    }
    /* On brass the light vermilion of the dark theme would not stand out. */
    .take-line.is-faulty.is-chosen {
      stroke: color-mix(in srgb, var(--vermilion), black 35%);
    }
    .take-line.is-unsure {
      stroke: var(--vermilion);
      stroke-width: 2.5;
      stroke-dasharray: 3 4;
    }
    .take-touch {
      fill: transparent;
      cursor: pointer;
    }
  `,
})
export class TakeRibbonComponent {
  readonly instrument = input.required<Instrument>();
  readonly changes = input.required<readonly HeardChange[]>();
  readonly chosen = input<number>();
  readonly decided = input<ReadonlyMap<number, Decision>>(new Map());
  readonly chosenChange = output<number>();
  private readonly size: Size = sizes[matchMedia('(max-width: 700px)').matches ? 'phone' : 'desk'];
  protected readonly width = this.size.width;
  protected readonly left = this.size.left;
  protected readonly right = right;

  /** The window of the take that is drawn, in ms: all of it, or what lies around the chosen change. */
  private readonly range = computed(() => {
    const changes = this.changes();
    const [first, last] = [changes[0].at - 700, changes[changes.length - 1].at + 700];
    const { shown } = this.size;
    if (last - first <= shown) return { from: first, to: last };
    const middle = changes.find(({ number }) => number === this.chosen())?.at ?? first;
    const from = Math.min(Math.max(first, middle - shown / 2), last - shown);
    return { from, to: from + shown };
  });

  protected readonly rows = computed(() => {
    const instrument = this.instrument();
    const asked = new Set(this.changes().flatMap(({ from, to }) => [from, to]));
    const between = this.changes().flatMap(({ between: heard }) => heard.flatMap(({ note }) => (note === null || asked.has(note) ? [] : [note])));
    const notes = [...new Set([...asked, ...between])].sort((one, other) => soundingPitch(instrument, other) - soundingPitch(instrument, one));
    return notes.map((note, index) => ({ note, name: noteOf(instrument, note).schoolName, y: top + index * row, isBetween: !asked.has(note) }));
  });

  protected readonly height = computed(() => top + this.rows().length * row);
  private readonly visible = computed(() => this.changes().filter(({ at }) => at >= this.range().from - 700 && at <= this.range().to + 700));
  protected readonly pillar = computed(() => {
    const change = this.changes().find(({ number }) => number === this.chosen());
    return change === undefined ? undefined : this.x(change.at) - (isFaulty(change, this.decided()) ? widestCut / 2 : 0);
  });
  protected readonly marks = computed(() =>
    this.visible()
      .map((change) => ({ number: change.number, x: this.x(change.at), isFaulty: isFaulty(change, this.decided()) }))
      .filter(({ x }) => x > this.left && x < this.width - right),
  );

  protected readonly pieces = computed((): readonly Piece[] => {
    const pieces: Piece[] = [];
    let line = '';
    this.visible().forEach((change, index, all) => {
      const start = index === 0 ? Math.max(this.left, this.x(this.range().from)) : this.x(all[index - 1].at);
      const isBroken = index > 0 && all[index - 1].to !== change.from;
      if (index === 0 || isBroken) line += `M${start} ${this.y(change.from)}`;
      const clean = !isFaulty(change, this.decided());
      const ends = this.x(change.at);
      const begins = clean ? ends : Math.min(this.x(change.at - cutInMs(change)), ends - widestCut);
      line += `L${clean ? ends - bend : begins} ${this.y(change.from)}`;
      if (clean) line += `C${ends} ${this.y(change.from)} ${ends} ${this.y(change.to)} ${ends + bend} ${this.y(change.to)}`;
      else line += `M${ends + 2} ${this.y(change.to)}`;
      if (!clean || change.verdict === 'unsure') pieces.push(this.cutIn(change, begins, ends));
      const next = all.at(index + 1);
      line += `L${next === undefined ? Math.min(this.width - right, this.x(this.range().to)) : this.x(next.at - cutInMs(next)) - widestCut} ${this.y(change.to)}`;
    });
    return [{ path: line, number: 0, kind: 'clean' }, ...pieces];
  });

  protected readonly window = computed(() => `${this.left - 6} 0 ${this.width - this.left + 6} ${this.height()}`);
  protected readonly label = computed(() => `The take as a ribbon of pitch, ${this.changes().length} changes; they are listed beside it.`);

  /** From the first note through what cut in to the second. */
  private cutIn(change: HeardChange, begins: number, ends: number): Piece {
    const { number, between, from, to, verdict } = change;
    const isUndecided = verdict === 'unsure' && !this.decided().has(number);
    const heard = between.filter(({ note }) => note !== null);
    const low = this.y(heard.length === 0 ? from : (heard[0].note as NoteId));
    if (isUndecided) return { kind: 'unsure', number, path: `M${ends - 11} ${low}a11 11 0 1 1 22 0a11 11 0 1 1 -22 0` };
    if (heard.length === 0) return { kind: 'faulty', number, path: `M${begins} ${this.y(to)}L${ends} ${this.y(to)}` };
    const [down, up] = [begins + 7, ends - 5];
    return {
      kind: 'faulty',
      number,
      path: `M${begins} ${this.y(from)}L${down} ${this.y(from)}V${low - 5}q0 5 5 5H${up - 5}q5 0 5 -5V${this.y(to)}H${ends + 4}`,
    };
  }

  private x(ms: number): number {
    const { from, to } = this.range();
    return Math.round((this.left + ((ms - from) / (to - from)) * (this.width - this.left - right)) * 10) / 10;
  }

  private y(note: NoteId): number {
    return this.rows().find((each) => each.note === note)?.y ?? top;
  }
}
