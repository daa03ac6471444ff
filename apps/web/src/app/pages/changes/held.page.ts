import { Component, computed, effect, inject, signal, untracked, type OnDestroy } from '@angular/core';
import { noteOf } from '@zelpit/core/fingering';
import { blowingOf, blowingText, octaveText, steadyMoments, type LivePitch } from '@zelpit/core/listening';
import { KeyService } from '../../kernel/keys/key.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { LevelMeterComponent } from '../../music/listening/level-meter.component';
import { LiveListening } from '../../music/listening/live-listening.service';
import { Microphone, MicrophoneFault } from '../../music/microphone/microphone.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';

const mostMinutes = 30;
/** So far to both sides the trace is drawn, in cents. */
const reach = 50;
/** The drawing, in units of its own, with so much of the trace, in ms; what is steady lies between two dotted lines. */
const sizes = { desk: { width: 1184, height: 260, shownMs: 12_000 }, phone: { width: 370, height: 220, shownMs: 6000 } } as const;
const steady = 10;

/** Held notes: what sounds, how far from the note, how steadily; nothing is recorded. */
@Component({
  selector: 'zp-held',
  imports: [SentenceComponent, ForWhomComponent, LevelMeterComponent],
  providers: [LiveListening],
  template: `
    <div class="page take-page">
      <zp-sentence place="Fingers"><span>Held notes</span><zp-for-whom /></zp-sentence>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
        }
        @if (microphone.isRecording()) {
          <p class="held-note" aria-live="off">
            @if (live.pitch(); as now) {
              <b>{{ nameOf(now) }}</b><span [class.wrongly]="isAway(now)">, {{ centsText(now) }}</span>
            } @else {
              <span class="quiet">Play a note.</span>
            }
          </p>
        }
        @if (trace().length > 0 || microphone.isRecording()) {
          <svg
            class="held-trace"
            [attr.viewBox]="'0 0 ' + width + ' ' + height"
            role="img"
            [attr.aria-label]="'How far the note was, moment by moment. ' + said()"
          >
            <text class="held-mark" x="0" y="18">{{ reach }} cents sharp</text>
            <text class="held-mark" x="0" [attr.y]="height - 6">{{ reach }} cents flat</text>
            <line class="held-middle" x1="0" [attr.y1]="height / 2" [attr.x2]="width" [attr.y2]="height / 2" />
            @for (at of marks; track at) {
              <line class="held-steady" x1="0" [attr.y1]="at" [attr.x2]="width" [attr.y2]="at" />
            }
            @for (piece of pieces(); track $index) {
              <path class="held-line" [attr.d]="piece.path" />
              <text class="held-name" [attr.x]="piece.x" y="40">{{ piece.name }}</text>
            }
          </svg>
        }
        @if (microphone.isRecording()) {
          <zp-level-meter does="Listening" [level]="microphone.level()" [seconds]="microphone.seconds()" />
        } @else if (said()) {
          <p role="status">{{ said() }}</p>
        }
        <p class="caution">
          <b>Loud, high notes tire the ears:</b> keep them short, leave the small room, wear ear protection, and follow local guidance on sound exposure.
          <b>Dizzy from blowing?</b> Pause. Asthma, hernia, recent surgery, pregnancy: ask a doctor first about the full pipes.
        </p>
      </main>
      <section class="band" aria-label="What to do">
        <div class="band-said">
          @if (microphone.isRecording()) {
            <p class="band-todo">Hold each note for five or six seconds.</p>
            <p class="band-else">Nothing is recorded: it is listened to and forgotten.</p>
          } @else {
            <p class="band-todo">{{ trace().length > 0 ? 'Again, one note at a time.' : 'Hold one note after the other, as steadily as you can.' }}</p>
            <p class="band-else">Then the lowest note and its octave: are they true? Nothing is recorded.</p>
          }
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" (click)="toggle()">{{ microphone.isRecording() ? 'Stop' : 'Listen' }} <kbd>Space</kbd></button>
        </div>
      </section>
    </div>
  `,
  styles: `
    .held-note {
      min-height: 84px;
      margin: 0;
      font-size: clamp(2.4rem, 6vw, 4rem);
      line-height: 1.2;
    }
    .held-note span {
      font-variant-numeric: tabular-nums;
    }
    .held-trace {
      display: block;
      width: 100%;
      margin-block: 8px 16px;
    }
    .held-mark,
    .held-name {
      fill: currentColor;
      font-size: 16px;
    }
    .held-name {
      font-weight: 800;
    }
    .held-middle {
      stroke: var(--wood);
      stroke-width: 2;
    }
    .held-steady {
      stroke: var(--wood);
      stroke-dasharray: 2 6;
    }
    .held-line {
      fill: none;
      stroke: currentColor;
      stroke-width: 6;
      stroke-linecap: round;
      stroke-linejoin: round;
    }
  `,
})
export class HeldPage implements OnDestroy {
  protected readonly live = inject(LiveListening);
  protected readonly microphone = inject(Microphone);
  protected readonly state = inject(StudioState);
  protected readonly fault = signal('');
  protected readonly trace = signal<readonly LivePitch[]>([]);
  private readonly size = sizes[matchMedia('(max-width: 700px)').matches ? 'phone' : 'desk'];
  protected readonly width = this.size.width;
  protected readonly height = this.size.height;
  protected readonly reach = reach;
  protected readonly marks = [this.y(steady), this.y(-steady)];
  private readonly instrument = computed(() => this.state.instrument());

