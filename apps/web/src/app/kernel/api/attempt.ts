import { signal } from '@angular/core';
import type { Observable } from 'rxjs';
import { messageOf } from './api.service';

/** Something that a form asks of the server: whether it is underway, and what went wrong, as a sentence. */
export class Attempt {
  readonly fault = signal('');
  readonly isBusy = signal(false);

  run<T>(response: Observable<T>, done: (answer: T) => void, failed?: (error: unknown) => void): void {
    this.isBusy.set(true);
    this.fault.set('');
    response.subscribe({
      next: (answer) => {
        this.isBusy.set(false);
        done(answer);
      },
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.fault.set(messageOf(error));
        failed?.(error);
      },
    });
  }
}
