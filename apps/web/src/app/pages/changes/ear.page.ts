import { Component, computed, inject, input, linkedSignal, signal, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { changeBetween } from '@zelpit/core/change';
import { noteOf, type NoteId } from '@zelpit/core/fingering';
import { blindPair, EarStaircase, mostMinutes, type EarThreshold } from '@zelpit/core/hearing';
import { WideComponent } from '../../kernel/wide/wide.component';
import { TipComponent } from '../../kernel/tip/tip.component';
import { KeyService } from '../../kernel/keys/key.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayInWords } from '../../kernel/words/words';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { PairChooserComponent, pairFrom } from './pair-chooser.component';
import { TrialsService } from '../../studio/trials/trials.service';

type Stage = 'before' | 'asking' | 'done';
const tick = 500;
const listed = 8;

/** Blind test of one change: which of two was crossed? The fault grows shorter until the ear just tells it. */
@Component({
  selector: 'zp-ear',
  imports: [TipComponent, SentenceComponent, ForWhomComponent, PairChooserComponent, RouterLink, WideComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" routerLink="/changes" [queryParams]="{ from: home(), to: other() }">Changes</a><span>, ear test of </span>
        <zp-pair-chooser [instrument]="instrument()" [(from)]="home" [(to)]="other" /><zp-for-whom />
      </zp-sentence>
      <section class="band" aria-label="The question">
        <div class="band-said">
          @switch (stage()) {
            @case ('before') {
              @if (canFault()) {
                <p class="band-todo">You will hear {{ name() }} twice. One of the two has a late finger.</p>
                <p class="band-else">
                  Say which one. The better you hear it, the shorter the fault becomes. Both are equally long and loud. The test ends by itself, after
                  {{ minutes }} minutes at most.
                </p>
              } @else {
                <p class="band-todo">Nothing can cut in from {{ name() }}.</p>
                <p class="band-else">Choose two other notes above; a cross is easiest to hear.</p>
              }
            }
            @case ('asking') {
              <p class="band-todo" aria-live="polite">Which one had the fault?</p>
              <p class="band-else">{{ feedback() || 'If you are not sure, guess.' }} {{ answered() }} answered, {{ timeLeft() }} left.</p>
            }
            @case ('done') {
              <p class="band-todo" role="status">{{ resultText() }}</p>
              <p class="band-else">{{ boundsText() }}</p>
            }
          }
        </div>
        <div class="band-actions">
          @if (stage() === 'asking') {
            <button type="button" class="btn btn-solid" [disabled]="isSounding()" (click)="answer(0)">The first <kbd>1</kbd></button>
            <button type="button" class="btn btn-solid" [disabled]="isSounding()" (click)="answer(1)">The second <kbd>2</kbd></button>
            <button type="button" class="btn btn-line" (click)="again()">Again <kbd>R</kbd></button>
            <button type="button" class="btn btn-line" (click)="finish()">Stop</button>
          } @else {
            <button type="button" class="btn btn-solid" [disabled]="!canFault()" (click)="start()">
              {{ stage() === 'done' ? 'Once more' : 'Start' }} <kbd>Space</kbd>
            </button>
          }
        </div>
      </section>
      <main class="layer page-fill">
        @if (stage() === 'asking') {
          <div class="ear-pair" aria-hidden="true">
            <span [class.is-now]="isSounding() && !isSecond()">1</span><span [class.is-now]="isSounding() && isSecond()">2</span>
          </div>
        }
        <h2 class="heading">Earlier ear tests of {{ whoText() }}</h2>
        @if (earlier().length === 0) {
          <p>No ear test yet. The first one takes about three minutes.</p>
        } @else {
          <zp-wide label="Earlier ear tests"
            ><table class="risk-table">
              <thead>
                <tr class="second">
                  <th scope="col">Change</th>
                  <th scope="col">
                    shortest fault heard<zp-tip about="shortest fault heard"
                      >The shorter, the finer the ear. Elsewhere Zelpit counts a fault from 10 ms on.</zp-tip
                    >
                  </th>
                  <th scope="col">likely range</th>
                  <th scope="col">right answers</th>
                  <th scope="col">date</th>
                </tr>
              </thead>
              <tbody>
                @for (each of earlier(); track each.id) {
                  <tr>
                    <th scope="row">{{ each.name }}</th>
                    <td>{{ each.threshold }}</td>
                    <td>{{ each.between }}</td>
                    <td>{{ each.right }}</td>
                    <td>{{ each.day }}</td>
                  </tr>
                }
              </tbody>
            </table></zp-wide
          >
        }
        <p class="second">
          How this is measured: an adaptive staircase after Watson and Pelli (1983). Each answer narrows down the fault length at which three answers in four
          are right. Ear tests are recorded apart from playing.
        </p>
        <p class="caution">Sound starts quiet and has an upper limit. Keep headphones low, and pause when your ears are tired.</p>
      </main>
    </div>
  `,
})
export class EarPage implements OnDestroy {
  private readonly transport = inject(Transport);
  private readonly trials = inject(TrialsService);
  private readonly notices = inject(NoticeService);
  protected readonly state = inject(StudioState);
  /** The change to begin with, from the address. */
  readonly from = input<string>();
  readonly to = input<string>();

  protected readonly minutes = mostMinutes;
  protected readonly instrument = this.state.instrument;
  private readonly first = computed(() => pairFrom(this.instrument(), this.from(), this.to()));
  protected readonly home = linkedSignal((): NoteId => this.first().from);
  protected readonly other = linkedSignal((): NoteId => this.first().to);
  protected readonly stage = linkedSignal({ source: () => `${this.home()} ${this.other()} ${this.instrument().id}`, computation: (): Stage => 'before' });
  private readonly change = computed(() => changeBetween(this.instrument(), this.home(), this.other()));
  protected readonly name = computed(() => `${noteOf(this.instrument(), this.home()).schoolName} to ${noteOf(this.instrument(), this.other()).schoolName}`);
  protected readonly canFault = computed(() => this.home() !== this.other() && blindPair(this.instrument(), this.change(), 20, 0, 8000) !== undefined);

  private staircase = new EarStaircase();
  private crossed: 0 | 1 = 0;
  private ms = 0;
  private startedAt = 0;
  private timers: ReturnType<typeof setTimeout>[] = [];
  private clock?: ReturnType<typeof setInterval>;
  private pair: Float32Array<ArrayBuffer> = new Float32Array(0);
  private secondMs = 0;
  private lengthMs = 0;

  protected readonly answered = signal(0);
  protected readonly feedback = signal('');
  protected readonly isSounding = signal(false);
  protected readonly isSecond = signal(false);
  private readonly elapsed = signal(0);
  private readonly result = signal<EarThreshold | undefined>(undefined);
  private readonly rights = signal(0);
  protected readonly timeLeft = computed(() => {
    const seconds = Math.max(0, Math.round(mostMinutes * 60 - this.elapsed() / 1000));
    return seconds >= 60 ? `${Math.ceil(seconds / 60)} minutes` : `${seconds} seconds`;
  });
  protected readonly resultText = computed(() => {
    const result = this.result();
    if (result === undefined) return 'Stopped too early to tell.';
    return `From ${this.name()}, a fault of ${Math.round(result.ms)} ms can just be heard.`;
  });
  protected readonly boundsText = computed(() => {
    const result = this.result();
    if (result === undefined) return 'It needs a few more answers. Start again when you like.';
    return `Most likely between ${Math.round(result.from)} and ${Math.round(result.to)} ms; ${this.rights()} of ${this.answered()} answers were right.`;
  });
  protected readonly whoText = computed(() => this.state.student()?.alias ?? 'this studio');
  protected readonly earlier = computed(() => {
    const student = this.state.student()?.id ?? null;
    return this.trials
      .known()
      .flatMap(({ id, studentId, model, result, at }) =>
        result.kind === 'ear' && model === this.instrument().id && (this.state.isOfStudent() || studentId === student) ? [{ id, result, at }] : [],
      )
      .slice(0, listed)
      .map(({ id, result, at }) => ({
        id,
        name: `${noteOf(this.instrument(), result.from).schoolName} to ${noteOf(this.instrument(), result.to).schoolName}`,
        threshold: `${Math.round(result.thresholdMs)} ms`,
        between: `${Math.round(result.lowMs)} and ${Math.round(result.highMs)} ms`,
        right: `${result.right} of ${result.asked}`,
        day: dayInWords(at),
      }));
  });

  private readonly release = inject(KeyService).use('ear', {
    play: () => (this.stage() === 'asking' ? this.again() : this.start()),
    first: () => this.answer(0),
    second: () => this.answer(1),
    again: () => this.again(),
  });

  constructor() {
    this.state.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
    this.trials.loadEar().subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  ngOnDestroy(): void {
    this.release();
    this.stopClocks();
    this.transport.stop();
  }

  protected start(): void {
    if (!this.canFault()) return;
    this.staircase = new EarStaircase();
    this.answered.set(0);
    this.rights.set(0);
    this.feedback.set('');
    this.result.set(undefined);
    this.startedAt = performance.now();
    this.elapsed.set(0);
    this.clock = setInterval(() => this.look(), tick);
    this.stage.set('asking');
    this.ask();
  }

  protected again(): void {
    if (this.stage() === 'asking') this.sound();
  }

  protected answer(which: 0 | 1): void {
    if (this.stage() !== 'asking' || this.isSounding()) return;
    const isRight = which === this.crossed;
    this.staircase.answer({ ms: this.ms, isRight });
    this.answered.update((count) => count + 1);
    if (isRight) this.rights.update((rights) => rights + 1);
    this.feedback.set(`${isRight ? 'Right' : 'No'}: it was the ${this.crossed === 0 ? 'first' : 'second'}.`);
    if (this.staircase.isDone()) this.finish();
    else this.ask();
  }

  protected finish(): void {
    this.stopClocks();
    this.transport.stop();
    this.isSounding.set(false);
    this.stage.set('done');
    if (this.answered() < 12) return;
    const result = this.staircase.threshold();
    this.result.set(result);
    const kept = {
      ...{ kind: 'ear' as const, from: this.home(), to: this.other(), right: this.rights(), asked: this.answered() },
      ...{ thresholdMs: rounded(result.ms), lowMs: rounded(result.from), highMs: rounded(result.to) },
    };
    this.trials
      .add({ studentId: this.state.student()?.id ?? null, model: this.instrument().id, result: kept }, 'the result of the ear test')
      .subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  private ask(): void {
    this.ms = this.staircase.next();
    this.crossed = Math.random() < 0.5 ? 0 : 1;
    this.sound();
  }

  private sound(): void {
    this.stopTimers();
    this.transport.hold((sampleRate) => {
      const pair = blindPair(this.instrument(), this.change(), this.ms, this.crossed, sampleRate);
      this.pair = pair?.samples ?? new Float32Array(1);
      this.secondMs = pair?.secondMs ?? 0;
      this.lengthMs = (this.pair.length / sampleRate) * 1000;
      return this.pair;
    });
    this.isSounding.set(true);
    this.isSecond.set(false);
    this.timers = [setTimeout(() => this.isSecond.set(true), this.secondMs), setTimeout(() => this.isSounding.set(false), this.lengthMs)];
  }

  private look(): void {
    this.elapsed.set(performance.now() - this.startedAt);
    if (this.elapsed() >= mostMinutes * 60_000) this.finish();
  }

  private stopTimers(): void {
    for (const timer of this.timers) clearTimeout(timer);
    this.timers = [];
  }

  private stopClocks(): void {
    this.stopTimers();
    clearInterval(this.clock);
  }
}

const rounded = (ms: number): number => Math.round(ms * 10) / 10;
