import { Component, computed, input } from '@angular/core';
import { noteOf, soundingPitch, type Instrument, type NoteId } from '@zelpit/core/fingering';
import type { JudgedNote } from '@zelpit/core/listening';
import type { TakeReview } from '../../music/listening/take-review';

interface Size {
  readonly width: number;
  /** Where the ribbon begins, behind the names of the notes. */
  readonly left: number;
  /** So much of a take is drawn at once, in ms. */
  readonly shown: number;
}

/** One drawing is so wide, in units of its own; a phone shows less of the take at once. */
const sizes = { desk: { width: 1184, left: 104, shown: 9000 }, phone: { width: 370, left: 62, shown: 3200 } } as const satisfies Readonly<Record<string, Size>>;
const [right, top, row] = [8, 36, 21];
/** A note that was not heard, and what cut in, are drawn so wide, in units: they have no length, or one that would not be seen. */
const [missingWidth, cutWidth] = [22, 12];
const lastMs = 600;

interface Bar {
  readonly number: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly kind: 'clean' | 'faulty' | 'missing' | 'unsure' | 'grace';
}

/** A take of a tune: each note as a ribbon as long as it sounded, at its height; what is not as asked in vermilion, what was not heard as a broken outline. */
@Component({
  selector: 'zp-piece-ribbon',
  template: `
    @if (review().all().length > 0) {
      <svg class="piece-ribbon" [attr.viewBox]="'0 0 ' + size.width + ' ' + height()" role="img" [attr.aria-label]="label()">
        @for (each of rows(); track each.note) {
          <text class="take-note" [attr.x]="size.left - 14" [attr.y]="each.y + 6" text-anchor="end">{{ each.name }}</text>
          <line class="take-row" [attr.x1]="size.left" [attr.y1]="each.y" [attr.x2]="size.width - right" [attr.y2]="each.y" />
        }
        @if (pillar(); as place) {
          <rect class="take-pillar" [attr.x]="place.x" y="22" [attr.width]="place.width" [attr.height]="height() - 26" rx="8" />
        }
        @for (mark of barMarks(); track $index) {
          <text class="take-number" [attr.x]="mark.x" y="15">{{ mark.bar }}</text>
          <line class="take-bar" [attr.x1]="mark.x - 4" y1="4" [attr.x2]="mark.x - 4" [attr.y2]="height()" />
        }
        @for (piece of bars(); track $index) {
          <rect
            class="piece"
            [class.is-faulty]="piece.kind === 'faulty'"
            [class.is-missing]="piece.kind === 'missing' || piece.kind === 'unsure'"
            [class.is-grace]="piece.kind === 'grace'"
            [attr.x]="piece.x"
            [attr.y]="piece.y - (piece.kind === 'grace' ? 4 : 6)"
            [attr.width]="piece.width"
            [attr.height]="piece.kind === 'grace' ? 8 : 12"
            rx="4"
            (click)="review().chosenNumber.set(piece.number)"
          />
        }
      </svg>
    }
  `,
  styles: `
    .piece-ribbon {
      display: block;
      width: 100%;
      margin-block: 8px;
    }
    .take-note,
    .take-number {
      fill: currentColor;
      font-size: 16px;
      font-weight: 700;
    }
    .take-number {
      font-weight: 500;
    }
    .take-row,
    .take-bar {
      stroke: var(--wood);
      stroke-width: 1.5;
    }
    .take-bar {
      stroke-dasharray: 2 5;
    }
    .take-pillar {
      fill: var(--brass);
      stroke: var(--brass-edge);
      stroke-width: 2;
    }
    .piece {
      fill: currentColor;
      cursor: pointer;
    }
    .piece.is-faulty {
      fill: var(--vermilion);
    }
    .piece.is-missing {
      fill: none;
      stroke: var(--vermilion);
      stroke-width: 2.5;
      stroke-dasharray: 3 4;
    }
  `,
})
export class PieceRibbonComponent {
  readonly instrument = input.required<Instrument>();
  readonly review = input.required<TakeReview<JudgedNote>>();
  private readonly notes = computed(() => this.review().all());
  protected readonly size: Size = sizes[matchMedia('(max-width: 700px)').matches ? 'phone' : 'desk'];
  protected readonly right = right;

