import { Injectable, signal } from '@angular/core';
import { messageOf } from '../api/api.service';

export interface Notice {
  readonly id: number;
  readonly message: string;
  readonly kind: 'done' | 'fault';
  readonly undo?: () => void;
}

const staysMs = 9000;

/** Short words at the edge of the page: what was done, with its undo, and what went wrong. */
@Injectable({ providedIn: 'root' })
export class NoticeService {
  readonly notices = signal<readonly Notice[]>([]);
  private nextId = 1;

  done(message: string, undo?: () => void): void {
    this.show({ id: this.nextId++, message, kind: 'done', undo });
  }

  fault(error: unknown): void {
    const message = messageOf(error);
    if (!this.notices().some((notice) => notice.message === message)) this.show({ id: this.nextId++, message, kind: 'fault' });
  }

  dismiss(notice: Notice): void {
    this.notices.update((notices) => notices.filter((each) => each.id !== notice.id));
  }

  private show(notice: Notice): void {
    this.notices.update((notices) => [...notices.slice(-2), notice]);
    if (notice.kind === 'done') setTimeout(() => this.dismiss(notice), staysMs);
  }
}
