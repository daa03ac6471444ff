import { Component, computed, effect, inject, input, linkedSignal, signal, untracked, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { AttemptInput } from '@zelpit/contract';
import type { NoteId } from '@zelpit/core/fingering';
import { lineTitle } from '@zelpit/core/line';
import { changeText, type HeardChange } from '@zelpit/core/listening';
import { changesInLine } from '@zelpit/core/line';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { Transport } from '../../music/sound/transport.service';
import { AttemptsService } from '../../studio/attempts/attempts.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { PairChooserComponent, pairFrom } from './pair-chooser.component';
import type { TakeAnswer, TakeRequest } from './take-messages';
import { startTakeWorker } from './take-worker';

/** Everything that is listened to has this many samples a second: enough for the partials that are looked at. */
const sampleRate = 22_050;
const [largestFile, longestMinutes] = [60_000_000, 10];
/** More changes than that are not in ten minutes. */
const mostNotes = 1200;
/** What is played of one change: so much before and after, in ms. */
const [before, after] = [350, 450];
const nearlyShare = 0.75;

/** A recorded take of one change, listened to: which changes were clean, what cut in for how long, with the sound of each. */
@Component({
  selector: 'zp-take',
  imports: [SentenceComponent, ForWhomComponent, PairChooserComponent, RouterLink],
  template: `
    <div class="page take-page">
      <zp-sentence>
        <a class="chooser-word" routerLink="/changes" [queryParams]="{ from: home(), to: other() }">Changes</a><span>, a take of </span>
        <zp-pair-chooser [instrument]="instrument()" [(from)]="home" [(to)]="other" /><zp-for-whom />
      </zp-sentence>
      <section class="band" aria-label="What was heard">
        <div class="band-said">
          @if (isListening()) {
            <p class="band-todo" role="status">Listening to {{ fileName() }} …</p>
          } @else if (take(); as heard) {
            <p class="band-todo" role="status">{{ heard.text }}</p>
            <p class="band-else">{{ tuningText() }}</p>
          } @else {
            <p class="band-todo">Open a recording of {{ title() }}, played to and fro.</p>
            <p class="band-else">WAV, FLAC, Ogg or MP3, up to {{ longestMinutes }} minutes. It stays in this browser and is not kept.</p>
          }
        </div>
        <div class="band-actions">
          @if (isListening()) {
            <button type="button" class="btn btn-line" (click)="cancel()">Stop <kbd>Esc</kbd></button>
          } @else {
            <label class="btn btn-solid" for="take-file">{{ take() ? 'Another recording' : 'Open a recording' }}</label>
            <input #file id="take-file" class="visually-hidden" type="file" accept="audio/*" (change)="open(file)" />
            @if (take()?.changes?.length) {
              <button type="button" class="btn btn-line" [disabled]="isLogged() || !state.student()" (click)="log()">
                {{ isLogged() ? 'In the logbook' : 'Into the logbook' }}
              </button>
            }
          }
        </div>
      </section>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
        }
        @if (take(); as heard) {
          <ol class="take-changes" aria-label="Changes as they were heard">
            @for (change of heard.changes; track change.number) {
              <li [class.is-chosen]="change === chosen()">
                <button type="button" class="row-link border-0 text-start" [attr.aria-pressed]="change === chosen()" (click)="choose(change)">
                  <span>{{ change.number }}. {{ textOf(change) }}</span>
                  <small>{{ momentOf(change) }}</small>
                </button>
              </li>
            }
          </ol>
          @if (heard.missing > 0) {
            <p class="second">{{ heard.missing }} of the notes that were asked for were not heard.</p>
          }
        }
        <p class="caution">
          <b>Before you record a child, a guardian must agree.</b>
          {{ consentText() }} Sound cannot tell the shape of a hand. What is not certain is not claimed; so far it was tried on computed takes only: trust your
          ear first.
        </p>
      </main>
      <section class="strip" aria-label="Sound">
        <button type="button" class="btn btn-solid" [disabled]="!chosen()" (click)="play(1)">
          {{ transport.playing() ? 'Stop' : 'Hear change ' + (chosen()?.number ?? '') }} <kbd>Space</kbd>
        </button>
        <button type="button" class="btn btn-line" [disabled]="!chosen()" (click)="play(4)">Four times as slow <kbd>S</kbd></button>
        <span class="strip-said second">Slowed, it sounds lower too.</span>
      </section>
    </div>
  `,
})
export class TakePage implements OnDestroy {
  private readonly notices = inject(NoticeService);
  private readonly attempts = inject(AttemptsService);
  protected readonly state = inject(StudioState);
  protected readonly transport = inject(Transport);
  readonly from = input<string>();
  readonly to = input<string>();
  protected readonly longestMinutes = longestMinutes;

  protected readonly instrument = computed(() => this.state.instrument());
  private readonly pair = computed(() => pairFrom(this.instrument(), this.from(), this.to()));
  protected readonly home = linkedSignal(() => this.pair().from);
  protected readonly other = linkedSignal(() => this.pair().to);
  protected readonly title = computed(() => lineTitle(this.instrument(), { home: this.home(), other: this.other() }));
  protected readonly fileName = signal('');
  protected readonly fault = signal('');
  protected readonly isListening = signal(false);
  protected readonly isLogged = signal(false);
  private readonly answer = signal<TakeAnswer | undefined>(undefined);
  protected readonly take = computed(() => this.answer()?.take);
  private readonly chosenNumber = signal(1);
  protected readonly chosen = computed(() => this.take()?.changes.find(({ number }) => number === this.chosenNumber()) ?? this.take()?.changes.at(0));
  protected readonly tuningText = computed(() => {
    const cents = this.answer()?.tuning ?? 0;
    if (Math.abs(cents) < 5) return 'In tune with the instrument as it stands here.';
    return `The whole take is about ${Math.abs(cents)} cents ${cents > 0 ? 'sharp' : 'flat'} of the instrument as it stands here.`;
  });
  protected readonly consentText = computed(() => {
    const student = this.state.student();
    if (student === undefined) return '';
    return student.consent === null
      ? `None is noted for ${student.alias}.`
      : `${student.consent.guardian} agreed for ${student.alias}: ${student.consent.covers}.`;
  });

  private samples: Float32Array | undefined;
  private worker: Worker | undefined;
  private asked = 0;

  private readonly release = inject(KeyService).use('take', {
    play: () => this.play(1),
    slow: () => this.play(4),
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
  }

  protected textOf(change: HeardChange): string {
    return changeText(this.instrument(), change);
  }

  /** "at 3.2 s" */
  protected readonly momentOf = ({ at }: HeardChange): string => `at ${(at / 1000).toFixed(1)} s`;

  protected choose({ number }: HeardChange): void {
    this.chosenNumber.set(number);
    this.play(1);
  }

  protected async open(field: HTMLInputElement): Promise<void> {
    const file = field.files?.item(0);
    field.value = '';
    if (file == null) return;
    this.cancel();
    this.fault.set('');
    this.answer.set(undefined);
    this.samples = undefined;
    this.fileName.set(file.name);
    if (file.size > largestFile) {
      this.fault.set(`“${file.name}” is larger than ${largestFile / 1_000_000} MB. Cut out the minutes that you want to hear.`);
      return;
    }
    this.isListening.set(true);
    try {
      // Decoding brings it to the sampling rate of its context.
      const decoded = await new OfflineAudioContext(1, 1, sampleRate).decodeAudioData(await file.arrayBuffer());
      if (decoded.duration > longestMinutes * 60)
        throw new RangeError(`“${file.name}” is longer than ${longestMinutes} minutes. Cut out the minutes that you want to hear.`);
      this.samples = monoOf(decoded);
      this.listen();
    } catch (error) {
      this.isListening.set(false);
      this.fault.set(error instanceof RangeError ? error.message : `“${file.name}” could not be read as sound. WAV, FLAC, Ogg and MP3 are read.`);
    }
  }

  /** Stops listening; what was heard before stays. */
  protected cancel(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.isListening.set(false);
  }

  /** The sound around one change, as it was played or slowed. */
  protected play(times: number): void {
    const [change, samples] = [this.chosen(), this.samples];
    if (this.transport.playing() !== undefined) this.transport.stop();
    if (change === undefined || samples === undefined) return;
    const from = Math.max(0, Math.round(((change.at - before) / 1000) * sampleRate));
    const piece = samples.slice(from, Math.round(((change.at + after) / 1000) * sampleRate));
    this.transport.hold((rate) => stretched(piece, sampleRate / rate / times));
  }

  protected log(): void {
    const [take, student] = [this.take(), this.state.student()];
    if (take === undefined || student === undefined) return;
    const clean = take.changes.filter(({ verdict }) => verdict === 'clean').length / take.changes.length;
    const below = clean >= nearlyShare ? 'nearly' : 'not-yet';
    const attempt: AttemptInput = {
      ...{ studentId: student.id, itemId: null, lessonId: null, title: this.title(), kind: 'line', model: this.state.model().id, tempo: null, ladder: null },
      ...{ count: Math.max(1, Math.round(take.changes.length / changesInLine)), rating: clean === 1 ? 'clean' : below, device: 'desk' },
      ...{ seconds: Math.round((this.samples?.length ?? 0) / sampleRate), note: `A take: ${take.text}`.slice(0, 300), at: new Date().toISOString() },
    };
    this.attempts.add(attempt).subscribe({
      next: () => this.logged(student.alias),
      error: (error: unknown) => (error instanceof KeptForLater ? this.logged(student.alias) : this.notices.fault(error)),
    });
  }

  private logged(alias: string): void {
    this.isLogged.set(true);
    this.notices.done(`The take stands in the logbook of ${alias}.`);
  }

  private listen(): void {
    const { samples } = this;
    if (samples === undefined) return;
    this.cancel();
    this.isListening.set(true);
    this.isLogged.set(false);
    const id = (this.asked += 1);
    const wanted = Array.from({ length: mostNotes }, (_, index): NoteId => (index % 2 === 0 ? this.home() : this.other()));
    this.worker = startTakeWorker();
    this.worker.onmessage = ({ data }: MessageEvent<TakeAnswer>) => {
      if (data.id !== this.asked) return;
      this.answer.set(data);
      this.chosenNumber.set(data.take.changes.find(({ verdict }) => verdict !== 'clean')?.number ?? 1);
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
    const changes = this.take()?.changes ?? [];
    const place = changes.findIndex((change) => change === this.chosen());
    const next = changes.at(Math.max(0, Math.min(changes.length - 1, place + by)));
    if (next !== undefined) this.chosenNumber.set(next.number);
  }
}

/** All channels as one. */
function monoOf(decoded: AudioBuffer): Float32Array {
  const mixed = new Float32Array(decoded.length);
  for (let channel = 0; channel < decoded.numberOfChannels; channel += 1) {
    const samples = decoded.getChannelData(channel);
    for (let index = 0; index < mixed.length; index += 1) mixed[index] += samples[index] / decoded.numberOfChannels;
  }
  return mixed;
}

/** Samples read at another step, evenly between two of them; never louder than a half. */
function stretched(samples: Float32Array, step: number): Float32Array<ArrayBuffer> {
  const loudest = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 1e-6);
  return Float32Array.from({ length: Math.max(1, Math.floor((samples.length - 1) / step)) }, (_, index) => {
    const at = index * step;
    const first = Math.floor(at);
    return (samples[first] + (samples[first + 1] - samples[first]) * (at - first)) * Math.min(1, 0.5 / loudest);
  });
}
