import { afterRenderEffect, Component, computed, inject, input, signal, viewChild, type ElementRef } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import { laneLayout, type LaneNote } from '@zelpit/core/lanes';
import type { Tune } from '@zelpit/core/tune';
import { LanesComponent } from '../../music/lanes/lanes.component';
import { Engraver, type Engraving } from '../../music/score/engraver.service';
import { rowStaves } from '../../music/score/row-staves';

const [labels, narrowLabels, narrowWindow, pitch] = [120, 82, 560, 14];

/** Some bars of a tune as written, and under them as this player has them, with the fingers. */
@Component({
  selector: 'zp-arrange-drawing',
  imports: [LanesComponent],
  template: `
    <svg class="chunk-svg" role="img" [attr.aria-label]="text()" [attr.viewBox]="'0 0 ' + width() + ' ' + height()" preserveAspectRatio="xMinYMin meet">
      @for (bar of barNames(); track bar.text) {
        <svg:text class="bar-number" [attr.x]="bar.x" y="14">{{ bar.text }}</svg:text>
      }
      @for (mark of marks(); track mark.x) {
        <svg:circle class="new-ring" [attr.cx]="mark.x" [attr.cy]="mark.y" r="11" />
      }
      <svg:g
        zpLanes
        [attr.transform]="'translate(0 ' + lanesTop() + ')'"
        [instrument]="instrument()"
        [notes]="columns()"
        [left]="left()"
        [right]="width()"
        [pitch]="pitch"
        [labelSize]="14"
      />
      @if (playingX(); as x) {
        <svg:rect
          class="pillar-empty"
          [attr.x]="x - 15"
          [attr.y]="(staves()[1]?.staffTop ?? 0) - 12"
          width="30"
          [attr.height]="height() - (staves()[1]?.staffTop ?? 0) + 8"
          rx="12"
        />
      }
    </svg>
    <div #host class="score-music" [style.left.px]="left()" [style.top.px]="0"></div>
    @for (row of rowNames(); track row.name) {
      <p class="arrange-row" [style.top.px]="row.top - 6">
        <b>{{ row.name }}</b><br /><small class="second">{{ row.text }}</small>
      </p>
    }
  `,
  host: { class: 'chunk-drawing', '[style.height.px]': 'height()' },
})
export class ArrangeDrawingComponent {
  private readonly engraver = inject(Engraver);
  readonly instrument = input.required<Instrument>();
  readonly before = input.required<Tune>();
  readonly after = input.required<Tune>();
  /** For whom the second staff is. */
  readonly forWhom = input.required<string>();
  /** Indices into the tunes' bars. */
  readonly bars = input.required<readonly number[]>();
  readonly width = input.required<number>();
  /** Index of the note that sounds; -1 for none. */
  readonly playing = input(-1);
  protected readonly pitch = pitch;
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  protected readonly staves = signal<readonly Engraving[]>([]);
  protected readonly left = computed(() => (this.width() < narrowWindow ? narrowLabels : labels));

  constructor() {
    afterRenderEffect(() => {
      const width = this.width() - this.left();
      const abc = rowStaves([this.before(), this.after()], this.bars());
      if (width < 100) return;
      void this.engraver.engraveStaves(this.host().nativeElement, abc, { width, scale: 0.9 }).then((staves) => this.staves.set(staves));
    });
  }

  private readonly first = computed(() => this.after().bars[this.bars()[0]]?.first ?? 0);
  private readonly end = computed(() => this.after().bars[this.bars().at(-1) ?? 0]?.end ?? 0);
  protected readonly lanesTop = computed(() => (this.staves().at(-1)?.staffBottom ?? 130) + 24);
  protected readonly height = computed(() => Math.round(this.lanesTop() + laneLayout(this.instrument(), pitch).height + 8));
  protected readonly rowNames = computed(() => {
    const [one, other] = this.staves();
    return [
      { name: 'before', text: 'as written', top: one?.staffTop ?? 20 },
      { name: 'after', text: this.forWhom(), top: other?.staffTop ?? 80 },
    ];
  });
  protected readonly columns = computed((): readonly LaneNote[] => {
    const engraving = this.staves()[1];
    if (engraving === undefined) return [];
    return this.after()
      .notes.slice(this.first(), this.end())
      .map((note, index): LaneNote => {
        const placed = engraving.notes[index];
        const x = this.left() + (placed?.x ?? 0);
        const graceNotes = note.graceNotes.map((each, place) => ({ note: each, x: this.left() + (placed?.graceNotes[place] ?? placed?.x ?? 0) }));
        return { x, note: note.written.kind === 'note' ? note.written.note : null, graceNotes };
      });
  });
  protected readonly playingX = computed(() => {
    const place = this.playing() - this.first();
    return this.playing() < this.first() || this.playing() >= this.end() ? undefined : this.columns()[place]?.x;
  });
  /** Notes that are another one than as written, or have more or fewer before them. */
  protected readonly marks = computed(() => {
    const engraving = this.staves()[1];
    const { notes } = this.before();
    return this.after()
      .notes.slice(this.first(), this.end())
      .flatMap((note, index) => {
        const old = notes[note.index];
        const placed = engraving?.notes[index];
        const isSame = old.graceNotes.join() === note.graceNotes.join() && old.sign === note.sign;
        if (isSame || engraving === undefined || placed?.y === undefined) return [];
        return [{ x: this.left() + placed.x, y: engraving.staffTop + placed.y }];
      });
  });
  protected readonly barNames = computed(() => {
    const columns = this.columns();
    return this.bars().flatMap((index) => {
      const bar = this.after().bars[index];
      const column = columns[bar.first - this.first()];
      return column === undefined || bar.number === 0 ? [] : [{ x: Math.max(this.left() + 4, column.x - 14), text: `bar ${bar.number}` }];
    });
  });
  protected readonly text = computed(() => `Bars of the tune as written and ${this.forWhom()}, with the fingers`);
}
