import { Component, inject, input, output } from '@angular/core';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { faultWords, longestFault, shortestFault, SoundSettings, type ChosenFault } from './sound-settings.service';
import { Transport } from './transport.service';

/** Count-in, click, repeat, the fault to be heard and its length, and the level. */
@Component({
  selector: 'zp-sound-menu',
  imports: [NgbDropdownModule],
  template: `
    <span class="d-flex align-items-center gap-3">
      <button type="button" class="toggle" [attr.aria-pressed]="sound.hasCountIn()" (click)="sound.hasCountIn.set(!sound.hasCountIn())">
        Count-in <b>{{ sound.hasCountIn() ? 'on' : 'off' }}</b>
      </button>
      <span ngbDropdown placement="top-end" autoClose="outside">
        <button type="button" class="word" ngbDropdownToggle>More sound</button>
        <span ngbDropdownMenu class="sound-menu">
          <span class="d-flex flex-wrap gap-3 mb-2">
            <button type="button" class="toggle" [attr.aria-pressed]="sound.hasClick()" (click)="sound.hasClick.set(!sound.hasClick())">
              Click <b>{{ sound.hasClick() ? 'on' : 'off' }}</b>
            </button>
            <button type="button" class="toggle" [attr.aria-pressed]="sound.repeats()" (click)="sound.repeats.set(!sound.repeats())">
              Repeat <b>{{ sound.repeats() ? 'on' : 'off' }}</b>
            </button>
            <button type="button" class="toggle" [attr.aria-pressed]="sound.hasDrone()" (click)="sound.hasDrone.set(!sound.hasDrone())">
              Drone <b>{{ sound.hasDrone() ? 'on' : 'off' }}</b>
            </button>
            <button type="button" class="toggle" [attr.aria-pressed]="sound.hasBalance()" (click)="sound.hasBalance.set(!sound.hasBalance())">
              Loud and soft notes <b>{{ sound.hasBalance() ? 'as on the pipes' : 'all alike' }}</b>
            </button>
          </span>
          <label class="form-label d-block" for="fault-kind">Fault to hear</label>
          <select id="fault-kind" class="form-select mb-2" [value]="sound.fault()" (change)="chooseFault($event)">
            @for (fault of faults; track fault) {
              <option [value]="fault" [selected]="fault === sound.fault()">{{ words[fault] }}</option>
            }
          </select>
          <label class="form-label d-block" for="fault-length">It lasts {{ sound.faultMs() }} ms</label>
          <input
            id="fault-length"
            type="range"
            class="form-range"
            [min]="shortest"
            [max]="longest"
            step="1"
            [value]="sound.faultMs()"
            (input)="chooseLength($event)"
          />
          @if (hasBars()) {
            <span class="d-flex flex-wrap gap-3 my-2">
              <button type="button" class="word" (click)="playBar.emit()">Hear this bar <kbd>B</kbd></button>
              <button type="button" class="word" (click)="playBarFaulty.emit()">This bar with the fault</button>
              <button type="button" class="word" (click)="playFaulty.emit()">Tune with the fault <kbd>X</kbd></button>
            </span>
          }
          <label class="form-label d-block" for="level">Level</label>
          <input id="level" type="range" class="form-range" min="0.05" max="1" step="0.05" [value]="sound.level()" (input)="chooseLevel($event)" />
          <small class="second d-block">Sound starts quiet and is capped. Keep headphones low.</small>
        </span>
      </span>
    </span>
  `,
})
export class SoundMenuComponent {
  private readonly transport = inject(Transport);
  protected readonly sound = inject(SoundSettings);
  protected readonly words = faultWords;
  protected readonly faults = Object.keys(faultWords) as ChosenFault[];
  protected readonly shortest = shortestFault;
  protected readonly longest = longestFault;
  /** False where no tune with bars is in view. */
  readonly hasBars = input(true);
  readonly playFaulty = output<void>();
  readonly playBar = output<void>();
  readonly playBarFaulty = output<void>();

  protected chooseFault(event: Event): void {
    this.sound.fault.set((event.target as HTMLSelectElement).value as ChosenFault);
  }

  protected chooseLength(event: Event): void {
    this.sound.faultMs.set(Number((event.target as HTMLInputElement).value));
  }

  protected chooseLevel(event: Event): void {
    this.transport.setLevel(Number((event.target as HTMLInputElement).value));
  }
}
