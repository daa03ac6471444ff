import { inject, Injectable, signal } from '@angular/core';
import { trialRoutes, type Trial, type TrialInput } from '@zelpit/contract';
import { map, tap, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';

/** What was played on keys, heard in ear tests and found in simulated playing. */
@Injectable({ providedIn: 'root' })
export class TrialsService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);

  /** Those that were fetched or made here, newest first. */
  readonly known = signal<readonly Trial[]>([]);

  /** Every ear test. */
  loadEar(): Observable<Trial[]> {
    return this.api.all(trialRoutes.trials, { query: { kind: 'ear' } }).pipe(tap((trials) => this.learn(trials)));
  }

  /** The ear tests of one student, newest first. */
  earOf(student: string): Observable<Trial[]> {
    return this.api.all(trialRoutes.trials, { query: { student, kind: 'ear' } });
  }

  /** What was foretold of a student's takes, newest first; without one, of whoever may be seen. */
  foretoldOf(student: string | undefined): Observable<Trial[]> {
    return this.api.all(trialRoutes.trials, { query: { student, kind: 'foretold' } });
  }

  /** The timing that was taken last for a student; without one, for whoever may be seen. Undefined where there is none. */
  loadTiming(student: string | undefined): Observable<Trial | undefined> {
    return this.api.call(trialRoutes.trials, { query: { student, kind: 'fingers', taken: 'true', limit: 1 } }).pipe(
      tap(({ items }) => this.learn(items)),
      map(({ items: [last] }) => last),
    );
  }

  /** A result that cannot be sent now is kept in the browser and sent later. */
  add(trial: TrialInput, text: string): Observable<Trial> {
    return this.outgoing.make(trialRoutes.addTrial, { body: trial }, text).pipe(tap((kept) => this.known.update((known) => [kept, ...known])));
  }

  private learn(trials: readonly Trial[]): void {
    this.known.update((known) =>
      [...new Map([...known, ...trials].map((trial) => [trial.id, trial])).values()].sort((one, other) => other.at.localeCompare(one.at)),
    );
  }

  drop({ id }: Trial): Observable<void> {
    return this.api.call(trialRoutes.dropTrial, { id }).pipe(tap(() => this.known.update((known) => known.filter((each) => each.id !== id))));
  }
}
