import { inject, Injectable } from '@angular/core';
import { jobRoutes, type Job, type JobKind, type LongTakeInput } from '@zelpit/contract';
import { map, repeat, switchMap, takeWhile, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { addressOf } from '../../kernel/api/call';

/** How often it is asked how far a job is. */
const askMs = 600;

export const isEnded = ({ endedAt }: Job): boolean => endedAt !== null;

/** Long work that the server does by itself, also when this window is closed. */
@Injectable({ providedIn: 'root' })
export class JobsService {
  private readonly api = inject(ApiService);

  /** One's own of one kind, the latest first, without what they gave. */
  list<K extends JobKind>(kind: K): Observable<Extract<Job, { kind: K }>[]> {
    return this.api.call(jobRoutes.jobs, {}).pipe(map(({ items }) => items.filter((job): job is Extract<Job, { kind: K }> => job.kind === kind)));
  }

  /** A job as it is now and then as it goes on, to its end. */
  follow(id: string): Observable<Job> {
    return this.api.call(jobRoutes.job, { id }).pipe(
      repeat({ delay: askMs }),
      takeWhile((job) => !isEnded(job), true),
    );
  }

  /** First the sound, then what is to be listened for in it: a sound that nothing is listened for in is cleared by the server. */
  listen(sound: Blob, take: Omit<LongTakeInput, 'soundId'>): Observable<Job> {
    const query = take.studentId === null ? {} : { student: take.studentId };
    return this.api
      .call(jobRoutes.addLongTakeSound, { query, body: sound as never })
      .pipe(switchMap(({ id }) => this.api.call(jobRoutes.listenLater, { body: { ...take, soundId: id } })));
  }

  stop(id: string): Observable<Job> {
    return this.api.call(jobRoutes.stopJob, { id });
  }

  forget(id: string): Observable<undefined> {
    return this.api.call(jobRoutes.forgetJob, { id });
  }

  /** Where a browser fetches the file that a job wrote; it never stands in the page whole. */
  fileAddress(id: string): string {
    return addressOf(jobRoutes.jobFile, { id });
  }
}
