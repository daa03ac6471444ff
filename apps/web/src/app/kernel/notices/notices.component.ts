import { Component, inject } from '@angular/core';
import { NoticeService, type Notice } from './notice.service';

@Component({
  selector: 'zp-notices',
  template: `
    <div class="notices" role="status" aria-live="polite">
      @for (notice of service.notices(); track notice.id) {
        <div class="notice" [class.notice-fault]="notice.kind === 'fault'">
          <span>{{ notice.message }}</span>
          @if (notice.undo) {
            <button type="button" class="word" (click)="undo(notice)">Undo</button>
          }
          <button type="button" class="word" (click)="service.dismiss(notice)" aria-label="Close this message">Close</button>
        </div>
      }
    </div>
  `,
})
export class NoticesComponent {
  protected readonly service = inject(NoticeService);

  protected undo(notice: Notice): void {
    notice.undo?.();
    this.service.dismiss(notice);
  }
}
