import { Component, computed, inject, input, output } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { faultWords, longestFault, shortestFault, SoundSettings, type ChosenFault } from './sound-settings.service';
import { TipComponent } from '../../kernel/tip/tip.component';
import { Transport } from './transport.service';

/** Count-in, click, repeat, the fault to be heard and its length, and the level. */
@Component({
  selector: 'zp-sound-menu',
  imports: [NgbDropdownModule, TipComponent],
  template: `
    <span class="d-flex align-items-center gap-3">
      <button
        type="button"
        class="toggle"
        title="Four beats before the music"
        [attr.aria-pressed]="sound.hasCountIn()"
        (click)="sound.hasCountIn.set(!sound.hasCountIn())"
      >
        Count-in <b>{{ sound.hasCountIn() ? 'on' : 'off' }}</b>
      </button>
      <span ngbDropdown placement="top-end" autoClose="outside">
        <button type="button" class="word" ngbDropdownToggle>Sound</button>
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
            @if (isPipes()) {
              <span>
                <button type="button" class="toggle" [attr.aria-pressed]="sound.hasBalance()" (click)="sound.hasBalance.set(!sound.hasBalance())">
                  Loud and soft notes <b>{{ sound.hasBalance() ? 'as on the pipes' : 'all the same' }}</b>
                </button>
                <zp-tip about="loud and soft notes">On the pipes low G and low A are the loudest. All the same makes the other notes easier to hear.</zp-tip>
              </span>
            }
          </span>
          <label class="form-label d-block" for="fault-kind">Fault to hear</label>
          <select id="fault-kind" class="form-select mb-2" [value]="sound.fault()" (change)="chooseFault($event)">
            @for (fault of faults; track fault) {
              <option [value]="fault" [selected]="fault === sound.fault()">{{ words[fault] }}</option>
            }
          </select>
          <label class="form-label d-block" for="fault-length">Length of the fault: {{ sound.faultMs() }} ms</label>
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
              <button type="button" class="word" (click)="playBar.emit()">Play this bar <kbd>B</kbd></button>
              <button type="button" class="word" (click)="playBarFaulty.emit()">Play this bar with the fault</button>
              <button type="button" class="word" (click)="playFaulty.emit()">Play the tune with the fault <kbd>V</kbd></button>
            </span>
          }
          <label class="form-label d-block" for="level">Volume</label>
          <input id="level" type="range" class="form-range" min="0.05" max="1" step="0.05" [value]="sound.level()" (input)="chooseLevel($event)" />
          <small class="second d-block">Sound starts quiet and has an upper limit. Keep headphones low.</small>
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
  /** What is heard: the pipes alone have a loudness of each note that players report. */
  readonly family = input<Instrument['family']>('pipes');
  protected readonly isPipes = computed(() => this.family() === 'pipes');
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
