import { DatePipe } from '@angular/common';
import { Component, computed, effect, inject, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { Lesson } from '@zelpit/contract';
import { logbookText, type LogbookOf } from '@zelpit/core/practice';
import { count } from '@zelpit/core/words';
import { ReviewsService } from '../../documents/sheet/reviews.service';
import { messageOf } from '../../kernel/api/api.service';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { AttemptsService } from '../../studio/attempts/attempts.service';
import { dayAfter, dayOf, LessonsService } from '../../studio/lessons/lessons.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { LessonFormComponent } from './lesson-form.component';

/** So far ahead is looked for the next lesson where there is none today. */
const daysAhead = 30;
const daysShown = 7;
/** So far back the log is read. */
const logDays = 42;

interface Column {
  readonly lesson: Lesson;
  readonly instrument: string;
  readonly state: string;
  readonly logbook: LogbookOf | undefined;
}

/** The day's lessons in order, who is next and what they did since, one step to begin. */
@Component({
  selector: 'zp-today',
  imports: [SentenceComponent, LessonFormComponent, RouterLink, DatePipe],
  template: `
    <div class="page today-page">
      <zp-sentence place="Today">
        <span>{{ isToday() ? 'Today' : 'Lessons' }}, </span>
        <span class="today-day"
          ><span aria-hidden="true">{{ day() | date: 'EEEE d MMMM' }}</span
          ><input type="date" aria-label="Day" [value]="day()" (change)="goTo($any($event.target).value)"
        /></span>
      </zp-sentence>
      <section class="band" aria-label="Who is next">
        <div class="band-said">
          <p class="band-todo">{{ said().first }}</p>
          <p class="band-else">{{ said().second }}</p>
        </div>
        <div class="band-actions">
          @if (chosen(); as column) {
            <button type="button" class="btn btn-solid" [disabled]="isBusy()" (click)="begin()">{{ mainText(column.lesson) }} <kbd>Enter</kbd></button>
          }
          <button type="button" class="btn btn-line" [attr.aria-expanded]="isSetting()" (click)="isSetting.set(!isSetting())">Set a lesson <kbd>N</kbd></button>
        </div>
      </section>
      @if (isSetting()) {
        <zp-lesson-form [day]="day()" (made)="onMade($event)" (closed)="isSetting.set(false)" />
      }
      <main class="layer page-fill today-main">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <button type="button" class="btn btn-solid" (click)="load()">Try again</button>
        } @else if (lessons() === undefined) {
          <p class="second" role="status">Looking for the lessons …</p>
        } @else {
          <ul class="today-lane" aria-label="Lessons of the day">
            @for (column of columns(); track column.lesson.id + column.lesson.on; let index = $index) {
              <li [class.is-chosen]="index === at()">
                <button type="button" class="today-lesson" [attr.aria-pressed]="index === at()" (click)="at.set(index)">
                  <b>{{ column.lesson.time }}</b> <span class="today-name">{{ column.lesson.student }}</span>
                  <small>{{ column.lesson.minutes }} minutes{{ column.lesson.repeats === 'weekly' || column.lesson.weeklyId ? ', every week' : '' }}</small>
                </button>
                <p class="second mb-1">{{ column.instrument || 'no instrument yet' }}{{ column.state ? ' · ' + column.state : '' }}</p>
                @if (column.logbook; as log) {
                  <svg class="today-days" viewBox="0 0 154 40" role="img" [attr.aria-label]="minutesText(log)">
                    @for (bar of barsOf(log); track bar.day) {
                      <rect [attr.x]="bar.x" [attr.y]="38 - bar.height" width="14" [attr.height]="bar.height" rx="4" fill="currentColor" />
                    }
                    <path class="key-wood" d="M0 39H154" />
                  </svg>
                  @for (item of log.items.slice(0, 3); track item.item) {
                    <p class="mb-0 today-item">
                      {{ item.title }} <b>{{ item.best ?? '–' }}</b>
                    </p>
                  }
                  <a class="word" [routerLink]="['/students', column.lesson.studentId, 'logbook']" [attr.aria-label]="'Logbook of ' + column.lesson.student"
                    >Logbook</a
                  >
                }
                <button
                  type="button"
                  class="word quiet-action"
                  [attr.aria-label]="'Take out the lesson of ' + column.lesson.student + ' at ' + column.lesson.time"
                  (click)="drop(column.lesson)"
                >
                  Take out
                </button>
              </li>
            } @empty {
              <li class="empty">
                <p>{{ nextText() || 'No lessons here yet.' }}</p>
                @if (state.students().length === 0) {
                  <a class="btn btn-solid" routerLink="/students">Add a student</a>
                } @else {
                  <button type="button" class="btn btn-solid" (click)="isSetting.set(true)">Set a lesson</button>
                }
              </li>
            }
          </ul>
        }
      </main>
      <section class="strip" aria-label="Other days">
        <button type="button" class="btn btn-line btn-low" (click)="goTo(dayBefore())">Day before</button>
        @if (!isToday()) {
          <button type="button" class="btn btn-line btn-low" (click)="goTo(today)">Today</button>
        }
        <button type="button" class="btn btn-line btn-low" (click)="goTo(dayNext())">Next day</button>
      </section>
    </div>
  `,
})
export class TodayPage implements OnDestroy {
  private readonly service = inject(LessonsService);
  private readonly attempts = inject(AttemptsService);
  private readonly reviews = inject(ReviewsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  protected readonly state = inject(StudioState);
  protected readonly today = dayOf(new Date());
  protected readonly day = signal(this.today);
  protected readonly lessons = signal<readonly Lesson[] | undefined>(undefined);
  private readonly next = signal<Lesson | undefined>(undefined);
  private readonly logbooks = signal<ReadonlyMap<string, LogbookOf>>(new Map());
  protected readonly at = signal(0);
  protected readonly fault = signal('');
  protected readonly isSetting = signal(false);
  protected readonly isBusy = signal(false);

  protected readonly isToday = computed(() => this.day() === this.today);
  protected readonly dayBefore = computed(() => dayAfter(this.day(), -1));
  protected readonly dayNext = computed(() => dayAfter(this.day(), 1));
  protected readonly columns = computed((): readonly Column[] =>
    (this.lessons() ?? []).map((lesson) => ({
      lesson,
      instrument: this.shelf.held().find(({ owner }) => owner.kind === 'student' && owner.id === lesson.studentId)?.name ?? '',
      state: stateOf(lesson),
      logbook: this.logbooks().get(lesson.studentId),
    })),
  );
  protected readonly chosen = computed(() => this.columns().at(this.at()));
  protected readonly nextText = computed(() => {
    const next = this.next();
    return next === undefined ? '' : `The next is ${next.student}, ${dayName(next.on)} ${next.time}.`;
  });
  protected readonly said = computed(() => {
    const column = this.chosen();
    if (this.lessons() === undefined) return { first: 'Looking for the lessons …', second: '' };
    if (column === undefined) return { first: this.isToday() ? 'No lessons today.' : 'No lessons on this day.', second: this.nextText() };
    const { lesson, logbook } = column;
    if (this.columns().every((each) => each.lesson.review?.sentAt != null)) return { first: 'All reviews are sent.', second: this.nextText() };
    const first = lesson.endedAt === null ? `${lesson.student} at ${lesson.time}.` : `${lesson.student} was here at ${lesson.time}.`;
    if (logbook === undefined) return { first, second: '' };
    const said = logbookText(logbook, lesson.student);
    return { first, second: logbook.items.length === 0 ? 'Nothing is logged yet: ask how it went.' : `${said.second} ${said.first}` };
  });

  private readonly release = inject(KeyService).use('today', {
    main: () => this.begin(),
    next: () => this.step(1),
    before: () => this.step(-1),
    set: () => this.isSetting.update((on) => !on),
  });

  constructor() {
    effect(() => {
      this.day();
      untracked(() => this.load());
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected goTo(day: string): void {
    if (/^\d{4}-\d{2}-\d{2}$/.test(day)) this.day.set(day);
  }

  protected onMade(lesson: Lesson): void {
    this.isSetting.set(false);
    this.notices.done(`${lesson.student} comes on ${dayName(lesson.on)} at ${lesson.time}${lesson.repeats === 'weekly' ? ', every week' : ''}.`);
    if (lesson.on === this.day()) this.load();
    else this.day.set(lesson.on);
  }

  /** The lesson begins, or goes on where it was left. */
  protected begin(): void {
    const lesson = this.chosen()?.lesson;
    if (lesson === undefined || this.isBusy()) return;
    this.isBusy.set(true);
    this.state.choose(lesson.studentId);
    if (lesson.endedAt !== null) {
      this.openReview(lesson);
      return;
    }
    this.service.begin(lesson.id, lesson.on).subscribe({
      next: ({ id }) => void this.router.navigate(['/lessons', id]),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.notices.fault(error);
      },
    });
  }

  /** One step: begin, go on, write the review, or look at it. */
  protected mainText({ begunAt, endedAt, review, student }: Lesson): string {
    if (endedAt === null) return `${begunAt === null ? 'Begin' : 'Go on'} with ${student}`;
    if (review === null) return `Write ${student}’s review`;
    return `${review.sentAt === null ? 'Go on with' : 'Open'} ${student}’s review`;
  }

  private openReview({ id, studentId, review }: Lesson): void {
    if (review !== null) {
      void this.router.navigate(['/reviews', review.id]);
      return;
    }
    this.reviews.begin(studentId, id, this.today).subscribe({
      next: (begun) => void this.router.navigate(['/reviews', begun.id]),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.notices.fault(error);
      },
    });
  }

  protected drop(lesson: Lesson): void {
    this.service.drop(lesson.id).subscribe({
      next: () => {
        this.load();
        const { studentId, on, time, minutes, repeats, until, note } = lesson;
        this.notices.done(`The lesson of ${lesson.student} was taken out${lesson.repeats === 'weekly' ? ', with all its weeks' : ''}.`, () =>
          this.service
            .add({ studentId, on, time, minutes, repeats, until, note })
            .subscribe({ next: () => this.load(), error: (error: unknown) => this.notices.fault(error) }),
        );
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected barsOf({ days }: LogbookOf): readonly { readonly day: number; readonly x: number; readonly height: number }[] {
    const most = Math.max(10, ...days.map(({ minutes }) => minutes));
    return days.map(({ day, minutes }, index) => ({ day, x: index * 22, height: (minutes / most) * 36 }));
  }

  protected minutesText({ days }: LogbookOf): string {
    return `Minutes of the last ${count(days.length, 'day')}: ${days.map(({ minutes }) => minutes).join(', ')}`;
  }

  protected load(): void {
    const day = this.day();
    this.service.between(day, day).subscribe({
      next: (lessons) => {
        this.lessons.set(lessons);
        this.fault.set('');
        const open = lessons.findIndex(({ endedAt, review }) => endedAt === null || (review?.sentAt ?? null) === null);
        this.at.set(Math.max(0, open));
        for (const id of new Set(lessons.map(({ studentId }) => studentId))) this.loadLog(id);
        if (lessons.length === 0) this.lookAhead(day);
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  private lookAhead(day: string): void {
    this.service
      .between(dayAfter(day, 1), dayAfter(day, daysAhead))
      .subscribe({ next: ([next]) => this.next.set(next), error: () => this.next.set(undefined) });
  }

  private loadLog(student: string): void {
    const since = new Date(Date.now() - logDays * 86_400_000).toISOString();
    this.attempts.logbook(student, { days: daysShown, since }).subscribe({
      next: (logbook) => this.logbooks.update((all) => new Map([...all, [student, logbook]])),
      // The plan is here without it.
      error: () => undefined,
    });
  }

  private step(by: number): void {
    this.at.update((at) => Math.max(0, Math.min(this.columns().length - 1, at + by)));
  }
}

function stateOf({ begunAt, endedAt, review }: Lesson): string {
  if (review !== null) return review.sentAt === null ? 'review not sent' : 'review sent';
  if (endedAt !== null) return 'held, no review yet';
  return begunAt === null ? '' : 'begun';
}

const dayName = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));
