import { Injectable } from '@angular/core';

/** The token that goes back with every write. */
@Injectable({ providedIn: 'root' })
export class SessionToken {
  value = '';
}
