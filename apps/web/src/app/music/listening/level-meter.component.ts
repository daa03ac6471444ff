import { Component, computed, input } from '@angular/core';
import { meterMarks, type InputLevel } from '@zelpit/core/listening';
import { clockText } from '../../kernel/words/words';

/** How loud it comes in: a ribbon between two dotted marks, and the word. */
@Component({
  selector: 'zp-level-meter',
  template: `
    <p class="meter-words">
      <span>{{ does() }}, {{ time() }}</span
      ><b [class.wrongly]="word() !== 'loud enough'">{{ word() }}</b>
    </p>
    <svg class="meter" viewBox="0 0 100 12" preserveAspectRatio="none" aria-hidden="true">
      <line class="meter-base" x1="0" y1="9" x2="100" y2="9" />
      <rect class="meter-ribbon" [class.is-wrong]="word() === 'too loud'" x="0" y="4" height="5" rx="0.6" [attr.width]="width()" />
      @for (mark of marks; track mark) {
        <line class="meter-mark" [attr.x1]="mark" y1="1" [attr.x2]="mark" y2="12" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      max-width: 560px;
    }
    .meter-words {
      display: flex;
      justify-content: space-between;
      margin: 0;
      font-size: 1.25rem;
      font-variant-numeric: tabular-nums;
    }
    .meter {
      display: block;
      width: 100%;
      height: 44px;
    }
    .meter-ribbon {
      fill: currentColor;
    }
    .meter-ribbon.is-wrong {
      fill: var(--vermilion);
    }
    .meter-base,
    .meter-mark {
      stroke: currentColor;
      stroke-width: 2;
      vector-effect: non-scaling-stroke;
    }
    .meter-mark {
      stroke-dasharray: 3 3;
    }
  `,
})
export class LevelMeterComponent {
  /** What is done with it. */
  readonly does = input('Recording');
  readonly level = input<InputLevel>();
  readonly seconds = input.required<number>();
  protected readonly marks = [meterMarks.soft * 100, meterMarks.loud * 100];
  protected readonly word = computed(() => this.level()?.word ?? 'too soft');
  protected readonly width = computed(() => Math.round((this.level()?.share ?? 0) * 100));
  protected readonly time = computed(() => clockText(this.seconds()));
}
