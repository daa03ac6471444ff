import { Component, computed, effect, type ElementRef, inject, input, signal, untracked, viewChild, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { hasMusic, type Attempt, type AttemptInput, type AttemptRating, type Lesson, type PlanItem, type SheetDetail } from '@zelpit/contract';
import { adviceFor, changeBetween, troubleOf } from '@zelpit/core/change';
import { describedLine } from '@zelpit/core/line';
import { messageOf } from '../../kernel/api/api.service';
import { KeyService } from '../../kernel/keys/key.service';
import { pedal } from '../../kernel/keys/pedal';
import { NoticeService } from '../../kernel/notices/notice.service';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { clockText } from '../../kernel/words/words';
import { LinePlayer } from '../../music/lines/line-player.service';
import { LineViewComponent } from '../../music/lines/line-view.component';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { Transport } from '../../music/sound/transport.service';
import { SpokenWordListComponent } from '../../music/spoken-words/spoken-word-list.component';
import { SpokenWords } from '../../music/spoken-words/spoken-words';
import { AttemptsService } from '../../studio/attempts/attempts.service';
import { dayOf, LessonsService } from '../../studio/lessons/lessons.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ReviewsService } from '../../documents/sheet/reviews.service';
import { SheetsService } from '../../documents/sheet/sheets.service';

interface Judgement {
  readonly key: string;
  readonly text: string;
  readonly rating: AttemptRating;
  /** What was heard, kept as a remark. */
  readonly note: string;
}

/** Tries that are counted for one item; they are never forced. */
const wantedTries = 8;
const tempoStep = 4;

/** Two people, hands on the instruments: one thing very large, a key for how it went, a word where one is wanted. What is judged stands in the log at once. */
@Component({
  selector: 'zp-lesson',
  imports: [SentenceComponent, RouterLink, LineViewComponent, SpokenWordListComponent],
  providers: [SpokenWords],
  template: `
    <div class="page lesson-page">
      <zp-sentence class="one-line">
        @if (lesson()) {
          <button sentenceEnd type="button" class="word" (click)="end()">End and review</button>
        }
        <span>Lesson with </span>
        @if (lesson(); as held) {
          <a class="chooser-word" [routerLink]="['/students', held.studentId, 'logbook']">{{ held.student }}</a>
          <span class="quiet">, {{ minutesText() }}</span>
        } @else {
          <span class="quiet">a student</span>
        }
      </zp-sentence>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/today">To the lessons</a>
        </main>
      } @else if (lesson(); as held) {
        <main class="lesson-main">
          <button type="button" class="word lesson-fold" [attr.aria-expanded]="isPlanOpen()" (click)="isPlanOpen.set(!isPlanOpen())">
            {{ at() + 1 }} of {{ held.plan.length }} in the plan
          </button>
          <ol class="lesson-plan" [class.is-open]="isPlanOpen()" aria-label="Plan">
            @for (item of held.plan; track $index) {
              <li [class.is-now]="$index === at()" [class.is-done]="triesOf(item).length > 0 && $index !== at()">
                <button type="button" [attr.aria-current]="$index === at() || null" (click)="at.set($index)">{{ item.title }}</button>
              </li>
            }
            <li>
              <form (submit)="$event.preventDefault(); addItem(field.value); field.value = ''">
                <label class="visually-hidden" for="lesson-add">Something that was not planned</label>
                <input #field id="lesson-add" class="form-control" maxlength="200" autocomplete="off" placeholder="Something else" />
              </form>
            </li>
          </ol>
          <section class="lesson-item" aria-label="Now">
            @if (item(); as now) {
              <h2>{{ now.title }}</h2>
              <p class="lesson-tempo">
                @if (now.tempo !== null) {
                  <button type="button" class="square" aria-label="Slower" (click)="changeTempo(-1)">-</button>
                  <span
                    ><b>{{ tempo() }}</b> beats a minute</span
                  >
                  <button type="button" class="square" aria-label="Faster" (click)="changeTempo(1)">+</button>
                } @else {
                  <span>own pace</span>
                }
              </p>
              @if (line(); as music) {
                <zp-line-view [instrument]="instrument()" [line]="music" />
              }
              <p class="lesson-tries" role="status">
                @for (each of tries(); track each.id) {
                  <span [class]="'try is-' + ratingOf(each)" [title]="textOf(each)">{{ signOf(each) }}</span>
                }
                <span>{{ countText() }}</span>
              </p>
              <zp-spoken-word-list [title]="now.title" />
            } @else {
              <p class="second">Nothing is planned. Write on the left what you begin with.</p>
            }
          </section>
        </main>
        <section class="band" aria-label="What now">
          <div class="band-said">
            @if (words.about(); as title) {
              <p class="band-todo" role="status">Speaking, {{ clockText(words.seconds()) }}: {{ title }}</p>
              <p class="band-else">{{ words.consentText() }}</p>
            } @else if (isWriting()) {
              <form (submit)="$event.preventDefault(); keepWord(word.value)">
                <label class="visually-hidden" for="lesson-word">A word about it</label>
                <input #word id="lesson-word" class="form-control lesson-word" maxlength="300" autocomplete="off" placeholder="A word, Enter keeps it" />
              </form>
            } @else {
              <p class="band-todo">{{ todo().first }}</p>
              <p class="band-else">{{ todo().second }}</p>
            }
          </div>
          @if (words.about() !== undefined) {
            <div class="band-actions">
              <button type="button" class="btn btn-solid" (click)="say()">Keep it <kbd>V</kbd></button>
              <button type="button" class="btn btn-line" (click)="words.discard()">Throw it away <kbd>Esc</kbd></button>
            </div>
          }
        </section>
        <section class="lesson-judge" aria-label="How did it go?">
          @for (each of judgements(); track each.key) {
            <button type="button" [disabled]="!item()" (click)="judge(each)">
              {{ each.text }} <kbd>{{ each.key }}</kbd>
            </button>
          }
        </section>
        <section class="strip" aria-label="Sound">
          <button type="button" class="btn btn-solid" [disabled]="!line()" (click)="toggle()">
            {{ transport.playing() ? 'Stop' : 'Play' }} <kbd>Space</kbd>
          </button>
          <button type="button" class="btn btn-line" (click)="step(-1)">Before <kbd>Page Up</kbd></button>
          <button type="button" class="btn btn-line" (click)="step(1)">Next <kbd>Page Down</kbd></button>
          <span class="strip-words">
            <button type="button" class="word" (click)="write()">Write it <kbd>W</kbd></button>
            <button type="button" class="word" [disabled]="!item() || words.about() !== undefined" (click)="say()">Say it <kbd>V</kbd></button>
            <button type="button" class="word" [disabled]="tries().length === 0" (click)="takeBack()">Take the last back <kbd>Backspace</kbd></button>
          </span>
        </section>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the lesson …</p></main>
      }
    </div>
  `,
})
export class LessonPage implements OnDestroy {
  private readonly service = inject(LessonsService);
  private readonly attempts = inject(AttemptsService);
  private readonly sheets = inject(SheetsService);
  private readonly reviews = inject(ReviewsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly player = inject(LinePlayer);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  private readonly sound = inject(SoundSettings);
  protected readonly transport = inject(Transport);
  protected readonly words = inject(SpokenWords);
  private readonly pedalUse = pedal.read();
  readonly id = input.required<string>();

  protected readonly lesson = signal<Lesson | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly at = signal(0);
  protected readonly isWriting = signal(false);
  /** Where it has no room beside the item. */
  protected readonly isPlanOpen = signal(false);
  private readonly kept = signal<readonly Attempt[]>([]);
  private readonly sheet = signal<SheetDetail | undefined>(undefined);
  /** Steps of tempo away from the plan, by the place of the item. */
  private readonly steps = signal<ReadonlyMap<number, number>>(new Map());
  private readonly wordField = viewChild<ElementRef<HTMLInputElement>>('word');
  private readonly now = signal(Date.now());
  private readonly clock = setInterval(() => this.now.set(Date.now()), 20_000);

  protected readonly item = computed(() => this.lesson()?.plan.at(this.at()));
  protected readonly instrument = computed(() => this.shelf.instrumentFor(this.lesson()?.studentId, this.item()?.model));
  /** The item's music, where it stands on the sheet. */
  protected readonly line = computed(() => {
    const found = this.sheet()?.lines.find(({ id }) => id === this.item()?.itemId);
    return found !== undefined && hasMusic(found) ? found : undefined;
  });
  protected readonly tempo = computed(() => Math.max(20, (this.item()?.tempo ?? 60) + tempoStep * (this.steps().get(this.at()) ?? 0)));
  protected readonly tries = computed(() => {
    const item = this.item();
    return item === undefined ? [] : this.triesOf(item);
  });
  protected readonly countText = computed(() => {
    const all = this.tries().filter((each) => ratingOf(each) !== 'unjudged');
    if (all.length === 0) return `${wantedTries} tries, one key each`;
    return `${all.filter((each) => ratingOf(each) === 'clean').length} of ${all.length} clean`;
  });
  /** What could cut in comes first among the faults: it carries the note that this change would let in. */
  protected readonly judgements = computed((): readonly Judgement[] => {
    const line = this.line();
    const cutsIn = line === undefined ? '' : cutsInOf(this.instrument(), line.home, line.other);
    return [
      { key: '1', text: 'Clean', rating: 'clean', note: '' },
      { key: '2', text: 'Nearly', rating: 'nearly', note: '' },
      { key: '3', text: 'Not yet', rating: 'not-yet', note: '' },
      { key: '4', text: cutsIn || 'Cuts in', rating: 'not-yet', note: cutsIn || 'cuts in' },
      { key: '5', text: 'A run', rating: 'not-yet', note: 'a run slips in' },
      { key: '6', text: 'A gap', rating: 'not-yet', note: 'a gap' },
    ];
  });
  protected readonly todo = computed(() => {
    const [item, line] = [this.item(), this.line()];
    const judged = this.tries().filter((each) => ratingOf(each) !== 'unjudged');
    const clean = judged.filter((each) => ratingOf(each) === 'clean').length;
    const next = this.lesson()?.plan.at(this.at() + 1);
    if (item === undefined) return { first: 'Begin with what stayed behind.', second: '' };
    if (judged.length >= wantedTries)
      return { first: `${clean} of ${judged.length} clean. Go on, or once more at ${this.tempo()}?`, second: next === undefined ? '' : `Next: ${next.title}` };
    const advice = line === undefined ? undefined : describedLine(this.instrument(), line).advice;
    return { first: line?.point || advice?.todo || item.title, second: next === undefined ? 'It is the last of the plan.' : `Next: ${next.title}` };
  });
  protected readonly minutesText = computed(() => {
    const held = this.lesson();
    if (held?.begunAt == null) return '';
    const gone = Math.max(0, Math.floor((this.now() - Date.parse(held.begunAt)) / 60_000));
    return gone > held.minutes ? `${gone - held.minutes} minutes over` : `${held.minutes - gone} of ${held.minutes} minutes left`;
  });

  private readonly release = inject(KeyService).use('lesson', {
    play: () => this.toggle(),
    judge: (key) => {
      const judgement = this.judgements().find((each) => each.key === key);
      if (judgement !== undefined) this.judge(judgement);
    },
    next: (key) => this.onPedal(key, 1),
    before: (key) => this.onPedal(key, -1),
    onward: () => this.step(1),
    slower: () => this.changeTempo(-1),
    faster: () => this.changeTempo(1),
    word: () => this.write(),
    say: () => this.say(),
    back: () => this.takeBack(),
    leave: () => this.leave(),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => this.load(id));
    });
    effect(() => this.wordField()?.nativeElement.focus());
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  ngOnDestroy(): void {
    this.release();
    clearInterval(this.clock);
    this.transport.stop();
  }

  protected triesOf({ title, kind }: PlanItem): readonly Attempt[] {
    return this.kept().filter((each) => each.title === title && each.kind === kind);
  }

  protected readonly ratingOf = ratingOf;
  protected readonly clockText = clockText;
  protected readonly signOf = (attempt: Attempt): string => signs[ratingOf(attempt)];
  protected readonly textOf = ({ note, ...attempt }: Attempt): string => `${ratingOf(attempt)}${note === '' ? '' : `: ${note}`}`;

  protected judge({ rating, note }: Judgement): void {
    this.keep(rating, note, 1);
  }

  protected write(): void {
    this.isWriting.set(true);
  }

  /** Begins to listen to a word about the item, or ends it. */
  protected say(): void {
    const item = this.item();
    if (item !== undefined) this.words.toggle(item.title);
  }

  /** A word is kept with its time and its item. */
  protected keepWord(text: string): void {
    this.isWriting.set(false);
    if (text.trim() !== '') this.keep('unjudged', text.trim(), 0);
  }

  private leave(): void {
    if (this.words.about() !== undefined) this.words.discard();
    else if (this.isWriting()) this.isWriting.set(false);
    else void this.router.navigate(['/today']);
  }

  /** The log keeps what was pressed; beside it stands that it was taken back. */
  protected takeBack(): void {
    const last = this.tries().at(-1);
    if (last === undefined) return;
    this.attempts.correct(last.id, 'unjudged', 'taken back').subscribe({
      next: () => this.kept.update((all) => all.filter(({ id }) => id !== last.id)),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** Page Down and Page Up are the switches of a pedal too, which may judge. */
  private onPedal(key: string, by: 1 | -1): void {
    const judgement = this.judgements().at(by === 1 ? 0 : 2);
    if (this.pedalUse === 'judges' && key.startsWith('Page') && judgement !== undefined) this.judge(judgement);
    else this.step(by);
  }

  protected step(by: number): void {
    this.transport.stop();
    this.at.update((at) => Math.max(0, Math.min((this.lesson()?.plan.length ?? 1) - 1, at + by)));
  }

  protected changeTempo(by: number): void {
    if (this.item()?.tempo == null) return;
    this.steps.update((steps) => new Map([...steps, [this.at(), (steps.get(this.at()) ?? 0) + by]]));
    if (this.transport.playing() !== undefined) this.play();
  }

  protected toggle(): void {
    if (this.transport.playing() !== undefined) this.transport.stop();
    else this.play();
  }

  /** What was not planned, in one step: it is what is done now. */
  protected addItem(title: string): void {
    const held = this.lesson();
    if (held === undefined || title.trim() === '') return;
    const model = this.item()?.model ?? this.shelf.held().find(({ owner }) => owner.id === held.studentId)?.model ?? this.state.model().id;
    const item: PlanItem = { itemId: null, title: title.trim(), kind: 'words', model, tempo: null, times: 1 };
    this.service.save({ ...held, plan: [...held.plan, item] }).subscribe({
      next: (saved) => {
        this.lesson.set(saved);
        this.at.set(saved.plan.length - 1);
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected end(): void {
    const held = this.lesson();
    if (held === undefined) return;
    this.service.end(held.id).subscribe({
      next: () => {
        this.reviews.begin(held.studentId, held.id, dayOf(new Date())).subscribe({
          next: ({ id }) => void this.router.navigate(['/reviews', id]),
          error: (error: unknown) => {
            this.notices.fault(error);
            void this.router.navigate(['/today']);
          },
        });
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private play(): void {
    const line = this.line();
    if (line === undefined) return;
    const tempo = line.tempo === null ? null : this.tempo();
    this.sound.percent.set(100);
    this.player.play('lesson', this.instrument(), { ...line, tempo }, 1);
  }

  private keep(rating: AttemptRating, note: string, tries: number): void {
    const [held, item] = [this.lesson(), this.item()];
    if (held === undefined || item === undefined) return;
    const attempt: AttemptInput = {
      ...{ studentId: held.studentId, itemId: item.itemId, lessonId: held.id, title: item.title, kind: item.kind, model: item.model },
      ...{
        tempo: item.tempo === null ? null : this.tempo(),
        count: tries,
        rating,
        ladder: null,
        seconds: 0,
        device: 'desk',
        note,
        at: new Date().toISOString(),
      },
    };
    this.attempts.add(attempt).subscribe({
      next: (kept) => this.kept.update((all) => [...all, kept]),
      error: (error: unknown) => (error instanceof KeptForLater ? this.notices.done('Kept here, sent when the line is back.') : this.notices.fault(error)),
    });
  }

  private load(id: string): void {
    this.service.get(id).subscribe({
      next: (lesson) => {
        this.lesson.set(lesson);
        this.fault.set('');
        this.state.choose(lesson.studentId);
        this.words.open(lesson);
        this.attempts.ofLesson(lesson.id).subscribe({
          next: (all) => this.kept.set(all.filter(({ correction }) => correction?.note !== 'taken back').reverse()),
          error: (error: unknown) => this.notices.fault(error),
        });
        // Who is offline goes on by the titles of the plan.
        this.sheets.ofStudent(lesson.studentId, 1).subscribe({ next: ([sheet]) => this.sheet.set(sheet), error: () => undefined });
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }
}

const signs: Readonly<Record<AttemptRating, string>> = { clean: '●', nearly: '◐', 'not-yet': '○', unjudged: '“' };
const ratingOf = ({ rating, correction }: Pick<Attempt, 'rating' | 'correction'>): AttemptRating => correction?.rating ?? rating;

/** "Low G" of the change between two notes; empty where nothing cuts in. */
function cutsInOf(instrument: Parameters<typeof changeBetween>[0], home: string, other: string): string {
  if (home === other) return '';
  const change = changeBetween(instrument, home, other);
  const trouble = troubleOf(instrument, change);
  const [, note] = /.*\band (.+?) cuts in/.exec(adviceFor(instrument, change, trouble).otherwise) ?? [];
  return note === undefined ? '' : `${note.charAt(0).toUpperCase()}${note.slice(1)} cuts in`;
}
