import { Component, computed, input, output } from '@angular/core';
import type { Instrument, Tune, TuneChange } from '@zelpit/core';
import { MarkComponent } from '../lanes/mark.component';

/** All bars of a tune with the worst that can be heard in each. */
@Component({
  selector: 'zp-bar-strip',
  imports: [MarkComponent],
  template: `
    @for (bar of bars(); track bar.number) {
      <button
        type="button"
        class="strip-bar"
        [class.part-start]="bar.startsPart"
        [class.is-seen]="seen().has(bar.number)"
        [class.is-here]="bar.number === here()"
        [attr.aria-label]="'Bar ' + bar.number"
        [attr.aria-current]="bar.number === here() ? 'true' : null"
        (click)="chosen.emit(bar.number)"
      >
        <span class="strip-mark">
          @if (bar.worst; as worst) {
            <svg width="22" height="22" viewBox="-11 -11 22 22" aria-hidden="true">
              <g zpMark [instrument]="instrument()" [trouble]="worst.trouble" [size]="worst.trouble.kind === 'pop' ? 17 : 14" />
            </svg>
          }
        </span>
        <span class="strip-line"></span>
        {{ bar.number }}
      </button>
    }
  `,
  host: { class: 'strip-bars', role: 'group', 'aria-label': 'Bars of the tune' },
})
export class BarStripComponent {
  readonly tune = input.required<Tune>();
  readonly instrument = input.required<Instrument>();
  readonly worst = input.required<ReadonlyMap<number, TuneChange>>();
  readonly seen = input.required<ReadonlySet<number>>();
  readonly here = input.required<number>();
  readonly chosen = output<number>();

  protected readonly bars = computed(() => {
    const { bars } = this.tune();
    const starts = new Set(bars.flatMap((bar, index) => (bar.endsPart && index < bars.length - 1 ? [bars[index + 1].number] : [])));
    const numbers = [...new Set(bars.map((bar) => bar.number))].filter((number) => number > 0);
    return numbers.map((number) => ({ number, worst: this.worst().get(number), startsPart: starts.has(number) }));
  });
}
