import { ApplicationRef, createComponent, EnvironmentInjector, inject, Injectable } from '@angular/core';
import type { SheetOnPaper } from './paper-layout';
import type { PaperSize } from './paper-size';

/** The address under which the code beside a line opens it. */
export const addressOfLine = (code: string): string => `${location.origin}/c/${code}`;

/** Prints a sheet that is on no page: draws it aside, makes the PDF, and takes the drawing away. */
@Injectable({ providedIn: 'root' })
export class SheetPrinter {
  private readonly application = inject(ApplicationRef);
  private readonly environmentInjector = inject(EnvironmentInjector);

  /** @throws Error where a font or the engraver cannot be loaded */
  async pdf(sheet: SheetOnPaper, size: PaperSize): Promise<Blob> {
    const { SheetPaperComponent } = await import('./sheet-paper.component');
    const aside = document.body.appendChild(document.createElement('div'));
    aside.className = 'off-paper';
    aside.setAttribute('aria-hidden', 'true');
    const hostElement = aside.appendChild(document.createElement('zp-sheet-paper'));
    const paper = createComponent(SheetPaperComponent, { environmentInjector: this.environmentInjector, hostElement });
    try {
      paper.setInput('sheet', sheet);
      paper.setInput('size', size);
      paper.setInput('address', addressOfLine);
      this.application.attachView(paper.hostView);
      return await paper.instance.pdf();
    } finally {
      paper.destroy();
      aside.remove();
    }
  }
}
