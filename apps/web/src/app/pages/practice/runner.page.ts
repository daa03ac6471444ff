import { Component, computed, effect, type ElementRef, inject, input, signal, untracked, viewChild, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { noteOf } from '@zelpit/core/fingering';
import { rowNames, rowsOfExcerpt, type RowKind } from '@zelpit/core/excerpt';
import { countText, describedLine, pacesOf, type LineHalf } from '@zelpit/core/line';
import { askedOfMusic, type AskedNote } from '@zelpit/core/listening';
import { restPhrase } from '@zelpit/core/plan';
import { capital } from '@zelpit/core/words';
import type { RungRating } from '@zelpit/core/practice';
import { focusNames, markNames, timesText, watchText, type ItemDetails } from '@zelpit/core/review';
import { hasMusic, type AttemptRating, type OpenedLine } from '@zelpit/contract';
import { messageOf } from '../../kernel/api/api.service';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { consentText, mayBeRecorded, type Player } from '../../music/listening/recording-consent';
import { MicrophoneFault } from '../../music/microphone/microphone.service';
import { RungEar } from '../../music/listening/rung-ear.service';
import { LinePlayer, playedMusic, type HowPlayed } from '../../music/lines/line-player.service';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { KeyService } from '../../kernel/keys/key.service';
import { SessionService } from '../../kernel/session/session.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { Transport } from '../../music/sound/transport.service';
import { RunnerDrawingComponent } from './runner-drawing.component';
import { RunnerLadderComponent } from './runner-ladder.component';
import { RunnerLog } from './runner-log';
import { RunnerTimer } from './runner-timer';

const mostPills = 12;
/** Between two rungs of a ladder, in ms: time for a key, and for the hands. */
const restMs = 4000;
/** The same once it was heard that the rung was clean. */
const restAfterHeardMs = 2000;
/** A ladder without a tempo of its own: from where, so far over the best, and never faster. Our own choice. */
const [usualClimb, climbOver, fastestClimb] = [60, 24, 300];

const halves: readonly { readonly value: LineHalf | undefined; readonly label: string }[] = [
  { value: undefined, label: 'all of it' },
  { value: 'first', label: 'first half' },
  { value: 'second', label: 'second half' },
];

/** Whoever plays may not be recorded. */
class NoConsent extends Error {}

interface Judgement {
  readonly text: string;
  readonly rating: AttemptRating;
  readonly rung: RungRating;
}

const judgements: Readonly<Record<string, Judgement>> = {
  '1': { text: 'Clean', rating: 'clean', rung: 'clean' },
  '2': { text: 'Nearly', rating: 'nearly', rung: 'nearly' },
  '3': { text: 'Not yet', rating: 'not-yet', rung: 'slip' },
};

/** One line to be played along with, both hands on the instrument: count-in, click, the lanes running, one big button. */
@Component({
  selector: 'zp-runner',
  imports: [RunnerDrawingComponent, RunnerLadderComponent, RouterLink],
  templateUrl: './runner.page.html',
  providers: [RunnerLog, RunnerTimer, RungEar],
})
export class RunnerPage implements OnDestroy {
  private readonly shelf = inject(InstrumentShelf);
  private readonly sheets = inject(SheetsService);
  private readonly player = inject(LinePlayer);
  private readonly router = inject(Router);
  private readonly sound = inject(SoundSettings);
  protected readonly transport = inject(Transport);
  protected readonly log = inject(RunnerLog);
  protected readonly timer = inject(RunnerTimer);
  protected readonly ear = inject(RungEar);
  private readonly session = inject(SessionService);
  private readonly state = inject(StudioState);

  readonly code = input.required<string>();
  protected readonly opened = signal<OpenedLine | undefined>(undefined);
  /** Codes of the sheet's lines in their order. */
  protected readonly codes = signal<readonly string[]>([]);
  protected readonly fault = signal('');
  protected readonly isDone = signal(false);
  /** Which of the line's speeds comes next, and the fastest that was clean so far. */
  private readonly atSpeed = signal(0);
  private readonly score = signal<number | undefined>(undefined);
  /** What of the line is played, whether it goes round and round, whether it waits after each time. */
  protected readonly half = signal<LineHalf | undefined>(undefined);
  protected readonly loops = signal(false);
  protected readonly waits = signal(false);
  protected readonly halves = halves;
  protected readonly isHowOpen = signal(false);
  protected readonly hasSound = computed(() => this.line() !== undefined);
  protected readonly howText = computed(() => {
    const parts = [
      halves.find(({ value }) => value === this.half())?.label ?? '',
      this.loops() ? 'again and again' : '',
      this.waits() ? 'waits after each' : '',
    ];
    return capital(parts.filter((part) => part !== '').join(', '));
  });
  /** The drawing runs on as long as it is played. */
  protected readonly manyTimes = 999;
  /** Times that are over where it waits after each. */
  private readonly doneTimes = signal(0);
  /** True where the music waits for the player. */
  protected readonly isWaiting = signal(false);
  protected readonly drawingWidth = signal(390);
  private readonly drawing = viewChild<ElementRef<HTMLElement>>('drawing');
  private readonly reducesMotion = matchMedia('(prefers-reduced-motion: reduce)').matches;

  protected readonly instrument = computed(() => this.shelf.instrumentFor(this.opened()?.student.id, this.opened()?.instrument));
  protected readonly instrumentText = computed(() => nameOf(this.instrument()));
  protected readonly described = computed(() => {
    const line = this.notes();
    return line === undefined ? undefined : describedLine(this.instrument(), line);
  });
  /** Its title, or what is to be done where it has no notes. */
  protected readonly title = computed(() => {
    const opened = this.opened()?.line;
    return opened?.kind === 'words' ? opened.text : (this.described()?.title ?? '');
  });
  /** The steps in which a piece of a tune is practised; none for a line. */
  protected readonly rows = computed(() => {
    const excerpt = this.notes()?.excerpt;
    if (excerpt == null || (excerpt.rows ?? []).length < 2) return [];
    return rowsOfExcerpt(this.fingered(), excerpt).rows.filter(({ kind }) => excerpt.rows?.includes(kind) === true);
  });
  protected readonly rowNames = rowNames;
  private readonly chosenRow = signal<RowKind | undefined>(undefined);
  /** The step that is practised now: the first of them until another is chosen. */
  protected readonly row = computed(() => (this.rows().find(({ kind }) => kind === this.chosenRow()) ?? this.rows().at(0))?.kind);
  protected readonly details = computed((): ItemDetails => this.opened()?.line.details ?? {});
  /** The item, where it has notes. */
  protected readonly notes = computed(() => {
    const item = this.opened()?.line;
    return item !== undefined && hasMusic(item) ? item : undefined;
  });
  /** The same, where it has a sound to play along with. */
  protected readonly line = computed(() => (this.details().mark === 'no-sound' ? undefined : this.notes()));
  /** What it is for, as a teacher said: "for the fingers, page 12 of your book". */
  protected readonly aboutText = computed(() => {
    const { focus, page, mark, musical, physical } = this.details();
    const parts = [
      focus === undefined ? '' : `for ${focusNames[focus]}`,
      page === undefined ? '' : `page ${page} of your book`,
      mark === undefined ? '' : markNames[mark],
    ];
    return [...parts, musical ?? '', physical ?? ''].filter((part) => part !== '').join(' · ');
  });
  protected readonly watch = computed(() => {
    const item = this.opened()?.line;
    return item === undefined ? { watch: '', tooFast: '' } : watchText(this.instrument(), item);
  });
  /** What its lanes are of, for screen readers. */
  protected readonly lanesText = computed(() => {
    const line = this.notes();
    if (line === undefined || line.excerpt != null) return this.title();
    const name = (note: string): string => noteOf(this.instrument(), note).schoolName;
    return `${name(line.home)} and ${name(line.other)}`;
  });
  /** How it is played: in which step, which half, after which count-in. */
  private readonly how = computed((): HowPlayed => {
    const [half, { countIn }] = [this.half(), this.details()];
    return { row: this.row(), ...(half !== undefined && { half }), ...(countIn !== undefined && { countIn }) };
  });
  protected readonly music = computed(() => {
    const line = this.notes();
    return line === undefined ? undefined : playedMusic(this.fingered(), line, this.how());
  });
  /** As the line fingers it. */
  protected readonly fingered = computed(() => this.described()?.instrument ?? this.instrument());
  /** The line at the speed at which it is played now. */
  private readonly paced = computed(() => {
    const line = this.line();
    if (line === undefined) return undefined;
    // Bare notes and single grace notes are for the fingers: the click comes with the count.
    const isForFingers = this.rows().length > 1 && this.row() !== 'count';
    const rung = this.log.ladder()?.next;
    if (rung !== undefined) return { ...line, tempo: rung };
    return { ...line, tempo: isForFingers ? null : pacesOf(line)[this.atSpeed()] };
  });
  /** True where all times through were played: a slip on a ladder broke them off. */
  protected readonly isWhole = computed(() => this.isDone() && this.log.lastWords() === '' && this.log.ladderText() === '');
  protected readonly isDrill = computed(() => (this.opened()?.line.speeds?.length ?? 0) > 1);
  protected readonly countText = computed(() => {
    const item = this.opened()?.line;
    if (item === undefined) return '';
    return hasMusic(item) && item.details == null ? countText(item) : timesText(item);
  });
  /** What the end of a line is answered with: rest, or the next speed. */
  protected readonly doneText = computed(() => {
    const [line, score] = [this.line(), this.score()];
    const rest = `${restPhrase}. Stop if anything hurts.`;
    if (this.isWaiting()) return `${this.doneTimes()} of ${line?.repetitions ?? 1}. Now alone; then go on.`;
    if (this.log.ladderText() !== '') return this.log.ladderText();
    if (this.log.lastWords() !== '') return `${this.log.lastWords()} ${rest}`;
    if (line === undefined || !this.isDrill()) return `Done. ${rest}`;
    if (score === undefined) return 'A slip at the first speed: start over, slower if you like.';
    const full = this.player.tempoOf({ ...line, tempo: pacesOf(line).at(-1) ?? null });
    if (this.atSpeed() === 0) return `${score} was clean${score === full ? ', the full speed' : ''}. ${rest}`;
    return `${score} was clean. Next ${this.tempo()}.`;
  });
  /** The tempo that a ladder climbs to; undefined where the line has none of its own. */
  protected readonly ceiling = computed(() => {
    const line = this.line();
    if (line === undefined || this.rows().length > 1 || this.isDrill()) return undefined;
    // A ladder without a tempo of its own climbs a little over the best.
    const free = this.details().isLadder === true ? Math.min(fastestClimb, (this.log.best() ?? usualClimb) + climbOver) : undefined;
    return pacesOf(line).at(-1) ?? free;
  });
  /** True where the item is a climb: the main key begins it. */
  private readonly isClimb = computed(() => this.details().isLadder === true && this.ceiling() !== undefined);
  protected readonly buttonText = computed(() => {
    if (this.line() === undefined && this.seconds() === undefined) return this.isDone() ? 'Not done yet' : 'Done';
    if (this.isWaiting()) return 'Go on';
    if (!this.isDone()) return this.isClimb() ? 'Start the ladder' : 'Start';
    return this.isDrill() && this.atSpeed() > 0 ? 'Next speed' : 'Again';
  });
  protected readonly tempo = computed(() => {
    const line = this.paced();
    return line === undefined ? 0 : this.player.tempoOf(line);
  });
  /** So long one time lasts, where it has no notes but a clock. */
  protected readonly seconds = computed(() => (this.line() === undefined ? this.details().seconds : undefined));
  protected readonly isPlaying = computed(() => this.transport.playing() !== undefined || this.timer.isRunning());
  /** Beats since the first note over all times through; undefined in silence. */
  protected readonly beat = computed(() => {
    const position = this.transport.position();
    if (position === undefined) return undefined;
    const beat = position.beat < 0 ? position.beat : (position.time - 1) * (this.music()?.beats ?? 0) + position.beat;
    return this.reducesMotion ? Math.floor(beat) : beat;
  });
  private readonly timing = computed(() => this.music() ?? { beatsInBar: 4, firstBeat: 0 });
  protected readonly beatNumbers = computed(() => Array.from({ length: this.timing().beatsInBar }, (_, index) => index + 1));
  protected readonly counted = computed(() => {
    const beat = this.beat();
    if (beat === undefined) return 0;
    const { beatsInBar, firstBeat } = this.timing();
    return (((Math.floor(beat + firstBeat + 1e-6) % beatsInBar) + beatsInBar) % beatsInBar) + 1;
  });
  protected readonly time = computed(() => {
    if (this.timer.isRunning()) return this.timer.time();
    return (this.beat() ?? -1) < 0 ? 0 : this.doneTimes() + (this.transport.position()?.time ?? 0);
  });
  /** How often the line has begun since it sounds. */
  private readonly timesBegun = computed(() => this.transport.position()?.time ?? 1);
  protected readonly pills = computed(() => {
    const count = this.opened()?.line.repetitions ?? 0;
    return count > mostPills ? [] : Array.from({ length: count }, (_, index) => index + 1);
  });
  protected readonly place = computed(() => this.codes().indexOf(this.opened()?.line.code ?? ''));

  private readonly release = inject(KeyService).use('runner', {
    play: () => this.toggle(),
    main: () => this.toggle(),
    slower: () => this.changeTempo(false),
    faster: () => this.changeTempo(true),
    next: () => this.goTo(1),
    before: () => this.goTo(-1),
    row: (key) => {
      if (this.log.isAsking()) this.judge(judgements[key]);
      else this.chooseRow(this.rows().find(({ number }) => String(number) === key)?.kind);
    },
    ladder: () => this.climb(),
    listening: () => void this.climbListened(),
    half: () => this.nextHalf(),
    loop: () => this.loops.update((on) => !on),
    wait: () => this.waits.update((on) => !on),
    take: () => this.hasSound() && void this.router.navigate(['/c', this.code(), 'take']),
    leave: () => this.stop(),
  });
  private readonly sizes = new ResizeObserver(([entry]) => {
    const { width, height } = entry.contentRect;
    if (height > 0) this.drawingWidth.set(Math.max(300, Math.round((width / height) * 352)));
  });
  private hasStarted = false;
  private rest: ReturnType<typeof setTimeout> | undefined;
  protected readonly judgements = Object.entries(judgements).map(([key, judgement]) => ({ key, ...judgement }));

  constructor() {
    effect(() => {
      const code = this.code();
      untracked(() => this.open(code));
    });
    effect(() => {
      const element = this.drawing()?.nativeElement;
      this.sizes.disconnect();
      if (element !== undefined) this.sizes.observe(element);
    });
    // Silence that nobody asked for is the end of the last time through.
    effect(() => {
      if (this.transport.playing() === undefined && this.hasStarted) {
        this.hasStarted = false;
        untracked(() => this.finish());
      }
    });
    // Each time through is looked at as soon as the next one has begun: a slip does not wait for the end of the rung.
    effect(() => {
      if (this.timesBegun() > 1) untracked(() => void this.listenSoFar());
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.sizes.disconnect();
    this.hasStarted = false;
    clearTimeout(this.rest);
    this.transport.stop();
    this.log.flush();
  }

  protected toggle(): void {
    if (this.line() === undefined) this.toggleWords();
    else if (this.isPlaying()) {
      const count = Math.max(0, this.time() - 1);
      this.hasStarted = false;
      this.transport.stop();
      if (this.log.isClimbing()) this.rungRated('slip');
      else {
        this.endTry(count, false);
        if (this.isDrill()) this.slip();
      }
    } else if (this.log.isClimbing()) this.rungRated('unjudged');
    else if (this.isClimb() && !this.isWaiting()) this.climb();
    else this.start();
  }

  /** What has no notes: by the clock, or done when somebody says so. */
  private toggleWords(): void {
    const [seconds, times] = [this.seconds(), this.opened()?.line.repetitions ?? 1];
    if (seconds === undefined) {
      this.isDone.update((done) => !done);
      if (this.isDone()) this.endTry(times, true);
      else this.log.began(null);
    } else if (this.timer.isRunning()) {
      this.endTry(Math.max(0, this.timer.time() - 1), false);
      this.timer.stop();
    } else {
      this.isDone.set(false);
      this.log.began(null);
      this.timer.start(seconds, times, () => {
        this.endTry(times, true);
        this.isDone.set(true);
      });
    }
  }

  private endTry(count: number, isWhole: boolean): void {
    this.doneTimes.set(0);
    this.isWaiting.set(false);
    this.log.ended(count, isWhole);
  }

  protected nextHalf(): void {
    if (this.line() === undefined) return;
    const at = halves.findIndex(({ value }) => value === this.half());
    this.chooseHalf(halves[(at + 1) % halves.length].value);
  }

  protected chooseHalf(half: LineHalf | undefined): void {
    this.half.set(half);
    // A half is looped until it sits.
    if (half !== undefined) this.loops.set(true);
    this.isDone.set(false);
    if (this.isPlaying() && !this.log.isClimbing()) this.start();
  }

  /** Stops what sounds, or the climb. */
  protected stop(): void {
    this.hasStarted = false;
    clearTimeout(this.rest);
    const count = Math.max(0, this.time() - 1);
    const wasPlaying = this.isPlaying();
    this.transport.stop();
    this.timer.stop();
    this.ear.close();
    if (this.log.ladder() !== undefined) {
      this.log.endLadder();
      this.isDone.set(true);
    } else if (wasPlaying || this.isWaiting()) this.endTry(count, false);
  }

  /** A climb in tempos: the next rung comes by itself after a short rest, a slip ends it. */
  protected climb(): void {
    const ceiling = this.ceiling();
    if (ceiling === undefined || this.isPlaying()) return;
    this.sound.percent.set(100);
    this.log.startLadder(ceiling);
    this.start();
  }

  /** The same, judged by what is heard: it ends at the first slip by itself. Only the click sounds meanwhile. */
  protected async climbListened(): Promise<void> {
    if (this.ceiling() === undefined || this.isPlaying() || this.log.ladder() !== undefined) return;
    try {
      await firstValueFrom(this.state.ready());
      const player = this.playerOf();
      if (!mayBeRecorded(player)) throw new NoConsent(consentText(player, this.session.isFamily()));
      await this.ear.open();
    } catch (error) {
      this.ear.text.set(error instanceof MicrophoneFault || error instanceof NoConsent ? error.message : messageOf(error));
      return;
    }
    // Whoever left meanwhile hears nothing any more.
    if (this.ear.isOpen()) this.climb();
  }

  /** Whose line it is, with the consent of the guardian. */
  private playerOf(): Player | undefined {
    const student = this.opened()?.student;
    if (student === undefined) return undefined;
    const consent = this.session.isFamily() ? this.session.consent() : this.state.students().find(({ id }) => id === student.id)?.consent;
    return { ...student, consent: consent ?? null };
  }

  /** Whether the rung that is played has slipped already. */
  private async listenSoFar(): Promise<void> {
    if (!this.log.isClimbing() || !this.ear.isOpen()) return;
    const heard = await this.ear.heard(false);
    if (heard?.rating !== 'slip' || !this.isPlaying()) return;
    this.hasStarted = false;
    this.transport.stop();
    this.rungRated('slip', heard.text);
  }

  /** Judged by what was heard, unless a key was quicker; what was hardly heard is left to keys. */
  private async listenToRung(): Promise<void> {
    const rungs = this.log.ladder()?.rungs.length;
    const heard = await this.ear.heard(true);
    if (!this.log.isClimbing() || this.log.ladder()?.rungs.length !== rungs || this.isPlaying()) return;
    if (heard?.rating === 'slip') this.rungRated('slip', heard.text);
    else if (heard?.rating === 'clean') this.rest = setTimeout(() => this.rungRated('clean', 'Heard and judged by the tablet or computer.'), restAfterHeardMs);
    else this.restUnjudged();
  }

  /** The next rung comes by itself, whether a key judges this one or not. */
  private restUnjudged(): void {
    this.rest = setTimeout(() => this.rungRated('unjudged'), restMs);
  }

  private rungRated(rating: RungRating, heard = ''): void {
    clearTimeout(this.rest);
    this.log.rated(rating, heard);
    if (this.log.isClimbing()) this.start();
    else {
      this.isDone.set(true);
      this.ear.close();
    }
  }

  /** What was just played, in one word. */
  protected judge(judgement: Judgement | undefined): void {
    if (judgement === undefined) return;
    const { rating, rung } = judgement;
    if (this.log.ladder() === undefined) this.log.judge(rating);
    else if (this.log.isClimbing()) this.rungRated(rung);
    else this.log.judgeRest(rating === 'clean');
  }

  /** The last time through has ended: a drill goes on to its next speed, from the last of them back to the first. */
  private finish(): void {
    if (this.log.isClimbing()) {
      this.log.rungEnded();
      this.isDone.set(true);
      if (this.ear.isOpen()) void this.listenToRung();
      else this.restUnjudged();
      return;
    }
    const times = this.opened()?.line.repetitions ?? 1;
    if (this.waits() && this.doneTimes() + 1 < times) {
      this.doneTimes.update((done) => done + 1);
      this.isWaiting.set(true);
      this.isDone.set(true);
      return;
    }
    this.endTry(times, true);
    const count = this.opened()?.line.speeds?.length ?? 1;
    if (this.isDrill()) {
      // As it was played: the whole drill can be slowed.
      this.score.set(this.tempo());
      this.atSpeed.set((this.atSpeed() + 1) % count);
    }
    this.isDone.set(true);
  }

  /** A drill that was stopped ends with its slip and starts over. */
  private slip(): void {
    this.atSpeed.set(0);
    this.isDone.set(true);
  }

  protected chooseRow(row: RowKind | undefined): void {
    if (row === undefined || row === this.row()) return;
    this.chosenRow.set(row);
    this.isDone.set(false);
    if (this.isPlaying()) this.start();
  }

  protected changeTempo(isFaster: boolean): void {
    // A ladder has tempos of its own.
    if (this.log.isClimbing()) return;
    if (isFaster) this.sound.faster();
    else this.sound.slower();
    if (this.isPlaying()) this.start();
  }

  protected goTo(by: number): void {
    const code = this.codes()[this.place() + by];
    if (this.place() >= 0 && code !== undefined) void this.router.navigate(['/c', code], { replaceUrl: true });
  }

  private start(): void {
    const line = this.paced();
    if (line === undefined) return;
    if (this.atSpeed() === 0) this.score.set(undefined);
    this.isDone.set(false);
    this.hasStarted = false;
    this.sound.hasCountIn.set(true);
    this.log.lastWords.set('');
    if (!this.isWaiting()) {
      this.doneTimes.set(0);
      const part = this.half() === undefined ? '' : `${this.half() ?? ''} half`;
      this.log.began(line.tempo === null ? null : this.player.tempoOf(line), part);
    }
    this.isWaiting.set(false);
    const isHeard = this.log.isClimbing() && this.ear.isOpen();
    if (!isHeard) this.ear.text.set('');
    else this.ear.begin({ instrument: this.fingered(), notes: this.askedInRung(line), tempo: this.player.tempoOf(line) });
    this.player.play('runner', this.instrument(), line, this.timesAtOnce(line.repetitions), false, { ...this.how(), onlyClick: isHeard });
    this.hasStarted = true;
  }

  /** All notes of a rung, as often as it is played. */
  private askedInRung(line: NonNullable<ReturnType<RunnerPage['line']>>): readonly AskedNote[] {
    const once = askedOfMusic(playedMusic(this.fingered(), line, this.how()));
    return Array.from({ length: line.repetitions }, () => once).flat();
  }

  /** On and on where it loops, once where it waits; a rung of a ladder is always all of it. */
  private timesAtOnce(repetitions: number): number {
    if (this.log.isClimbing()) return repetitions;
    if (this.waits()) return 1;
    return this.loops() ? 0 : repetitions;
  }

  private open(code: string): void {
    this.hasStarted = false;
    clearTimeout(this.rest);
    this.transport.stop();
    this.ear.close();
    this.log.flush();
    this.log.lastWords.set('');
    this.isDone.set(false);
    this.atSpeed.set(0);
    this.score.set(undefined);
    this.chosenRow.set(undefined);
    this.timer.stop();
    this.half.set(undefined);
    this.loops.set(false);
    this.waits.set(false);
    this.doneTimes.set(0);
    this.isWaiting.set(false);
    this.sheets.lineByCode(code).subscribe({
      next: (opened) => {
        this.opened.set(opened);
        this.log.open(opened, this.title());
        if (this.line() === undefined) this.log.began(null);
        this.fault.set('');
        this.sheets.get(opened.sheet.id).subscribe({ next: ({ lines }) => this.codes.set(lines.map((line) => line.code)), error: () => this.codes.set([]) });
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }
}
