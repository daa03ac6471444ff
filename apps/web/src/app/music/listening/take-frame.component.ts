import { NgTemplateOutlet } from '@angular/common';
import { Component, computed, effect, inject, input, output, signal, untracked, type OnDestroy } from '@angular/core';
import { longestTakeSeconds, usualTakeDays, type AttemptInput, type TakeAsked, type TakeRemark } from '@zelpit/contract';
import { RouterLink } from '@angular/router';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { blowingText, changeText, heardTimingText, type AskedNote, type Decision } from '@zelpit/core/listening';
import { usualGraceNoteMs } from '@zelpit/core/timing';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import { SessionService } from '../../kernel/session/session.service';
import { TakesService } from '../../studio/takes/takes.service';
import { AttemptsService } from '../../studio/attempts/attempts.service';
import { Transport } from '../sound/transport.service';
import { TakeClickComponent, type UsualClick } from './take-click.component';
import { TakeTimingComponent } from './take-timing.component';
import { LevelMeterComponent } from './level-meter.component';
import { LongTakeComponent } from './long-take.component';
import { LiveListening } from './live-listening.service';
import { Demonstration } from './demonstration.service';
import { TakeEarTest } from './take-ear-test';
import type { JudgedPlace, TakeReview } from './take-review';
import { besideSound, changeSound, type CleanNotes, type Hearing } from './take-sound';
import { longestMinutes, TakeSource } from './take-source.service';

const clickId = 'take-click';

/** How one place is said and heard. */
export interface PlaceWords<T> {
  /** "Change 3", "Bar 3" */
  readonly name: (place: T) => string;
  readonly text: (place: T) => string;
  /** How it would sound clean. */
  readonly clean: (place: T) => CleanNotes;
  /** True for the same place of another take of the same. */
  readonly isSame: (place: T, other: T) => boolean;
}

/** What a take is logged as. */
export type TakeLog = Pick<AttemptInput, 'title' | 'kind' | 'model' | 'count'> & {
  /** Which item of a sheet it was. */
  readonly itemId?: string | null;
};

/**
 * A page that listens, but for its sentence: recording and opening, the list of places with the worst first, what else was heard, the band and the strip. What is drawn
 * stands in `figure` (before and while it is recorded), `ribbon` (once it was heard) and `below`; `more` is what else a page has to say of it.
 */
