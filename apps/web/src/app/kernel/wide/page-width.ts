import { DestroyRef, ElementRef, inject, signal, type Signal } from '@angular/core';

/** Before anything is measured, and the least that anything is drawn for, in px. */
const [atFirst, least] = [1184, 240];
const usualMargin = 48;

/** The width between the margins of the component's own element, as it changes; to be called where a component is made. */
export function pageWidth(): Signal<number> {
  const { nativeElement } = inject<ElementRef<HTMLElement>>(ElementRef);
  const width = signal(atFirst);
  const margin = (): number => Number.parseFloat(getComputedStyle(nativeElement).getPropertyValue('--margin')) || usualMargin;
  // What is about to be hidden has no width for a moment.
  const sizes = new ResizeObserver(([entry]) => width.set(Math.max(least, Math.floor(entry.contentRect.width) - 2 * margin())));
  sizes.observe(nativeElement);
  inject(DestroyRef).onDestroy(() => sizes.disconnect());
  return width.asReadonly();
}