  protected readonly said = computed(() => {
    const blowing = blowingOf(this.instrument(), steadyMoments(this.trace()));
    return [blowingText(this.instrument(), blowing), octaveText(this.instrument(), blowing)].filter((text) => text !== '').join(' ');
  });
  /** One line for each note that was held, with its name where it begins. */
  protected readonly pieces = computed(() => {
    const last = this.trace().at(-1)?.at ?? 0;
    const from = Math.max(0, last - this.size.shownMs);
    const groups: LivePitch[][] = [];
    for (const moment of this.trace()) {
      if (moment.at < from) continue;
      const group = groups.at(-1);
      if (group !== undefined && group[0].note === moment.note && moment.at - group[group.length - 1].at < 200) group.push(moment);
      else groups.push([moment]);
    }
    const x = (at: number): number => Math.round(((at - from) / this.size.shownMs) * this.width);
    return groups
      .filter((group) => group.length > 1)
      .map((group) => ({ x: x(group[0].at), name: this.nameOf(group[0]), path: `M${group.map(({ at, cents }) => `${x(at)} ${this.y(cents)}`).join('L')}` }));
  });

  private readonly release = inject(KeyService).use('held', { play: () => this.toggle() });

  constructor() {
    effect(() => {
      const now = this.live.pitch();
      if (now !== undefined) untracked(() => this.trace.update((trace) => [...trace, now]));
    });
    // Another instrument is another scale.
    effect(() => {
      this.instrument();
      untracked(() => this.stop());
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.stop();
  }

  protected toggle(): void {
    if (this.microphone.isRecording()) {
      this.stop();
      return;
    }
    this.fault.set('');
    this.trace.set([]);
    this.live.begin(this.instrument());
    this.microphone
      .start(mostMinutes * 60, () => this.stop(), false)
      .catch((error: unknown) => this.fault.set(error instanceof MicrophoneFault ? error.message : 'The microphone could not be opened. Try again.'));
  }

  protected readonly nameOf = ({ note }: LivePitch): string => noteOf(this.instrument(), note).schoolName;
  protected readonly isAway = ({ cents }: LivePitch): boolean => Math.abs(cents) > steady;
  /** "7 cents sharp", "in tune" */
  protected centsText({ cents }: LivePitch): string {
    const whole = Math.round(Math.abs(cents));
    if (whole < 3) return 'in tune';
    return `${whole} cents ${cents > 0 ? 'sharp' : 'flat'}`;
  }

  private stop(): void {
    this.live.end();
    void this.microphone.stop();
  }

  /** Where a number of cents is drawn. */
  private y(cents: number): number {
    return Math.round(this.height / 2 - (Math.max(-reach, Math.min(reach, cents)) / reach) * (this.height / 2 - 24));
  }
}