@Component({
  selector: 'zp-take-frame',
  imports: [LevelMeterComponent, LongTakeComponent, NgTemplateOutlet, RouterLink, TakeClickComponent, TakeTimingComponent],
  providers: [LiveListening, Demonstration],
  templateUrl: './take-frame.component.html',
})
export class TakeFrameComponent<T extends JudgedPlace> implements OnDestroy {
  private readonly notices = inject(NoticeService);
  private readonly attempts = inject(AttemptsService);
  private readonly takes = inject(TakesService);
  private readonly session = inject(SessionService);
  private readonly live = inject(LiveListening);
  protected readonly source = inject(TakeSource);
  protected readonly transport = inject(Transport);
  protected readonly microphone = this.source.microphone;
  protected readonly midi = this.source.midi;
  readonly instrument = input.required<Instrument>();
  readonly review = input.required<TakeReview<T>>();
  readonly words = input.required<PlaceWords<T>>();
  /** What is to be played: "B to E", "Evening over Skellow Tarn, part A". */
  readonly title = input.required<string>();
  /** How it is to be played, while it is recorded. */
  readonly how = input.required<string>();
  /** The first sentence: what was heard; empty before there is a take. */
  readonly text = input.required<string>();
  readonly advice = input.required<{ readonly todo: string; readonly otherwise: string }>();
  /** What else was heard, in sentences. */
  readonly also = input<readonly string[]>([]);
  /** What is to be expected, said before anything is played. */
  readonly foretold = input('');
  /** What sound cannot tell here. */
  readonly untold = input.required<string>();
  readonly logged = input.required<TakeLog>();
  /** What it is kept as: what was asked for. */
  readonly asked = input.required<TakeAsked>();
  /** Id of a take that is kept and to be opened. */
  readonly opens = input<string>();
  readonly canPlan = input.required<boolean>();
  /** What is asked for, once, for a player that is computed. */
  readonly notes = input<readonly AskedNote[]>([]);
  /** Two notes whose changes are named as they are played. */
  readonly pair = input<readonly [NoteId, NoteId]>();
  /** The click that it is usually played to; absent where no beat is asked for. */
  readonly usualClick = input<UsualClick>();
  readonly plan = output();
  readonly leave = output();
  /** It went into the logbook. */
  readonly isInLogbook = output();
  protected readonly longestMinutes = longestMinutes;
  protected readonly longestKept = longestTakeSeconds / 60;
  protected readonly who = this.source.who;
  /** The last change while it is played: "low A sounds for 22 ms before E". */
  protected readonly lastChange = computed(() => {
    const change = this.live.change();
    return change === undefined ? undefined : { text: changeText(this.instrument(), change), isClean: change.verdict === 'clean' };
  });
  protected readonly isKeeping = signal(false);
  /** Those who teach say something of a moment; a student reads it. */
  protected readonly canRemark = computed(() => !this.session.isFamily());
  protected readonly isTooLong = computed(() => this.source.seconds() > longestTakeSeconds);
  protected readonly hasTake = computed(() => this.text() !== '');
  protected readonly blowing = computed(() => blowingText(this.instrument(), this.source.answer()?.blowing ?? []));

  protected readonly demonstrations = inject(Demonstration);
  /** What a teacher shows of the same; not beside itself. */
  protected readonly demonstration = computed(() => {
    const shown = this.demonstrations.of(this.asked(), this.logged().model);
    return shown?.id === this.source.kept()?.id ? undefined : shown;
  });
  /** An ear test on this take. */
  protected readonly ear = new TakeEarTest<T>(() => this.review());
  protected readonly timingText = computed(() => {
    const timing = this.source.timing();
    return timing === undefined ? '' : heardTimingText(this.instrument(), timing.fitted);
  });

  private readonly release = inject(KeyService).use('take', {
    play: () => this.play('as played'),
    slow: () => this.play('slow'),
    clean: () => this.play('beside clean'),
    demonstration: () => void this.playDemonstration(),
    record: () => this.recordOrEnd(),
    midi: () => this.source.playMidi(this.instrument()),
    computed: () => this.playComputed(),
    click: () => this.turnClick(),
    slower: () => this.source.stepClick(-1),
    faster: () => this.source.stepClick(1),
    isClean: () => this.decide('clean'),
    isFaulty: () => this.decide('faulty'),
    plan: () => this.source.isComputed() || this.ear.isOpen() || this.plan.emit(),
    next: () => this.review().step(1),
    before: () => this.review().step(-1),
    leave: () => this.leaveOne(),
  });

