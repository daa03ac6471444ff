import { Component, computed, effect, inject, input, linkedSignal, signal, untracked, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { AttemptInput } from '@zelpit/contract';
import { adviceFor, changeBetween, troubleOf } from '@zelpit/core/change';
import type { NoteId } from '@zelpit/core/fingering';
import { changesInLine, describedLine, lineTitle } from '@zelpit/core/line';
import {
  blowingText,
  changeText,
  inputProblem,
  inputProblemText,
  isFaulty,
  takeText,
  worstFirst,
  type Decision,
  type HeardChange,
} from '@zelpit/core/listening';
import { plannedForSheet } from '../../documents/sheet/planned-lines';
import { OntoSheet } from '../../documents/sheet/onto-sheet.service';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import { dayAndMonth } from '../../kernel/words/words';
import { Microphone, MicrophoneFault, type Recording } from '../../music/microphone/microphone.service';
import { ChangeFigureComponent, figureSize } from '../../music/lines/change-figure.component';
import { Transport } from '../../music/sound/transport.service';
import { AttemptsService } from '../../studio/attempts/attempts.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { LevelMeterComponent } from './level-meter.component';
import { PairChooserComponent, pairFrom } from './pair-chooser.component';
import type { TakeAnswer, TakeRequest } from './take-messages';
import { TakeRibbonComponent } from './take-ribbon.component';
import { changeSound, decodedFile, resampled, sampleRate, type Hearing } from './take-sound';
import { startTakeWorker } from './take-worker';

const [largestFile, longestMinutes] = [60_000_000, 10];
/** More changes than that are not in ten minutes. */
const mostNotes = 1200;
const nearlyShare = 0.75;

/** Whose take it is. */
interface Player {
  readonly id: string;
  readonly alias: string;
  readonly consent: { readonly guardian: string; readonly on: string } | null;
}

/** A take of one change, recorded or opened: which changes were clean, what cut in for how long, with the sound of each. */
@Component({
  selector: 'zp-take',
  imports: [SentenceComponent, ForWhomComponent, PairChooserComponent, RouterLink, LevelMeterComponent, TakeRibbonComponent, ChangeFigureComponent],
  templateUrl: './take.page.html',
})
export class TakePage implements OnDestroy {
  private readonly notices = inject(NoticeService);
  private readonly attempts = inject(AttemptsService);
  private readonly session = inject(SessionService);
  private readonly onto = inject(OntoSheet);
  protected readonly microphone = inject(Microphone);
  protected readonly state = inject(StudioState);
  protected readonly transport = inject(Transport);
  readonly from = input<string>();
  readonly to = input<string>();
  protected readonly longestMinutes = longestMinutes;
  protected readonly isFaulty = isFaulty;

  protected readonly instrument = computed(() => this.state.instrument());
  private readonly pair = computed(() => pairFrom(this.instrument(), this.from(), this.to()));
  protected readonly home = linkedSignal(() => this.pair().from);
  protected readonly other = linkedSignal(() => this.pair().to);
  protected readonly title = computed(() => lineTitle(this.instrument(), { home: this.home(), other: this.other() }));
  protected readonly fileName = signal('');
  protected readonly fault = signal('');
  /** What should be known of a recording beside what was heard in it. */
  protected readonly remarks = signal<readonly string[]>([]);
  protected readonly isListening = signal(false);
  protected readonly isLogged = signal(false);
  protected readonly isPlanned = signal(false);
  protected readonly showsClean = signal(false);
  /** What a person decided about changes, by their number. */
  protected readonly decided = signal<ReadonlyMap<number, Decision>>(new Map());
  private readonly answer = signal<TakeAnswer | undefined>(undefined);
  protected readonly take = computed(() => this.answer()?.take);
  protected readonly text = computed(() => takeText(this.instrument(), this.take()?.changes ?? [], this.decided()));
  /** The count, the worst place, and what is heard there: "Six of eight clean.", "Change 3:", "low A …". */
  protected readonly sentence = computed(() => /^(\S.*?\.)(?: (Change \d+:) (.*))?$/.exec(this.text())?.slice(1) ?? [this.text()]);
  protected readonly line = computed(() => describedLine(this.instrument(), { home: this.home(), other: this.other() }));
  protected readonly figureBox = `0 0 ${figureSize.width} ${figureSize.height + 8}`;
  protected readonly worst = computed(() => worstFirst(this.take()?.changes ?? [], this.decided()));
  protected readonly cleanCount = computed(() => (this.take()?.changes.length ?? 0) - this.worst().length);
  /** The worst first; what is clean only where it is asked for, or where all is. */
  protected readonly listed = computed((): readonly HeardChange[] => {
    const [all, worst] = [this.take()?.changes ?? [], this.worst()];
    return worst.length > 0 && !this.showsClean() ? worst : [...worst, ...all.filter((change) => !worst.includes(change))];
  });
  protected readonly chosenNumber = signal(1);
  protected readonly chosen = computed(() => this.take()?.changes.find(({ number }) => number === this.chosenNumber()) ?? this.take()?.changes.at(0));
  protected readonly blowing = computed(() => blowingText(this.instrument(), this.answer()?.blowing ?? []));
  protected readonly tuningText = computed(() => {
    const cents = this.answer()?.tuning ?? 0;
    if (Math.abs(cents) < 5) return 'In tune with the instrument as it stands here.';
    return `The whole take is about ${Math.abs(cents)} cents ${cents > 0 ? 'sharp' : 'flat'} of the instrument as it stands here.`;
  });
  /** What helps the worst change; where all is clean, what comes next. */
  protected readonly advice = computed(() => {
    const [worst] = this.worst();
    if (worst === undefined)
      return this.take()?.changes.length === 0
        ? { todo: `Play ${this.title()}, to and fro.`, otherwise: 'Each note at least as long as a slow step, so that both are heard.' }
        : { todo: 'Clean. Now a little faster, or under a grace note.', otherwise: 'Correct but slower is right, too: do not leave anything out to keep up.' };
    const change = changeBetween(this.instrument(), worst.from, worst.to);
    return adviceFor(this.instrument(), change, troubleOf(this.instrument(), change));
  });

  /** On a student's own tablet that student, else the one in hand; nobody where a teacher holds their own instrument. */
  protected readonly who = computed((): Player | undefined => {
    if (this.session.isFamily()) {
      const person = this.session.person();
      return person === undefined ? undefined : { id: person.id, alias: person.name, consent: this.session.consent() ?? null };
    }
    return this.state.inHand().held?.owner.kind === 'teacher' ? undefined : this.state.student();
  });
  protected readonly mayRecord = computed(() => this.who() === undefined || this.who()?.consent !== null);
  protected readonly consentText = computed(() => {
    const player = this.who();
    if (player === undefined) return 'You record yourself.';
    if (player.consent !== null) return `${player.consent.guardian} agreed on ${dayAndMonth(player.consent.on)}.`;
    return this.session.isFamily()
      ? 'Nobody has agreed yet that you are recorded: ask at home, on paper; your teacher notes it.'
      : `${player.alias}’s guardian has not agreed yet. Ask on paper, and note it with the student.`;
  });
  /** Only those who teach write sheets. */
  protected readonly canPlan = computed(() => !this.session.isFamily() && this.who() !== undefined && this.worst().length > 0);

  private samples: Float32Array | undefined;
  private worker: Worker | undefined;
  private asked = 0;

  private readonly release = inject(KeyService).use('take', {
    play: () => this.play('as played'),
    slow: () => this.play('slow'),
    clean: () => this.play('beside clean'),
    record: () => (this.microphone.isRecording() ? this.endRecording() : this.record()),
    isClean: () => this.decide('clean'),
    isFaulty: () => this.decide('faulty'),
    plan: () => this.plan(),
    next: () => this.step(1),
    before: () => this.step(-1),
    leave: () => this.cancel(),
  });

  constructor() {
    // Another change or another instrument hears the same recording anew.
    effect(() => {
      this.home();
      this.other();
      this.instrument();
      untracked(() => this.listen());
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.cancel();
    this.transport.stop();
    void this.microphone.stop();
  }

  protected textOf(change: HeardChange): string {
    return changeText(this.instrument(), change);
  }

  /** "at 3.2 s" */
  protected readonly momentOf = ({ at }: HeardChange): string => `at ${(at / 1000).toFixed(1)} s`;

  protected choose({ number }: HeardChange): void {
    this.chosenNumber.set(number);
    this.play('as played');
  }

  protected decide(decision: Decision): void {
    const change = this.chosen();
    if (change === undefined || change.verdict === 'clean') return;
    this.decided.update((decided) => new Map([...decided, [change.number, decision]]));
    this.isLogged.set(false);
  }

  protected record(): void {
    if (!this.mayRecord() || this.isListening() || this.microphone.isRecording()) return;
    this.clear('the take');
    this.transport.stop();
    this.microphone
      .start(longestMinutes * 60, (recording) => void this.taken(recording))
      .catch((error: unknown) => this.fault.set(error instanceof MicrophoneFault ? error.message : 'The recording could not begin. Try again.'));
  }

  protected endRecording(): void {
    void this.microphone.stop().then((recording) => (recording === undefined ? undefined : this.taken(recording)));
  }

  protected async open(field: HTMLInputElement): Promise<void> {
    const file = field.files?.item(0);
    field.value = '';
    if (file == null) return;
    this.clear(file.name);
    if (file.size > largestFile) {
      this.fault.set(`“${file.name}” is larger than ${largestFile / 1_000_000} MB. Cut out the minutes that you want to hear.`);
      return;
    }
    this.isListening.set(true);
    let samples: Float32Array;
    try {
      samples = await decodedFile(file);
    } catch {
      this.isListening.set(false);
      this.fault.set(`“${file.name}” could not be read as sound. WAV, FLAC, Ogg and MP3 are read.`);
      return;
    }
    if (samples.length > longestMinutes * 60 * sampleRate) {
      this.isListening.set(false);
      this.fault.set(`“${file.name}” is longer than ${longestMinutes} minutes. Cut out the minutes that you want to hear.`);
      return;
    }
    this.hear(samples);
  }

  /** Stops listening; what was heard before stays. */
  protected cancel(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.isListening.set(false);
  }

  /** The sound around one change; the same key again stops it. */
  protected play(hearing: Hearing): void {
    const [change, samples, wasPlaying] = [this.chosen(), this.samples, this.transport.isHolding()];
    this.transport.stop();
    if (change === undefined || samples === undefined || (wasPlaying && hearing === 'as played')) return;
    this.transport.hold(changeSound(samples, change.at, hearing, { instrument: this.instrument(), from: change.from, to: change.to }));
  }

  protected log(): void {
    const [take, player] = [this.take(), this.who()];
    if (take === undefined || player === undefined) return;
    const clean = take.changes.filter((change) => !isFaulty(change, this.decided())).length / take.changes.length;
    const below = clean >= nearlyShare ? 'nearly' : 'not-yet';
    const attempt: AttemptInput = {
      ...{ studentId: player.id, itemId: null, lessonId: null, title: this.title(), kind: 'line', model: this.state.model().id, tempo: null, ladder: null },
      ...{ count: Math.max(1, Math.round(take.changes.length / changesInLine)), rating: clean === 1 ? 'clean' : below, device: 'desk' },
      ...{ seconds: Math.round((this.samples?.length ?? 0) / sampleRate), note: `A take: ${this.text()}`.slice(0, 300), at: new Date().toISOString() },
    };
    this.attempts.add(attempt).subscribe({
      next: () => this.logged(player.alias),
      error: (error: unknown) => (error instanceof KeptForLater ? this.logged(player.alias) : this.notices.fault(error)),
    });
  }

  /** The drill for the worst change onto the student's sheet, with what helps it. */
  protected plan(): void {
    const [player, [worst]] = [this.who(), this.worst()];
    if (player === undefined || worst === undefined || !this.canPlan() || this.isPlanned()) return;
    const [item] = plannedForSheet(this.instrument(), [{ home: worst.from, other: worst.to }]);
    const what = { student: player, instrument: this.state.model().id, tune: { title: this.title() } };
    this.onto.put(what, [{ ...item, point: this.advice().todo.slice(0, 300) }]).subscribe({
      next: ({ sheet, undo }) => {
        this.isPlanned.set(true);
        this.notices.done(`It is on ${player.alias}’s sheet “${sheet.title}”.`, () =>
          undo().subscribe({ next: () => this.isPlanned.set(false), error: (error: unknown) => this.notices.fault(error) }),
        );
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** The take goes at once; it can come back until the page is left. */
  protected forget(): void {
    const [samples, answer] = [this.samples, this.answer()];
    this.transport.stop();
    this.clear('');
    this.notices.done('The take was deleted.', () => {
      this.samples = samples;
      this.answer.set(answer);
    });
  }

  private logged(alias: string): void {
    this.isLogged.set(true);
    this.notices.done(`The take stands in the logbook of ${alias}.`);
  }

  /** Nothing of the take before stays. */
  private clear(name: string): void {
    this.cancel();
    this.fault.set('');
    this.remarks.set([]);
    this.answer.set(undefined);
    this.samples = undefined;
    this.fileName.set(name);
  }

  private async taken({ samples, sampleRate: rate, endedBy, hiddenSeconds }: Recording): Promise<void> {
    this.isListening.set(true);
    this.fileName.set('the take');
    this.remarks.set([
      ...(endedBy === 'unplugged' ? ['The microphone went away; what was recorded until then is here.'] : []),
      ...(endedBy === 'length' ? [`After ${longestMinutes} minutes the recording ended by itself.`] : []),
      ...(hiddenSeconds > 0 ? [`The page was out of sight for ${hiddenSeconds} s; the recording went on.`] : []),
    ]);
    this.hear(await resampled(samples, rate));
  }

  /** What cannot be judged is said, and nothing is claimed of it. */
  private hear(samples: Float32Array): void {
    const problem = inputProblem(samples, sampleRate);
    if (problem !== undefined) {
      this.isListening.set(false);
      this.fault.set(inputProblemText[problem]);
      return;
    }
    this.samples = samples;
    this.listen();
  }

  private listen(): void {
    const { samples } = this;
    if (samples === undefined) return;
    this.cancel();
    this.isListening.set(true);
    this.isLogged.set(false);
    this.isPlanned.set(false);
    this.showsClean.set(false);
    this.decided.set(new Map());
    const id = (this.asked += 1);
    const wanted = Array.from({ length: mostNotes }, (_, index): NoteId => (index % 2 === 0 ? this.home() : this.other()));
    this.worker = startTakeWorker();
    this.worker.onmessage = ({ data }: MessageEvent<TakeAnswer>) => {
      if (data.id !== this.asked) return;
      this.answer.set(data);
      this.chosenNumber.set(worstFirst(data.take.changes).at(0)?.number ?? 1);
      this.cancel();
    };
    this.worker.onerror = () => {
      this.cancel();
      this.fault.set('The recording could not be listened to. Open it again.');
    };
    const request: TakeRequest = { id, instrument: this.instrument(), wanted, samples, sampleRate };
    this.worker.postMessage(request);
  }

  private step(by: number): void {
    const all = this.listed();
    const place = all.findIndex((change) => change === this.chosen());
    const next = all.at(Math.max(0, Math.min(all.length - 1, place + by)));
    if (next !== undefined) this.chosenNumber.set(next.number);
  }
}
