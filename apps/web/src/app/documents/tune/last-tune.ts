import { inject, Injectable } from '@angular/core';
import { SessionService } from '../../kernel/session/session.service';

const storageKey = 'zelpit.tune';

/** The tune that was open last, on whatever device; in this browser where the server does not know. */
@Injectable({ providedIn: 'root' })
export class LastTune {
  private readonly session = inject(SessionService);

  /** Its id. */
  read(): string | null {
    return this.session.inHand()?.tune ?? localStorage.getItem(storageKey);
  }

  keep(id: string): void {
    localStorage.setItem(storageKey, id);
    this.session.keepInHand({ tune: id });
  }
}
