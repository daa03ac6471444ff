import { Component, inject, model } from '@angular/core';
import { faultWords, SoundSettings, type ChosenFault } from '../sound/sound-settings.service';

/** What a file of sound has besides the notes: click, drone, a fault in every change. Page and file have the same. */
@Component({
  selector: 'zp-wave-options',
  template: `
    <span class="d-flex flex-wrap align-items-center gap-3">
      <button type="button" class="toggle" [attr.aria-pressed]="sound.hasClick()" (click)="sound.hasClick.set(!sound.hasClick())">
        Click <b>{{ sound.hasClick() ? 'on' : 'off' }}</b>
      </button>
      <button type="button" class="toggle" [attr.aria-pressed]="sound.hasDrone()" (click)="sound.hasDrone.set(!sound.hasDrone())">
        Drone <b>{{ sound.hasDrone() ? 'on' : 'off' }}</b>
      </button>
      <label class="d-inline-flex align-items-center gap-2"
        >With a fault
        <select class="form-select w-auto" (change)="choose($event)">
          <option value="" [selected]="fault() === ''">none: clean</option>
          @for (each of faults; track each) {
            <option [value]="each" [selected]="fault() === each">{{ words[each] }}, {{ sound.faultMs() }} ms</option>
          }
        </select>
      </label>
    </span>
  `,
})
export class WaveOptionsComponent {
  protected readonly sound = inject(SoundSettings);
  protected readonly words = faultWords;
  protected readonly faults = Object.keys(faultWords) as ChosenFault[];
  /** The fault put into every change; empty for none. */
  readonly fault = model<ChosenFault | ''>('');

  protected choose(event: Event): void {
    const fault = (event.target as HTMLSelectElement).value as ChosenFault | '';
    this.fault.set(fault);
    if (fault !== '') this.sound.fault.set(fault);
  }
}
