import { Component, inject, input } from '@angular/core';
import { TakeSource } from './take-source.service';

/** The click that a piece is usually played to. */
export interface UsualClick {
  /** Beats a minute. */
  readonly tempo: number;
  readonly beatsInBar: number;
}

/** Whether a take is played to a click, and how fast: then early and late are said, too. */
@Component({
  selector: 'zp-take-click',
  template: `
    <p class="take-click">
      <button type="button" class="word" [attr.aria-pressed]="source.click() !== undefined" (click)="source.turnClick(usual())">To a click <kbd>T</kbd></button>
      @if (source.click(); as tempo) {
        <span class="tempo" role="group" aria-label="Click">
          <button type="button" class="square" aria-label="Slower" [disabled]="tempo <= source.slowestClick" (click)="source.stepClick(-1)">-</button>
          <span class="figure">{{ tempo }}</span>
          <button type="button" class="square" aria-label="Faster" [disabled]="tempo >= source.fastestClick" (click)="source.stepClick(1)">+</button>
        </span>
      }
      <span class="second">{{
        source.click() === undefined ? 'Without one your own pulse is found.' : 'Headphones on, turned low: the microphone is not to hear it.'
      }}</span>
    </p>
  `,
  styles: `
    .take-click {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 0.25rem 1rem;
      margin: 0.5rem 0;
    }
  `,
})
export class TakeClickComponent {
  protected readonly source = inject(TakeSource);
  readonly usual = input.required<UsualClick>();
}
