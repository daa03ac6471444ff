import { inject, Injectable, signal } from '@angular/core';
import { trialRoutes, type Trial, type TrialInput } from '@zelpit/contract';
import { tap, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';

/** What was played on keys, heard in blind tests and found in simulated playing. */
@Injectable({ providedIn: 'root' })
export class TrialsService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);

  /** Newest first; empty until they were fetched. */
  readonly known = signal<readonly Trial[]>([]);

  load(): Observable<Trial[]> {
    return this.api.all(trialRoutes.trials, {}).pipe(tap((trials) => this.known.set(trials)));
  }

  /** A result that cannot be sent now is kept in the browser and sent later. */
  add(trial: TrialInput, text: string): Observable<Trial> {
    return this.outgoing.make(trialRoutes.addTrial, { body: trial }, text).pipe(tap((kept) => this.known.update((known) => [kept, ...known])));
  }

  drop({ id }: Trial): Observable<void> {
    return this.api.call(trialRoutes.dropTrial, { id }).pipe(tap(() => this.known.update((known) => known.filter((each) => each.id !== id))));
  }
}
