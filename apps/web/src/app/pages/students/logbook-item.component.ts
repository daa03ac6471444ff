import { Component, computed, input } from '@angular/core';
import type { LogbookItem } from '@zelpit/core/practice';
import { scaleLinear } from 'd3-scale';
import { curveMonotoneX, line } from 'd3-shape';

const [width, height, edge] = [360, 52, 8];

/** Fastest clean tempo of an item by week: one ribbon, with a figure at both ends. */
@Component({
  selector: 'zp-logbook-item',
  template: `
    <svg class="logbook-ribbon" [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="text()">
      @if (item().weeks.length > 1) {
        <path class="logbook-line" [attr.d]="path()" />
      } @else if (item().weeks.length === 1) {
        <circle [attr.cx]="x()(item().weeks[0].week)" [attr.cy]="y()(item().weeks[0].best)" r="6" fill="currentColor" />
      }
    </svg>
  `,
})
export class LogbookItemComponent {
  readonly item = input.required<Pick<LogbookItem, 'title' | 'weeks'>>();
  /** What the figures are, for screen readers. */
  readonly what = input('fastest clean tempo');
  /** The first and the last moment that are drawn, in ms: all items have the same. */
  readonly from = input.required<number>();
  readonly to = input.required<number>();
  protected readonly width = width;
  protected readonly height = height;

  protected readonly x = computed(() => scaleLinear([this.from(), Math.max(this.from() + 1, this.to())], [edge, width - edge]));
  protected readonly y = computed(() => {
    const tempos = this.item().weeks.map(({ best }) => best);
    return scaleLinear([Math.min(...tempos) - 2, Math.max(...tempos) + 2], [height - edge, edge]);
  });
  protected readonly path = computed(
    () =>
      line<{ readonly week: number; readonly best: number }>()
        .x(({ week }) => this.x()(week))
        .y(({ best }) => this.y()(best))
        .curve(curveMonotoneX)([...this.item().weeks]) ?? '',
  );
  protected readonly text = computed(() => {
    const { weeks, title } = this.item();
    if (weeks.length === 0) return `${title}: no tempo was judged clean yet`;
    return `${title}, ${this.what()}: ${weeks[0].best} at first, ${weeks[weeks.length - 1].best} in the last of ${weeks.length}`;
  });
}
