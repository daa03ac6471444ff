import { inject, Injectable } from '@angular/core';
import { createStore, del, entries, set, type UseStore } from 'idb-keyval';
import { catchError, firstValueFrom, from, Subject, switchMap, throwError, type Observable } from 'rxjs';
import type { Route } from '@zelpit/contract';
import { ApiFault, ApiService } from '../api/api.service';
import { addressOf, type RequestOf, type ResponseOf } from '../api/call';
import { SessionService } from '../session/session.service';
import { NoticeService } from '../notices/notice.service';
import { capital } from '../words/words';

/** Something new that a person made and the server does not have yet. */
interface KeptMaking {
  readonly person: string;
  readonly key: string;
  /** Its address, with its query. */
  readonly path: string;
  readonly body: unknown;
  /** What is being made: "Pim", "the pasted tunes". Stored under this name by versions before. */
  readonly said: string;
  readonly at: number;
}

/** The server did not take it now; it waits in this browser. */
export class KeptForLater extends ApiFault {}

/** New things on their way to the server. What cannot go now waits in this browser and goes later, once. */
@Injectable({ providedIn: 'root' })
export class OutgoingService {
  private readonly api = inject(ApiService);
  private readonly workOwner = inject(SessionService).workOwner;
  private readonly notices = inject(NoticeService);
  private readonly store: UseStore | undefined = typeof indexedDB === 'undefined' ? undefined : createStore('zelpit-outgoing', 'making');
  /** Says each time that something kept has arrived, so that lists can be fetched again. */
  readonly arrived = new Subject<void>();

  /**
   * Makes something new; it is kept here if the server cannot take it now.
   * @param label what is being made: "Pim", "the pasted tunes"
   * Errors: `KeptForLater` where it waits now; `ApiFault` where the server refused it.
   */
  make<R extends Route>(route: R, request: RequestOf<R>, label: string): Observable<ResponseOf<R>> {
    const key = crypto.randomUUID();
    const person = this.workOwner() ?? '';
    const { body } = request as { readonly body?: unknown };
    return this.api.call(route, request, { key }).pipe(
      catchError((error: unknown) => {
        const canWait = error instanceof ApiFault && (error.isAway || error.status === 401);
        if (!canWait || this.store === undefined) return throwError(() => error);
        return from(set(key, { person, key, path: addressOf(route, request), body, said: label, at: Date.now() } satisfies KeptMaking, this.store)).pipe(
          switchMap(() =>
            throwError(
              () =>
                new KeptForLater(
                  error.status,
                  `The server is not answering. ${capital(label)} is kept in this browser and will be sent as soon as it answers.`,
                ),
            ),
          ),
        );
      }),
    );
  }

  /** Sends what waits, the oldest first. */
  async sendKept(person: string): Promise<'done' | 'away'> {
    if (this.store === undefined) return 'done';
    const all = (await entries<string, KeptMaking>(this.store).catch(() => [])).map(([, kept]) => kept);
    for (const kept of all.filter((each) => each.person === person).sort((one, other) => one.at - other.at)) {
      const outcome = await this.sendOne(kept);
      if (outcome === 'away') return 'away';
      await del(kept.key, this.store);
    }
    return 'done';
  }

  private async sendOne({ path, body, key, said }: KeptMaking): Promise<'done' | 'away'> {
    try {
      await firstValueFrom(this.api.resend(path, body, key));
      this.notices.done(`${capital(said)} has been saved on the server.`);
      this.arrived.next();
    } catch (error) {
      if (!(error instanceof ApiFault) || error.isAway || error.status === 401 || error.status === 429) return 'away';
      this.notices.fault(new ApiFault(error.status, `${capital(said)} could not be saved: ${error.message}`));
    }
    return 'done';
  }
}
