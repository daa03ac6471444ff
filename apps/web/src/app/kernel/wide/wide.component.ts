import { Component, ElementRef, inject, input, signal, viewChild, type AfterViewInit, type OnDestroy } from '@angular/core';

/** What can be wider than the window: it scrolls by itself, and says so. */
@Component({
  selector: 'zp-wide',
  template: `
    @if (isTooWide()) {
      <p class="wide-hint second">Scroll sideways for more →</p>
    }
    <div #frame class="wide" tabindex="0" role="region" [attr.aria-label]="label()"><ng-content /></div>
  `,
})
export class WideComponent implements AfterViewInit, OnDestroy {
  /** What it is, for screen readers. */
  readonly label = input.required<string>();
  protected readonly isTooWide = signal(false);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly sizes = new ResizeObserver(() => this.measure());
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  ngAfterViewInit(): void {
    this.sizes.observe(this.host.nativeElement);
    const [inside] = this.frame().nativeElement.children;
    if (inside !== undefined) this.sizes.observe(inside);
  }

  ngOnDestroy(): void {
    this.sizes.disconnect();
  }

  private measure(): void {
    const { scrollWidth, clientWidth } = this.frame().nativeElement;
    this.isTooWide.set(scrollWidth > clientWidth + 1);
  }
}
