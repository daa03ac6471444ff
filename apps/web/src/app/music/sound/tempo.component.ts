import { Component, inject, input, output } from '@angular/core';
import { fastest, slowest, SoundSettings } from './sound-settings.service';

/** Beats a minute with slower and faster. */
@Component({
  selector: 'zp-tempo',
  template: `
    <span class="tempo" role="group" aria-label="Tempo">
      <button type="button" class="square" aria-label="Slower" [disabled]="sound.percent() <= slowest" (click)="slower.emit()">-</button>
      <span>
        <span class="figure">{{ beats() }}</span> beats a minute
        <small class="second d-block">{{ sound.percent() === 100 ? written() : sound.percent() + ' % speed' }}</small>
      </span>
      <button type="button" class="square" aria-label="Faster" [disabled]="sound.percent() >= fastest" (click)="faster.emit()">+</button>
    </span>
  `,
})
export class TempoComponent {
  protected readonly sound = inject(SoundSettings);
  protected readonly slowest = slowest;
  protected readonly fastest = fastest;
  readonly beats = input.required<number>();
  /** What the whole tempo is: "as written". */
  readonly written = input('as written');
  readonly slower = output<void>();
  readonly faster = output<void>();
}
