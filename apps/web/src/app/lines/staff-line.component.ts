import { afterRenderEffect, Component, inject, input, type ElementRef, viewChild } from '@angular/core';
import { Engraver } from '../score/engraver.service';

/** One line of music, engraved. Where the page is narrower it scrolls sideways by itself. */
@Component({
  selector: 'zp-staff-line',
  template: `<div class="staff-scroll"><div #host class="score-music" role="img" [attr.aria-label]="said()"></div></div>`,
})
export class StaffLineComponent {
  private readonly engraver = inject(Engraver);
  readonly abc = input.required<string>();
  readonly said = input.required<string>();
  readonly width = input(1100);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');

  constructor() {
    afterRenderEffect(() => {
      void this.engraver.engrave(this.host().nativeElement, this.abc(), { width: this.width(), scale: 1 });
    });
  }
}
