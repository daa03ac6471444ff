import { Component, computed, input } from '@angular/core';
import type { Trouble } from '@zelpit/core/change';
import type { Instrument } from '@zelpit/core/fingering';
import { markFor } from '@zelpit/core/lanes';

/** The sign for what is heard: burst with a letter, stair, wave. Lives inside an SVG, centred on (0, 0). */
@Component({
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: 'g[zpMark]',
  template: `
    @if (mark(); as drawn) {
      @switch (drawn.kind) {
        @case ('burst') {
          <svg:path [attr.d]="drawn.path" [attr.fill]="ink()" />
          @if (letter(); as text) {
            <svg:text
              text-anchor="middle"
              font-family="Gabarito Variable"
              font-weight="800"
              [attr.y]="size() * 0.17"
              [attr.font-size]="size() * 0.5"
              [attr.fill]="letterInk()"
            >
              {{ text }}
            </svg:text>
          }
        }
        @case ('stair') {
          <svg:path [attr.d]="drawn.path" [attr.fill]="ink()" />
        }
        @case ('wave') {
          <svg:path [attr.d]="drawn.path" fill="none" [attr.stroke]="ink()" stroke-width="2.6" stroke-linecap="round" />
        }
      }
    } @else if (showsNothing()) {
      <svg:line [attr.x1]="-size() / 2" [attr.x2]="size() / 2" y1="0" y2="0" stroke="var(--screened)" stroke-width="2.6" />
    }
  `,
})
export class MarkComponent {
  readonly instrument = input.required<Instrument>();
  readonly trouble = input.required<Trouble>();
  readonly size = input(28);
  readonly isPaper = input(false);
  /** Draws a plain line where nothing is heard. */
  readonly showsNothing = input(false);

  protected readonly mark = computed(() => markFor(this.instrument(), this.trouble(), this.size()));
  protected readonly letter = computed(() => {
    const mark = this.mark();
    return mark?.kind === 'burst' && this.size() >= 18 ? mark.letter : undefined;
  });
  protected readonly ink = computed(() => (this.isPaper() ? '#000' : 'var(--vermilion)'));
  protected readonly letterInk = computed(() => (this.isPaper() ? '#fff' : 'var(--on-vermilion)'));
}