  /** The window of the take that is drawn, in ms: all of it, or what lies around the chosen note. */
  private readonly range = computed(() => {
    const notes = this.notes();
    const [first, last] = [notes[0].at - 200, this.endOf(notes.length - 1) + 200];
    const { shown } = this.size;
    if (last - first <= shown) return { from: first, to: last };
    const middle = notes.find(({ number }) => number === this.review().chosen()?.number)?.at ?? first;
    const from = Math.min(Math.max(first, middle - shown / 2), last - shown);
    return { from, to: from + shown };
  });
  private readonly visible = computed(() => {
    const { from, to } = this.range();
    return this.notes().flatMap((note, index) => (this.endOf(index) >= from && note.at <= to ? [{ note, end: this.endOf(index) }] : []));
  });

  protected readonly rows = computed(() => {
    const instrument = this.instrument();
    const heard = this.visible().flatMap(({ note }) => [
      note.note,
      ...(note.other === undefined ? [] : [note.other]),
      ...note.graces.map((grace) => grace.note),
      ...note.between.flatMap((each) => (each.note === null ? [] : [each.note])),
    ]);
    const notes = [...new Set(heard)].sort((one, other) => soundingPitch(instrument, other) - soundingPitch(instrument, one));
    return notes.map((note, index) => ({ note, name: noteOf(instrument, note).schoolName, y: top + index * row }));
  });
  protected readonly height = computed(() => top + this.rows().length * row);
  protected readonly bars = computed(() => this.visible().flatMap(({ note, end }) => this.drawn(note, end)));
  protected readonly barMarks = computed(() =>
    this.visible().flatMap(({ note }, index, all) => {
      const before = index === 0 ? undefined : all[index - 1].note;
      const x = this.x(note.at);
      return note.bar === undefined || note.bar === 0 || (before?.bar === note.bar && before.pass === note.pass) || x < this.size.left
        ? []
        : [{ bar: note.bar, x }];
    }),
  );
  protected readonly pillar = computed(() => {
    const found = this.visible().find(({ note }) => note.number === this.review().chosen()?.number);
    if (found === undefined) return undefined;
    const [from, to] = [Math.max(this.size.left, this.x(found.note.at) - 8), Math.min(this.size.width - right, this.x(found.end) + 2)];
    return { x: from, width: Math.max(missingWidth, to - from) };
  });
  protected readonly label = computed(() => `The take as ribbons, ${this.notes().length} notes; what is not as asked is listed beside it.`);

  /** From its first grace note to the end of the theme note. */
  private drawn(note: JudgedNote, end: number): readonly Bar[] {
    const { number, at, graces, between } = note;
    const isFaulty = this.review().isFaulty(note);
    const pieces: Bar[] = [];
    let begins = at;
    for (const grace of graces) {
      const x = this.x(begins);
      // What the ear cannot tell is not drawn as missing.
      if (grace.ms === null && !grace.isTellable) continue;
      if (grace.ms === null) pieces.push({ number, x, y: this.y(grace.note), width: cutWidth, kind: 'missing' });
      else pieces.push({ number, x, y: this.y(grace.note), width: Math.max(4, this.x(begins + grace.ms) - x - 1), kind: 'grace' });
      begins += grace.ms ?? 0;
    }
    for (const each of between)
      if (each.note !== null) pieces.push({ number, x: this.x(at) - cutWidth, y: this.y(each.note), width: cutWidth, kind: isFaulty ? 'faulty' : 'unsure' });
    const x = this.x(begins);
    if (note.ms === null) return [...pieces, { number, x, y: this.y(note.note), width: missingWidth, kind: 'missing' }];
    const kind = note.verdict === 'other' || note.verdict === 'timing' || note.verdict === 'held' ? 'faulty' : 'clean';
    return [
      ...pieces,
      { number, x, y: this.y(note.other ?? note.note), width: Math.max(6, this.x(Math.min(end, begins + note.ms)) - x - 2), kind: isFaulty ? kind : 'clean' },
    ];
  }

  private endOf(index: number): number {
    const notes = this.notes();
    const { at, ms, graces } = notes[index];
    const own = at + graces.reduce((sum, grace) => sum + (grace.ms ?? 0), ms ?? lastMs);
    return Math.min(own, notes.at(index + 1)?.at ?? own);
  }

  private x(ms: number): number {
    const { from, to } = this.range();
    const { left, width } = this.size;
    return Math.round((left + Math.min(1, Math.max(0, (ms - from) / (to - from))) * (width - left - right)) * 10) / 10;
  }

  private y(note: NoteId): number {
    return this.rows().find((each) => each.note === note)?.y ?? top;
  }
}
