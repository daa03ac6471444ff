import { Component, computed, input, output } from '@angular/core';
import type { BarDifficulty } from '@zelpit/core/arrange';
import { scaleLinear } from 'd3-scale';
import { area, curveMonotoneX } from 'd3-shape';

const [width, height, foot] = [1184, 120, 22];

/** How hard each bar of a tune is, as one curve over its bars. */
@Component({
  selector: 'zp-hard-curve',
  template: `
    <svg class="hard-curve" [attr.viewBox]="'0 0 ' + width + ' ' + (height + foot)" role="img" [attr.aria-label]="text()">
      <path [attr.d]="path()" class="hard-area" />
      <path class="key-wood" [attr.d]="'M0 ' + height + 'H' + width" />
      @for (bar of marks(); track bar.bar) {
        <text class="bar-number" [attr.x]="bar.x" [attr.y]="height + 17" text-anchor="middle">{{ bar.bar }}</text>
      }
      @for (bar of places(); track bar.bar) {
        <rect class="seam" [attr.x]="bar.x - bar.room / 2" y="0" [attr.width]="bar.room" [attr.height]="height" (click)="chosen.emit(bar.bar)">
          <title>Bar {{ bar.bar }}: difficulty {{ bar.difficulty.toFixed(1) }}{{ bar.hardest ? ', hardest ' + bar.hardest : '' }}</title>
        </rect>
      }
    </svg>
  `,
})
export class HardCurveComponent {
  readonly bars = input.required<readonly BarDifficulty[]>();
  readonly chosen = output<number>();
  protected readonly width = width;
  protected readonly height = height;
  protected readonly foot = foot;

  private readonly x = computed(() => scaleLinear([0, Math.max(1, this.bars().length - 1)], [24, width - 24]));
  private readonly y = computed(() => scaleLinear([0, Math.max(1, ...this.bars().map(({ difficulty }) => difficulty))], [height, 6]));
  protected readonly places = computed(() => {
    const room = (width - 48) / Math.max(1, this.bars().length - 1);
    return this.bars().map((bar, index) => ({ ...bar, x: this.x()(index), room }));
  });
  protected readonly marks = computed(() => {
    const step = Math.ceil(this.bars().length / 32);
    return this.places().filter(({ bar }, index) => bar > 0 && index % step === 0);
  });
  protected readonly path = computed(
    () =>
      area<BarDifficulty>()
        .x((_, index) => this.x()(index))
        .y0(height)
        .y1(({ difficulty }) => this.y()(difficulty))
        .curve(curveMonotoneX)([...this.bars()]) ?? '',
  );
  protected readonly text = computed(
    () =>
      `Difficulty of each bar: ${this.bars()
        .map(({ bar, difficulty }) => `bar ${bar} ${difficulty.toFixed(1)}`)
        .join(', ')}`,
  );
}
