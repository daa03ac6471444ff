import { Component, computed, input } from '@angular/core';
import type { Instrument, Pattern } from '@zelpit/core/fingering';
import { coverPath, holesText, partOf } from './hole-figure';

const [radius, step, gap, edge] = [6.5, 16, 8, 2];

/** A fingering in a line of text: its holes from the top down, the thumb and the second hand set apart. */
@Component({
  selector: 'zp-fingering',
  template: `
    <svg [attr.viewBox]="'0 0 ' + drawn().width + ' ' + height" [attr.width]="drawn().width" [attr.height]="height" role="img" [attr.aria-label]="text()">
      @for (hole of drawn().holes; track $index) {
        <circle [attr.cx]="hole.x" [attr.cy]="height / 2" [attr.r]="radius" fill="none" stroke="currentColor" stroke-width="1.8" />
        @if (hole.cover) {
          <path [attr.d]="hole.cover" fill="currentColor" />
        }
      }
    </svg>
  `,
  host: { class: 'fingering' },
})
export class FingeringComponent {
  readonly instrument = input.required<Instrument>();
  readonly pattern = input.required<Pattern>();
  protected readonly radius = radius;
  protected readonly height = 2 * (radius + edge);
  protected readonly text = computed(() => holesText(this.instrument(), this.pattern()));

  protected readonly drawn = computed(() => {
    const instrument = this.instrument();
    let x = edge - step + radius;
    const placed = this.pattern().map((coverage, hole) => {
      x += step + (hole > 0 && partOf(instrument, hole) !== partOf(instrument, hole - 1) ? gap : 0);
      return { x, cover: coverage > 0 ? coverPath(x, radius + edge, radius, coverage) : '' };
    });
    return { holes: placed, width: x + radius + edge };
  });
}
