import { Component, input, type ElementRef, viewChild } from '@angular/core';

let made = 0;
const [edge, gap] = [12, 8];

/** A small mark beside a word: pressed, by mouse, finger or key, it says what the word means; screen readers hear it at once. */
@Component({
  selector: 'zp-tip',
  template: `
    <button
      #mark
      type="button"
      class="tip-mark"
      [attr.aria-label]="'What this means: ' + about()"
      [attr.aria-describedby]="id"
      [attr.popovertarget]="id"
      (click)="$event.stopPropagation()"
    >
      i
    </button>
    <span #words popover class="tip-words" [id]="id" (beforetoggle)="place()"><ng-content /></span>
  `,
  host: { class: 'tip' },
})
export class TipComponent {
  /** The word that is explained, for screen readers. */
  readonly about = input.required<string>();
  protected readonly id = `tip-${(made += 1)}`;
  private readonly mark = viewChild.required<ElementRef<HTMLElement>>('mark');
  private readonly words = viewChild.required<ElementRef<HTMLElement>>('words');

  /** Under the mark, or above it where the window ends; never beyond an edge. */
  protected place(): void {
    const mark = this.mark().nativeElement.getBoundingClientRect();
    const { style } = this.words().nativeElement;
    const width = Math.min(380, innerWidth - 2 * edge);
    style.width = `${width}px`;
    style.left = `${Math.max(edge, Math.min(mark.left, innerWidth - width - edge))}px`;
    const isLow = mark.bottom > innerHeight * 0.7;
    style.top = isLow ? 'auto' : `${mark.bottom + gap}px`;
    style.bottom = isLow ? `${innerHeight - mark.top + gap}px` : 'auto';
  }
}
