import { Injectable, signal } from '@angular/core';

/** The token that goes back with every write. */
@Injectable({ providedIn: 'root' })
export class SessionToken {
  value = '';
  /** Grows each time the server says that nobody is signed in. */
  readonly ended = signal(0);
}
