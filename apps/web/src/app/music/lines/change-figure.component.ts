import { Component, computed, input } from '@angular/core';
import { laneLayout, noteOf, type DescribedLine, type LaneNote } from '@zelpit/core';
import { LanesComponent } from '../lanes/lanes.component';
import { MarkComponent } from '../lanes/mark.component';

/** The size of the figure, in px: room for finger names at the left, two columns, and the mark under their seam. */
export const figureSize = { labels: 90, width: 248, pitch: 15.6, lanesTop: 20, height: 188, markSize: 30 } as const;

/** Two fingerings side by side and what happens between them. Lives inside an SVG. */
@Component({
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: 'g[zpChangeFigure]',
  imports: [LanesComponent, MarkComponent],
  template: `
    @for (column of columns(); track $index) {
      <svg:text
        [attr.x]="column.x"
        y="16"
        text-anchor="middle"
        font-size="21"
        font-weight="700"
        font-family="Gabarito Variable"
        [attr.fill]="isPaper() ? '#000' : 'currentColor'"
      >
        {{ column.text }}
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
    const { home, other } = this.line();
    const quarter = (figureSize.width - figureSize.labels) / 4;
    return [home, other].map((note, index) => ({
      x: this.middle + (index === 0 ? -quarter : quarter),
      note,
      graceNotes: [],
      text: noteOf(this.instrument(), note).schoolName,
    }));
  });
  protected readonly hasMark = computed(() => this.line().trouble.kind !== 'none');
  protected readonly markY = computed(() => figureSize.lanesTop + laneLayout(this.instrument(), figureSize.pitch).height + figureSize.markSize / 2 + 2);
}
