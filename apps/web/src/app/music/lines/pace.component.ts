import { Component, input, output } from '@angular/core';
import { sheetLimits } from '@zelpit/contract';

const { slowest: slowestPace, fastest: fastestPace } = sheetLimits;
const firstPace = 48;

/** No click, or so many beats a minute with it. */
@Component({
  selector: 'zp-pace',
  template: `
    <label [attr.for]="name()"
      >{{ label() }}<span class="visually-hidden"> of {{ forWhat() }}</span></label
    >
    <span class="d-flex flex-wrap align-items-center gap-2">
      <select class="form-select pace-kind" [id]="name()" (change)="chooseKind($event)">
        <option value="free" [selected]="tempo() === null">no click</option>
        <option value="click" [selected]="tempo() !== null">with the click</option>
      </select>
      @if (tempo(); as beats) {
        <input
          type="number"
          class="form-control narrow"
          inputmode="numeric"
          [min]="slowest"
          [max]="fastest"
          [value]="beats"
          [attr.aria-label]="'Beats a minute for ' + forWhat()"
          (change)="chooseBeats($event)"
        />
        <span class="second text-nowrap">beats a minute</span>
      }
    </span>
  `,
})
export class PaceComponent {
  readonly name = input.required<string>();
  readonly forWhat = input.required<string>();
  readonly tempo = input.required<number | null>();
  readonly label = input('Pace');
  readonly chosen = output<number | null>();
  protected readonly slowest = slowestPace;
  protected readonly fastest = fastestPace;

  protected chooseKind(event: Event): void {
    this.chosen.emit((event.target as HTMLSelectElement).value === 'free' ? null : firstPace);
  }

  protected chooseBeats(event: Event): void {
    const field = event.target as HTMLInputElement;
    const typed = Math.round(field.valueAsNumber);
    const beats = Number.isFinite(typed) ? Math.min(fastestPace, Math.max(slowestPace, typed)) : (this.tempo() ?? firstPace);
    field.value = String(beats);
    this.chosen.emit(beats);
  }
}
