import { Component, computed, input } from '@angular/core';
import { noteOf, type NoteId } from '@zelpit/core/fingering';
import { laneLayout, type LaneNote } from '@zelpit/core/lanes';
import type { DescribedLine } from '@zelpit/core/line';
import { differingOf } from '../../studio/shelf/instrument-shelf.service';
import { LanesComponent } from '../lanes/lanes.component';
import { MarkComponent } from '../lanes/mark.component';

/** The size of the figure, in px: room for finger names at the left, two columns, and the mark under their seam. */
export const figureSize = { labels: 90, width: 248, pitch: 15.6, lanesTop: 20, height: 188, markSize: 30 } as const;

/** Two fingerings side by side and what happens between them, or a movement between its notes, element by element. Lives inside an SVG. */
@Component({
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: 'g[zpChangeFigure]',
  imports: [LanesComponent, MarkComponent],
  template: `
    @for (letter of letters(); track $index) {
      <svg:text
        [attr.x]="letter.x"
        [attr.y]="letter.y"
        text-anchor="middle"
        [attr.font-size]="letter.size"
        [attr.font-weight]="letter.weight"
        font-family="Gabarito Variable"
        [attr.fill]="isPaper() ? '#000' : 'currentColor'"
      >
        {{ letter.text }}
      </svg:text>
    }
    <svg:g
      zpLanes
      [attr.transform]="'translate(0 ' + size.lanesTop + ')'"
      [instrument]="instrument()"
      [notes]="columns()"
      [left]="size.labels"
      [right]="size.width"
      [pitch]="size.pitch"
      labels="movers"
      [labelSize]="16"
      [isPaper]="isPaper()"
    />
    @for (x of dots(); track x) {
      <svg:path
        [attr.d]="'M' + (x - 11) + ' 23h22'"
        fill="none"
        stroke-width="3.6"
        stroke-linecap="round"
        stroke-dasharray="0 5.5"
        [attr.stroke]="isPaper() ? '#000' : 'currentColor'"
      />
    }
    @if (hasMark()) {
      <svg:g
        zpMark
        [attr.transform]="'translate(' + middle + ' ' + markY() + ')'"
        [instrument]="instrument()"
        [trouble]="line().trouble"
        [size]="size.markSize"
        [isPaper]="isPaper()"
      />
    }
  `,
})
export class ChangeFigureComponent {
  readonly line = input.required<DescribedLine>();
  readonly isPaper = input(false);

  protected readonly size = figureSize;
  protected readonly instrument = computed(() => this.line().instrument);
  protected readonly middle = (figureSize.labels + figureSize.width) / 2;

  protected readonly columns = computed((): readonly (LaneNote & { readonly text: string })[] => {
    const { home, other, shown } = this.line();
    const width = figureSize.width - figureSize.labels;
    const column = (x: number, note: NoteId, graceNotes: LaneNote['graceNotes'] = []) => ({
      x,
      note,
      graceNotes,
      text: this.nameOf(note, shown !== undefined),
    });
    if (shown === undefined) return [column(this.middle - width / 4, home), column(this.middle + width / 4, other)];
    const { before, graceNotes, after } = shown;
    const parts = graceNotes.length + (before === null ? 2 : 4);
    const at = (part: number): number => figureSize.labels + (part * width) / parts;
    const first = before === null ? [] : [column(at(1), before)];
    const start = before === null ? 0.5 : 2.5;
    return [
      ...first,
      column(
        at(parts - 1),
        after,
        graceNotes.map((note, index) => ({ note, x: at(start + index) })),
      ),
    ];
  });
  /** Where notes stand that the other model fingers otherwise. */
  protected readonly dots = computed(() => {
    const differing = differingOf(this.instrument());
    return this.columns().flatMap(({ x, note }) => (note !== null && differing?.notes.has(note) === true ? [x] : []));
  });
  /** The names of the notes, and smaller the letters of grace notes over their elements. */
  protected readonly letters = computed(() => [
    ...this.columns().map(({ x, text }) => ({ x, text, y: 16, size: 21, weight: 700 })),
    ...this.columns().flatMap(({ graceNotes }) =>
      graceNotes.map(({ note, x }) => ({ x, text: noteOf(this.instrument(), note).abc, y: 14, size: 15, weight: 600 })),
    ),
  ]);
  /** A movement is judged by its elements, not by the change between its notes. */
  protected readonly hasMark = computed(() => this.line().shown === undefined && this.line().trouble.kind !== 'none');
  protected readonly markY = computed(() => figureSize.lanesTop + laneLayout(this.instrument(), figureSize.pitch).height + figureSize.markSize / 2 + 2);

  /** Beside grace notes there is room for the letter of the written form only. */
  private nameOf(note: NoteId, isShort: boolean): string {
    const { schoolName, abc } = noteOf(this.instrument(), note);
    return isShort ? abc : schoolName;
  }
}