  constructor() {
    effect(() => {
      const id = this.opens();
      if (id !== undefined) untracked(() => this.source.openKept(id));
    });
    effect(() => {
      const [pair, isRecording] = [this.pair(), this.microphone.isRecording()];
      untracked(() => (isRecording && pair !== undefined ? this.live.begin(this.instrument(), pair) : this.live.end()));
    });
    this.demonstrations.load();
    // Another take is another test.
    effect(() => {
      this.review().all();
      untracked(() => this.ear.close());
    });
    effect(() => {
      const isTaking = this.source.isTaking();
      untracked(() => (isTaking ? this.startClick() : this.stopClick()));
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  /** "at 3.2 s" */
  protected readonly momentOf = ({ at }: Pick<JudgedPlace, 'at'>): string => `at ${(at / 1000).toFixed(1)} s`;

  protected choose({ number }: T): void {
    this.review().chosenNumber.set(number);
    this.play('as played');
  }

  /** The place that is nearest to a moment. */
  protected hear(at: number): void {
    const away = (place: T): number => Math.abs(place.at - at);
    const all = this.review().all();
    if (all.length === 0) return;
    this.choose(all.reduce((best, place) => (away(place) < away(best) ? place : best)));
  }

  /** While it is recorded the click stays as it is: the take is judged against it. */
  private turnClick(): void {
    const usual = this.usualClick();
    if (usual !== undefined && !this.source.isTaking()) this.source.turnClick(usual);
  }

  /** A bar of nothing but clicks, on and on, after a count-in. */
  private startClick(): void {
    const [usual, tempo] = [this.usualClick(), this.source.click()];
    if (usual === undefined || tempo === undefined) return;
    const { beatsInBar } = usual;
    void this.transport.play({
      ...{ id: clickId, instrument: this.instrument(), times: 0, notes: [{ note: null, graceNotes: [], beats: beatsInBar, index: 0, isTied: false }] },
      settings: { tempo, beatsInBar, countInBeats: beatsInBar, isClickOn: true, firstBeat: 0, graceNoteMs: usualGraceNoteMs },
    });
  }

  private stopClick(): void {
    if (this.transport.playing() === clickId) this.transport.stop();
  }

  protected playComputed(): void {
    this.transport.stop();
    this.source.playComputed(this.instrument(), this.notes());
  }

  /** Whatever is open goes first. */
  private leaveOne(): void {
    if (this.source.isListening()) this.source.cancel();
    else if (this.ear.isOpen()) this.leaveEar();
    else this.leave.emit();
  }

  private decide(decision: Decision): void {
    if (this.ear.isOpen()) this.answer(decision);
    else this.review().decide(decision);
  }

  protected beginEar(): void {
    this.transport.stop();
    this.ear.begin();
    this.play('as played');
  }

  protected leaveEar(): void {
    this.transport.stop();
    this.ear.close();
  }

  protected answer(decision: Decision): void {
    this.transport.stop();
    this.ear.answer(decision);
    if (this.ear.current() !== undefined) this.play('as played');
  }

  private recordOrEnd(): void {
    if (this.microphone.isRecording()) this.source.endRecording();
    else if (this.midi.name() !== undefined) this.source.endMidi(this.instrument());
    else this.record();
  }

  protected record(): void {
    this.transport.stop();
    this.source.record();
  }

  /** The sound around one place; the same key again stops it. */
  protected play(hearing: Hearing): void {
    const [samples, wasPlaying] = [this.source.samples(), this.transport.isHolding()];
    const place = this.ear.isOpen() ? this.ear.current() : this.review().chosen();
    this.transport.stop();
    // Beside a clean one it would be told.
    if (this.ear.isOpen() && hearing === 'beside clean') return;
    if (place === undefined || samples === undefined || (wasPlaying && hearing === 'as played')) return;
    this.transport.hold(changeSound(samples, place.at, hearing, this.words().clean(place)));
  }

  /** The chosen place, and after it the same one as a teacher played it; of several the first that was clean. */
  protected async playDemonstration(): Promise<void> {
    const [shown, place, samples, { wanted }] = [this.demonstration(), this.review().chosen(), this.source.samples(), this.source];
    this.transport.stop();
    if (shown === undefined || place === undefined || samples === undefined || wanted === undefined || this.ear.isOpen()) return;
    try {
      const { samples: theirs, places } = await this.demonstrations.hear(shown, this.instrument(), wanted);
      // What was listened for is the same, so are its places.
      const same = (places as readonly T[]).filter((other) => this.words().isSame(place, other));
      const other = same.find(({ verdict }) => verdict === 'clean') ?? same.at(0);
      if (other === undefined) this.notices.done('This place is not in the demonstration.');
      else this.transport.hold(besideSound({ samples, at: place.at }, { samples: theirs, at: other.at }));
    } catch (error) {
      this.notices.fault(error);
    }
  }

  /** Students hear it beside theirs from now on, or no longer. */
  protected show(isShown: boolean): void {
    const kept = this.source.kept();
    if (kept === undefined) return;
    this.takes.save(kept.id, { remarks: [...kept.remarks], isShown, version: kept.version }).subscribe({
      next: (saved) => {
        this.source.kept.set(saved);
        this.notices.done(isShown ? 'Students hear it beside their takes of the same.' : 'Students do not hear it any more.');
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected hearPlace(place: T): void {
    const samples = this.source.samples();
    this.transport.stop();
    if (samples !== undefined) this.transport.hold(changeSound(samples, place.at, 'as played', this.words().clean(place)));
  }

  protected log(): void {
    const [player, review] = [this.who(), this.review()];
    if (player === undefined || review.all().length === 0 || this.source.isComputed()) return;
    const attempt: AttemptInput = {
      ...{ itemId: null, ...this.logged(), studentId: player.id, lessonId: null, tempo: null, ladder: null, device: 'desk', rating: review.rating() },
      ...{ seconds: this.source.seconds(), note: `A take: ${this.text()}`.slice(0, 300), at: new Date().toISOString() },
    };
    this.attempts.add(attempt).subscribe({
      next: () => this.isLogged(player.alias),
      error: (error: unknown) => (error instanceof KeptForLater ? this.isLogged(player.alias) : this.notices.fault(error)),
    });
  }

  /** The take goes at once; it can come back until the page is left. */
  protected forget(): void {
    this.transport.stop();
    const text = this.source.kept() === undefined ? 'The take was deleted.' : 'The take left this page; it is still kept.';
    this.notices.done(text, this.source.forget());
  }

  /** On the studio's server, for three months unless something else is chosen with the takes. */
  protected keep(): void {
    const [review, { title, model }] = [this.review(), this.logged()];
    if (this.isKeeping() || this.source.kept() !== undefined || this.source.isComputed()) return;
    this.isKeeping.set(true);
    const faulty = review.all().filter((place) => review.isFaulty(place)).length;
    this.source
      .keep({
        title: title.slice(0, 200),
        model,
        asked: this.asked(),
        places: review.all().length,
        faulty,
        text: this.text().slice(0, 300),
        keepDays: usualTakeDays,
      })
      .subscribe({
        next: ({ id }) => {
          this.isKeeping.set(false);
          this.notices.done('The take is kept for 90 days, on this studio’s server only.', () =>
            this.takes.drop(id).subscribe({ next: () => this.source.kept.set(undefined), error: (error: unknown) => this.notices.fault(error) }),
          );
        },
        error: (error: unknown) => {
          this.isKeeping.set(false);
          this.notices.fault(error);
        },
      });
  }

  /** A remark at the chosen place, for whoever opens the take. */
  protected remark(field: HTMLInputElement): void {
    const [kept, place, text] = [this.source.kept(), this.review().chosen(), field.value.trim()];
    if (kept === undefined || place === undefined || text === '') return;
    const remark: TakeRemark = { at: Math.max(0, Math.round(place.at)), text };
    this.saveRemarks(
      [...kept.remarks, remark].sort((one, other) => one.at - other.at),
      () => (field.value = ''),
    );
  }

  protected removeRemark(remark: TakeRemark): void {
    this.saveRemarks((this.source.kept()?.remarks ?? []).filter((each) => each !== remark));
  }

  private saveRemarks(remarks: readonly TakeRemark[], then?: () => void): void {
    const kept = this.source.kept();
    if (kept === undefined) return;
    this.takes.save(kept.id, { remarks: [...remarks], version: kept.version }).subscribe({
      next: (saved) => {
        this.source.kept.set(saved);
        then?.();
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private isLogged(alias: string): void {
    this.review().isLogged.set(true);
    this.isInLogbook.emit();
    this.notices.done(`The take stands in the logbook of ${alias}.`);
  }
}
