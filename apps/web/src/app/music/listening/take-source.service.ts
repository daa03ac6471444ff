import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { fastestClick, slowestClick, type Take, type TakeInput } from '@zelpit/contract';
import { inputProblem, inputProblemText } from '@zelpit/core/listening';
import { waveFile } from '@zelpit/core/sound';
import { forkJoin, tap, type Observable } from 'rxjs';
import { messageOf } from '../../kernel/api/api.service';
import { SessionService } from '../../kernel/session/session.service';
import { TakesService } from '../../studio/takes/takes.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { Microphone, MicrophoneFault, type Recording } from '../microphone/microphone.service';
import { consentText, mayBeRecorded, type Player } from './recording-consent';
import type { Asked, TakeAnswer, TakeRequest } from './take-messages';
import { decodedFile, resampled, sampleRate } from './take-sound';
import { startTakeWorker } from './take-worker';

const largestFile = 60_000_000;
export const longestMinutes = 10;
const clickStep = 2;

/** One take at a time: recorded or opened, whose it is, whether it may be recorded and can be judged, and what was heard in it. Each page that listens has its own. */
@Injectable()
export class TakeSource implements OnDestroy {
  private readonly session = inject(SessionService);
  private readonly state = inject(StudioState);
  private readonly takes = inject(TakesService);
  readonly microphone = inject(Microphone);
  readonly fileName = signal('');
  readonly fault = signal('');
  /** What should be known of a recording beside what was heard in it. */
  readonly remarks = signal<readonly string[]>([]);
  readonly isListening = signal(false);
  readonly answer = signal<TakeAnswer | undefined>(undefined);
  /** Undefined before there is a take that can be judged. */
  readonly samples = signal<Float32Array | undefined>(undefined);

  /** On a student's own tablet that student, else the one in hand; nobody where a teacher holds their own instrument. */
  readonly who = computed((): Player | undefined => {
    if (this.session.isFamily()) {
      const person = this.session.person();
      return person === undefined ? undefined : { id: person.id, alias: person.name, consent: this.session.consent() ?? null };
    }
    return this.state.inHand().held?.owner.kind === 'teacher' ? undefined : this.state.student();
  });
  readonly mayRecord = computed(() => mayBeRecorded(this.who()));
  readonly consentText = computed(() => consentText(this.who(), this.session.isFamily()));
  readonly tuningText = computed(() => {
    const cents = this.answer()?.tuning ?? 0;
    if (Math.abs(cents) < 5) return 'In tune with the instrument as it stands here.';
    return `The whole take is about ${Math.abs(cents)} cents ${cents > 0 ? 'sharp' : 'flat'} of the instrument as it stands here.`;
  });
  readonly seconds = computed(() => Math.round((this.samples()?.length ?? 0) / sampleRate));

  /** Beats a minute of the click that the take is played to; undefined without one. */
  readonly click = signal<number | undefined>(undefined);
  readonly slowestClick = slowestClick;
  readonly fastestClick = fastestClick;

  /** The take as it is kept on the server; undefined for one that is in this page only. */
  readonly kept = signal<Take | undefined>(undefined);

  private worker: Worker | undefined;
  private asked = 0;
  private isGivenBack = false;
  private opening = '';

  ngOnDestroy(): void {
    this.cancel();
    void this.microphone.stop();
  }

  turnClick({ tempo }: { readonly tempo: number }): void {
    this.click.update((click) => (click === undefined ? Math.max(slowestClick, Math.min(fastestClick, Math.round(tempo))) : undefined));
  }

  stepClick(by: number): void {
    this.click.update((click) => (click === undefined ? undefined : Math.max(slowestClick, Math.min(fastestClick, click + by * clickStep))));
  }

  record(): void {
    if (!this.mayRecord() || this.isListening() || this.microphone.isRecording()) return;
    this.clear('the take');
    this.microphone
      .start(longestMinutes * 60, (recording) => void this.taken(recording))
      .catch((error: unknown) => this.fault.set(error instanceof MicrophoneFault ? error.message : 'The recording could not begin. Try again.'));
  }

  endRecording(): void {
    void this.microphone.stop().then((recording) => (recording === undefined ? undefined : this.taken(recording)));
  }

