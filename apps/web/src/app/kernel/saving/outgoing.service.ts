import { inject, Injectable } from '@angular/core';
import { createStore, del, entries, set, type UseStore } from 'idb-keyval';
import { catchError, firstValueFrom, from, Subject, switchMap, throwError, type Observable } from 'rxjs';
import * as z from 'zod';
import { ApiFault, ApiService } from '../api/api.service';
import { SessionService } from '../session/session.service';
import { NoticeService } from '../notices/notice.service';
import { capital } from '../words/words';

/** Something new that a person made: it is kept here if the server cannot take it now. */
export interface Making<T> {
  readonly path: string;
  readonly body: unknown;
  readonly schema: z.ZodType<T>;
  /** What is being made: "Pim", "the pasted tunes". */
  readonly said: string;
}

interface KeptMaking {
  readonly person: string;
  readonly key: string;
  readonly path: string;
  readonly body: unknown;
  readonly said: string;
  readonly at: number;
}

/** The server did not take it now; it waits in this browser. */
export class KeptForLater extends ApiFault {}

/** New things on their way to the server. What cannot go now waits in this browser and goes later, once. */
@Injectable({ providedIn: 'root' })
export class OutgoingService {
  private readonly api = inject(ApiService);
  private readonly person = inject(SessionService).person;
  private readonly notices = inject(NoticeService);
  private readonly store: UseStore | undefined = typeof indexedDB === 'undefined' ? undefined : createStore('zelpit-outgoing', 'making');
  /** Says each time that something kept has arrived, so that lists can be fetched again. */
  readonly arrived = new Subject<void>();

  /** Errors: `KeptForLater` where it waits now; `ApiFault` where the server refused it. */
  make<T>({ path, body, schema, said }: Making<T>): Observable<T> {
    const key = crypto.randomUUID();
    const person = this.person()?.id ?? '';
    return this.post(path, body, schema, key).pipe(
      catchError((error: unknown) => {
        const canWait = error instanceof ApiFault && (error.isAway || error.status === 401);
        if (!canWait || this.store === undefined) return throwError(() => error);
        return from(set(key, { person, key, path, body, said, at: Date.now() } satisfies KeptMaking, this.store)).pipe(
          switchMap(() =>
            throwError(
              () => new KeptForLater(error.status, `The server does not answer. ${capital(said)} waits in this browser and goes to it as soon as it does.`),
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
      await firstValueFrom(this.post(path, body, z.unknown(), key));
      this.notices.done(`${capital(said)} has reached the server.`);
      this.arrived.next();
    } catch (error) {
      if (!(error instanceof ApiFault) || error.isAway || error.status === 401 || error.status === 429) return 'away';
      this.notices.fault(new ApiFault(error.status, `${capital(said)} could not be saved: ${error.said}`));
    }
    return 'done';
  }

  private post<T>(path: string, body: unknown, schema: z.ZodType<T>, key: string): Observable<T> {
    return body instanceof Blob ? this.api.upload(path, body, schema, { key }) : this.api.post(path, body, schema, { key });
  }
}
