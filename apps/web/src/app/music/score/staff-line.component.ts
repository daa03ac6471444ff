import { afterRenderEffect, Component, ElementRef, inject, input, signal, viewChild, type OnDestroy } from '@angular/core';
import { Engraver } from './engraver.service';

const deskWidth = 1100;
const narrowest = 320;
/** Below this width the music is engraved smaller. */
const smallBelow = 520;

/** One line of music, engraved as wide as its place. */
@Component({
  selector: 'zp-staff-line',
  template: `<div #host class="score-music" role="img" [attr.aria-label]="text()"></div>`,
})
export class StaffLineComponent implements OnDestroy {
  private readonly engraver = inject(Engraver);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly abc = input.required<string>();
  readonly text = input.required<string>();
  private readonly width = signal(0);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly sizes = new ResizeObserver(([entry]) => this.width.set(Math.min(deskWidth, Math.max(narrowest, Math.floor(entry.contentRect.width)))));

  constructor() {
    this.sizes.observe(this.element.nativeElement);
    afterRenderEffect(() => {
      const width = this.width();
      const abc = this.abc();
      if (width > 0) void this.engraver.engrave(this.host().nativeElement, abc, { width, scale: width < smallBelow ? 0.8 : 1 });
    });
  }

  ngOnDestroy(): void {
    this.sizes.disconnect();
  }
}