  async open(field: HTMLInputElement): Promise<void> {
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
    this.isListening.set(false);
    if (samples.length > longestMinutes * 60 * sampleRate)
      this.fault.set(`“${file.name}” is longer than ${longestMinutes} minutes. Cut out the minutes that you want to hear.`);
    else this.judgeable(samples);
  }

  /**
   * Listens to the take against what was asked for.
   * @param heard once, where nothing else was asked meanwhile
   */
  listen(instrument: TakeRequest['instrument'], wanted: Asked, heard: (answer: TakeAnswer) => void): void {
    const samples = this.samples();
    if (samples === undefined) return;
    this.cancel();
    this.isListening.set(true);
    const id = (this.asked += 1);
    this.worker = startTakeWorker();
    this.worker.onmessage = ({ data }: MessageEvent<TakeAnswer>) => {
      if (data.id !== this.asked) return;
      this.cancel();
      if (data.heard.kind === 'fault') this.fault.set(data.heard.message);
      else {
        this.answer.set(data);
        heard(data);
      }
    };
    this.worker.onerror = () => {
      this.cancel();
      this.fault.set('The recording could not be listened to. Open it again.');
    };
    const request: TakeRequest = { id, instrument, wanted, samples, sampleRate };
    this.worker.postMessage(request);
  }

  /** Stops listening; what was heard before stays. */
  cancel(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.isListening.set(false);
  }

  /** Nothing of the take before stays; given back, so that it can come back. */
  forget(): () => void {
    const [samples, answer] = [this.samples(), this.answer()];
    this.clear('');
    return () => {
      this.isGivenBack = answer !== undefined;
      this.samples.set(samples);
      this.answer.set(answer);
    };
  }

  /** A take that is kept, with its sound; once for each, whatever else changes. */
  openKept(id: string): void {
    if (this.kept()?.id === id || this.opening === id) return;
    this.opening = id;
    this.clear('the take');
    this.isListening.set(true);
    forkJoin([this.takes.get(id), this.takes.sound(id)]).subscribe({
      next: ([take, sound]) => void this.openSound(take, sound),
      error: (error: unknown) => {
        this.isListening.set(false);
        this.fault.set(messageOf(error));
      },
    });
  }

  /** Keeps it on the server. Errors: `ApiFault` */
  keep(take: Omit<TakeInput, 'soundId' | 'studentId' | 'seconds' | 'at'>): Observable<Take> {
    const sound = new Blob([waveFile(this.samples() ?? new Float32Array(), sampleRate)]);
    const own = { studentId: this.who()?.id ?? null, seconds: this.seconds(), at: new Date().toISOString() };
    return this.takes.keep(sound, { ...take, ...own }).pipe(tap((kept) => this.kept.set(kept)));
  }

  /** True once for a take that came back with what was heard in it: it need not be listened to again. */
  wasGivenBack(): boolean {
    const { isGivenBack } = this;
    this.isGivenBack = false;
    return isGivenBack;
  }

  private async openSound(take: Take, sound: Blob): Promise<void> {
    this.isListening.set(false);
    try {
      const samples = await decodedFile(sound);
      this.click.set(take.asked.kind === 'changes' ? undefined : take.asked.click);
      this.judgeable(samples);
      this.kept.set(take);
    } catch {
      this.fault.set('The sound of this take could not be read.');
    }
  }

  /** Nothing of the take before stays. */
  private clear(name: string): void {
    this.cancel();
    this.fault.set('');
    this.remarks.set([]);
    this.answer.set(undefined);
    this.kept.set(undefined);
    this.samples.set(undefined);
    this.fileName.set(name);
  }

  private async taken({ samples, sampleRate: rate, endedBy, hiddenSeconds }: Recording): Promise<void> {
    this.fileName.set('the take');
    this.remarks.set([
      ...(endedBy === 'unplugged' ? ['The microphone went away; what was recorded until then is here.'] : []),
      ...(endedBy === 'length' ? [`After ${longestMinutes} minutes the recording ended by itself.`] : []),
      ...(hiddenSeconds > 0 ? [`The page was out of sight for ${hiddenSeconds} s; the recording went on.`] : []),
    ]);
    this.judgeable(await resampled(samples, rate));
  }

  /** What cannot be judged is said, and nothing is claimed of it. */
  private judgeable(samples: Float32Array): void {
    const problem = inputProblem(samples, sampleRate);
    if (problem === undefined) this.samples.set(samples);
    else this.fault.set(inputProblemText[problem]);
  }
}
