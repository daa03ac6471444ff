import { DatePipe } from '@angular/common';
import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { attemptRatings, madeUpNote, type Attempt, type AttemptRating, type Trial } from '@zelpit/contract';
import { attemptsCsv, logbookText, type LogbookItem, type LogbookOf } from '@zelpit/core/practice';
import { lineTitle } from '@zelpit/core/line';
import { count } from '@zelpit/core/words';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { saveFile } from '../../kernel/files/save-file';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import { AttemptsService } from '../../studio/attempts/attempts.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { TrialsService } from '../../studio/trials/trials.service';
import { LogbookItemComponent } from './logbook-item.component';
import { LogbookMapComponent } from './logbook-map.component';

const ratingTexts: Readonly<Record<AttemptRating, string>> = { clean: 'clean', nearly: 'nearly', 'not-yet': 'not yet', unjudged: 'nobody judged' };
const [shownItems, shownTries, weeksShown] = [8, 12, 26];
const weekMs = 7 * 86_400_000;
const nothing: LogbookOf = { items: [], days: [], ladders: [] };

/** What a student practised: tempos by week, minutes by day, what has gone stale, the last tries. */
@Component({
  selector: 'zp-logbook',
  imports: [SentenceComponent, ChooserComponent, RouterLink, LogbookItemComponent, LogbookMapComponent, DatePipe],
  template: `
    <div class="page logbook-page">
      @if (isStaff()) {
        <zp-sentence place="Students">
          <span>Logbook of </span>
          <zp-chooser purpose="Student" [value]="student()" [word]="alias()" [choices]="studentChoices()" (valueChange)="goTo($event)" />
        </zp-sentence>
      } @else {
        <zp-sentence>
          <a sentenceEnd class="word" routerLink="/mine">My sheets</a>
          <span class="quiet">Logbook of </span><span>{{ alias() }}</span>
        </zp-sentence>
      }
      <section class="band" aria-label="What it says">
        <div class="band-said">
          <p class="band-todo">{{ said().first }}</p>
          <p class="band-else">{{ said().second }}</p>
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-line" [disabled]="attempts().length === 0" (click)="saveCsv()">Save as CSV</button>
          <button type="button" class="btn btn-line" [disabled]="attempts().length === 0" (click)="saveJson()">Save as JSON</button>
        </div>
      </section>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <a class="btn btn-solid" [routerLink]="isStaff() ? '/students' : '/mine'">{{ isStaff() ? 'To the students' : 'To my sheets' }}</a>
        </main>
      } @else {
        <main class="layer page-fill logbook-main">
          @if (isMadeUp()) {
            <p class="second mb-2">Nobody played this: a model of learning made up the log of this example.</p>
          }
          @if (showsTable()) {
            <table class="table logbook-table">
              <caption>
                Every item,
                {{
                  count(tries(), 'try', 'tries')
                }}
              </caption>
              <thead>
                <tr>
                  <th scope="col">item</th>
                  <th scope="col">best clean tempo</th>
                  <th scope="col">clean of all tries</th>
                  <th scope="col">last three weeks</th>
                  <th scope="col">last</th>
                </tr>
              </thead>
              <tbody>
                @for (item of logbook().items; track item.item) {
                  <tr>
                    <th scope="row">{{ item.title }}</th>
                    <td>{{ item.best ?? 'none yet' }}{{ item.isOwnEar ? ', own ear' : '' }}</td>
                    <td>{{ item.clean }} of {{ item.tries }}</td>
                    <td>{{ recentText(item) }}</td>
                    <td>{{ item.lastAt | date: 'd MMM y' }}</td>
                  </tr>
                }
              </tbody>
            </table>
          } @else {
            <section aria-label="Fastest clean tempo by week">
              <h2 class="heading">Fastest clean tempo, by week</h2>
              @for (item of shown(); track item.item) {
                <div class="logbook-row">
                  <span class="logbook-title">{{ item.title }}</span>
                  <span class="logbook-figure">{{ item.weeks.at(0)?.best ?? '–' }}</span>
                  <zp-logbook-item [item]="item" [from]="from()" [to]="now" />
                  <span class="logbook-figure"
                    ><b>{{ item.best ?? '–' }}</b>
                    @if (item.isOwnEar) {
                      <small class="second">own ear</small>
                    }
                  </span>
                </div>
              } @empty {
                <p class="second">Begins with the first line that is practised by its code.</p>
              }
              @if (logbook().items.length > shown().length) {
                <p class="second mb-0">{{ logbook().items.length - shown().length }} more in the table.</p>
              }
            </section>
            <section aria-label="Minutes a day">
              <h2 class="heading">Minutes a day, four weeks</h2>
              <svg class="logbook-days" viewBox="0 0 560 120" role="img" [attr.aria-label]="minutesText()">
                @for (bar of bars(); track bar.day) {
                  <rect [attr.x]="bar.x" [attr.y]="100 - bar.height" width="14" [attr.height]="bar.height" rx="4" fill="currentColor">
                    <title>{{ bar.day | date: 'EEE d MMM' : 'UTC' }}: {{ count(bar.minutes, 'minute') }}</title>
                  </rect>
                }
                <path class="key-wood" d="M0 101H560" />
                <text x="0" y="117" class="bar-number">{{ bars().at(0)?.day | date: 'd MMM' : 'UTC' }}</text>
                <text x="560" y="117" text-anchor="end" class="bar-number">today</text>
              </svg>
              @if (stale().length > 0) {
                <h2 class="heading">Not touched for three weeks</h2>
                <p class="mb-0">{{ stale() }}</p>
              }
            </section>
            <section aria-label="Changes by how often they are clean">
              <h2 class="heading">Changes</h2>
              @if (hasLines()) {
                <zp-logbook-map [instrument]="instrument()" [items]="logbook().items" />
                <p class="second mb-0">Bigger: less often clean in the last three weeks. Outline: older. A dash was never asked.</p>
              } @else {
                <p class="second mb-0">No change was practised as a line yet.</p>
              }
              @if (movements().length > 0) {
                <h2 class="heading">Movements</h2>
                <ul class="plain-list">
                  @for (each of movements(); track each.item) {
                    <li>{{ each.title }}: {{ recentText(each) }}</li>
                  }
                </ul>
              }
            </section>
            <section aria-label="Ladders and ears">
              @if (logbook().ladders.length > 0) {
                <h2 class="heading">The last ladders</h2>
                <ul class="plain-list">
                  @for (each of logbook().ladders; track each.at) {
                    <li>
                      <span class="second">{{ each.at | date: 'd MMM' }}</span> {{ each.title }}, from {{ each.start }}:
                      <b>{{ each.score === null ? 'none clean' : 'clean at ' + each.score }}</b>{{ each.slip === null ? '' : ', slipped at ' + each.slip }}
                    </li>
                  }
                </ul>
              }
              <h2 class="heading">What the ear tells apart</h2>
              <ul class="plain-list">
                @for (each of ears(); track each.title) {
                  <li>
                    {{ each.title }}: a crossing noise of <b>{{ each.weeks.at(-1)?.best }} ms</b
                    >{{ each.weeks.length > 1 ? ', at first ' + each.weeks[0].best + ' ms' : '' }}
                    <zp-logbook-item [item]="each" what="shortest crossing noise that is heard, in ms" [from]="from()" [to]="now" />
                  </li>
                } @empty {
                  <li class="second">No ear test yet.</li>
                }
              </ul>
            </section>
            <section class="logbook-tries" aria-label="The last tries">
              <h2 class="heading">The last tries</h2>
              <ul class="plain-list">
                @for (each of lastTries(); track each.id) {
                  <li>
                    <span class="second">{{ each.at | date: 'EEE d MMM, HH:mm' }}</span> {{ each.title }}, {{ tempoText(each) }}:
                    @if (isStaff()) {
                      <zp-chooser
                        [purpose]="'How ' + each.title + ' went on ' + (each.at | date: 'EEE d MMM, HH:mm:ss')"
                        [value]="each.correction?.rating ?? each.rating"
                        [choices]="ratingChoices"
                        (valueChange)="correct(each, $event)"
                      />
                    } @else {
                      <b>{{ ratingTexts[each.correction?.rating ?? each.rating] }}</b>
                    }
                    <span class="second ms-1">{{ whoText(each) }}</span>
                  </li>
                }
              </ul>
            </section>
          }
        </main>
        <section class="strip" aria-label="What is shown">
          <button type="button" class="word" [attr.aria-pressed]="showsTable()" (click)="showsTable.set(!showsTable())">
            {{ showsTable() ? 'Show the ribbons' : 'Show it as a table' }} <kbd>T</kbd>
          </button>
          @if (isStaff()) {
            <a class="word" [routerLink]="['/sheets']">Sheets</a>
          }
        </section>
      }
    </div>
  `,
})
export class LogbookPage implements OnDestroy {
  private readonly service = inject(AttemptsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly trials = inject(TrialsService);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  private readonly session = inject(SessionService);
  protected readonly state = inject(StudioState);
  /** Whose it is; on a student's own tablet nobody else's. */
  readonly id = input<string>();
  protected readonly isStaff = computed(() => !this.session.isFamily());
  protected readonly student = computed(() => this.id() ?? (this.isStaff() ? this.state.student()?.id : this.session.person()?.id) ?? '');
  protected readonly ratingTexts = ratingTexts;
  protected readonly count = count;
  protected readonly now = Date.now();
  protected readonly attempts = signal<readonly Attempt[]>([]);
  protected readonly fault = signal('');
  protected readonly showsTable = signal(false);
  protected readonly ratingChoices: readonly Choice<AttemptRating>[] = attemptRatings.map((value) => ({ value, label: ratingTexts[value] }));

  protected readonly alias = computed(() => {
    if (!this.isStaff()) return this.session.person()?.name ?? '';
    return this.state.students().find(({ id }) => id === this.student())?.alias ?? 'a student';
  });
  protected readonly studentChoices = computed((): readonly Choice<string>[] => this.state.students().map(({ id, alias }) => ({ value: id, label: alias })));
  protected readonly isMadeUp = computed(() => this.attempts().some(({ note }) => note === madeUpNote));
  protected readonly logbook = signal<LogbookOf>(nothing);
  private readonly earTrials = signal<readonly Trial[]>([]);
  protected readonly tries = computed(() => this.logbook().items.reduce((sum, item) => sum + item.tries, 0));
  protected readonly instrument = computed(() => this.shelf.instrumentFor(this.student(), this.attempts().at(0)?.model));
  protected readonly hasLines = computed(() => this.logbook().items.some(({ kind }) => kind === 'line'));
  protected readonly movements = computed(() => this.logbook().items.filter(({ kind }) => kind === 'movement'));
  /** The shortest crossing noise that is heard, by change, test after test. */
  protected readonly ears = computed(() => {
    const byChange = new Map<string, { readonly week: number; readonly best: number }[]>();
    for (const { result, model, at } of this.earTrials()) {
      if (result.kind !== 'ear') continue;
      const title = lineTitle(this.shelf.instrumentFor(this.student(), model), { home: result.from, other: result.to });
      // The newest come first.
      byChange.set(title, [{ week: Date.parse(at), best: Math.round(result.thresholdMs) }, ...(byChange.get(title) ?? [])]);
    }
    return [...byChange].map(([title, weeks]) => ({ title, weeks }));
  });
  protected readonly said = computed(() => logbookText(this.logbook(), this.alias()));
  protected readonly shown = computed(() => this.logbook().items.slice(0, shownItems));
  protected readonly from = computed(() =>
    Math.max(this.now - weeksShown * weekMs, Math.min(this.now, ...this.shown().flatMap(({ weeks }) => weeks.map(({ week }) => week)))),
  );
  protected readonly stale = computed(() =>
    this.logbook()
      .items.filter(({ isStale }) => isStale)
      .map(({ title }) => title)
      .join(', '),
  );
  protected readonly lastTries = this.attempts;
  protected readonly bars = computed(() => {
    const { days } = this.logbook();
    const most = Math.max(10, ...days.map(({ minutes }) => minutes));
    return days.map(({ day, minutes }, index) => ({ day, minutes, x: index * 20, height: (minutes / most) * 96 }));
  });
  protected readonly minutesText = computed(
    () =>
      `Minutes of the last days: ${this.logbook()
        .days.slice(-7)
        .map(({ minutes }) => minutes)
        .join(', ')}`,
  );

  private readonly release = inject(KeyService).use('logbook', { table: () => this.showsTable.update((on) => !on) });

  constructor() {
    effect(() => {
      const id = this.student();
      if (id !== '') untracked(() => this.load(id));
    });
    if (this.isStaff()) this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected goTo(id: string): void {
    this.state.choose(id);
    void this.router.navigate(['/students', id, 'logbook'], { replaceUrl: true });
  }

  protected tempoText({ tempo, ladder }: Attempt): string {
    if (ladder !== null) return `tempo ladder to ${ladder.rungs.at(-1)?.tempo ?? ladder.start}`;
    return tempo === null ? 'own pace' : String(tempo);
  }

  protected whoText({ by, rating, correction }: Attempt): string {
    if (correction !== null) return `(${correction.who})`;
    return by === 'student' && rating !== 'unjudged' ? '(own ear)' : '';
  }

  /** The log stays as it was; the correction stands beside it. */
  protected correct(attempt: Attempt, rating: AttemptRating): void {
    this.service.correct(attempt.id, rating).subscribe({
      next: (corrected) => {
        this.attempts.update((all) => all.map((each) => (each.id === corrected.id ? corrected : each)));
        this.loadLogbook(this.student());
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected recentText({ recent: { judged, clean } }: Pick<LogbookItem, 'recent'>): string {
    return judged === 0 ? 'not in the last three weeks' : `${clean} of ${judged} clean in the last three weeks`;
  }

  protected saveCsv(): void {
    this.save('csv', (all) => new Blob([attemptsCsv(all)], { type: 'text/csv' }));
  }

  protected saveJson(): void {
    this.save('json', (all) => new Blob([JSON.stringify(all, null, 2)], { type: 'application/json' }));
  }

  /** A file has every try, not only those on the page. */
  private save(ending: string, made: (all: readonly Attempt[]) => Blob): void {
    this.service.of(this.student()).subscribe({
      next: (all) => saveFile(`Logbook of ${this.alias()}.${ending}`, made(all)),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private loadLogbook(id: string): void {
    this.service.logbook(id).subscribe({
      next: (logbook) => {
        this.logbook.set(logbook);
        this.fault.set('');
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  private load(id: string): void {
    this.attempts.set([]);
    this.logbook.set(nothing);
    this.loadLogbook(id);
    this.service.last(id, shownTries).subscribe({ next: (attempts) => this.attempts.set(attempts), error: (error: unknown) => this.notices.fault(error) });
    this.trials.earOf(id).subscribe({ next: (trials) => this.earTrials.set(trials), error: () => this.earTrials.set([]) });
  }
}
