import { inject, Injectable } from '@angular/core';
import { lessonRoutes, type Lesson, type LessonInput } from '@zelpit/contract';
import type { Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';

/** When students come, and what is planned. */
@Injectable({ providedIn: 'root' })
export class LessonsService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);

  /** @param from day as "2026-12-01" */
  between(from: string, to: string): Observable<readonly Lesson[]> {
    return this.api.call(lessonRoutes.lessons, { query: { from, to } });
  }

  get(id: string): Observable<Lesson> {
    return this.api.call(lessonRoutes.lesson, { id });
  }

  add(lesson: LessonInput): Observable<Lesson> {
    return this.outgoing.make(lessonRoutes.addLesson, { body: lesson }, 'the lesson');
  }

  begin(id: string, on: string): Observable<Lesson> {
    return this.api.call(lessonRoutes.beginLesson, { id, body: { on } });
  }

  end(id: string): Observable<Lesson> {
    return this.api.call(lessonRoutes.endLesson, { id, body: {} });
  }

  drop(id: string): Observable<void> {
    return this.api.call(lessonRoutes.dropLesson, { id });
  }

  /** Errors: `ApiFault` 409 where it was changed after it was read. */
  save({ id, on, time, minutes, repeats, until, note, plan, version }: Lesson): Observable<Lesson> {
    return this.api.call(lessonRoutes.saveLesson, { id, body: { on, time, minutes, repeats, until, note, plan, version } });
  }
}

/** A day by this browser's clock, as "2026-12-01". */
export function dayOf(moment: Date): string {
  const two = (part: number): string => String(part).padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}

/** The day so many days later. */
export const dayAfter = (day: string, days: number): string => new Date(Date.parse(`${day}T12:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
