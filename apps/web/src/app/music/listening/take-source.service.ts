import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { fastestClick, slowestClick, type Take, type TakeInput } from '@zelpit/contract';
import { ZelpitFault } from '@zelpit/core/fault';
import { inputProblem, inputProblemText, stretchesOfTimeline, type AskedNote } from '@zelpit/core/listening';
import { waveFile } from '@zelpit/core/sound';
import { forkJoin, tap, type Observable } from 'rxjs';
import { messageOf } from '../../kernel/api/api.service';
import { clockText } from '../../kernel/words/words';
import { SessionService } from '../../kernel/session/session.service';
import { TakesService } from '../../studio/takes/takes.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { MidiFault, MidiInstrument, type PlayedEvents } from '../midi/midi-instrument.service';
import { Microphone, MicrophoneFault, type Recording } from '../microphone/microphone.service';
import { computedTake } from './computed-take';
import { eventsOfFile, soundOf, timelineOf } from './played-events';
import { consentText, mayBeRecorded, type Player } from './recording-consent';
import type { Asked, HeardTiming, TakeAnswer, TakeRequest, TakeTimingAnswer } from './take-messages';
import { decodedFile, resampled, sampleRate } from './take-sound';
import { startTakeWorker } from './take-worker';

/** What a browser on a desk can take in; those of a family may be telephones. */
const largestFile = { staff: 350_000_000, family: 60_000_000 } as const;
export const longestMinutes = 10;
const clickStep = 2;
const possibleClick = (tempo: number): number => Math.max(slowestClick, Math.min(fastestClick, tempo));

/** A file that is too long for one take. */
export interface LongFile {
  readonly name: string;
  readonly samples: Float32Array;
}

/** One take at a time: recorded or opened, whose it is, whether it may be recorded and can be judged, and what was heard in it. Each page that listens has its own. */
@Injectable()
export class TakeSource implements OnDestroy {
  private readonly session = inject(SessionService);
  private readonly state = inject(StudioState);
  private readonly takes = inject(TakesService);
  readonly microphone = inject(Microphone);
  readonly midi = inject(MidiInstrument);
  readonly isTaking = computed(() => this.microphone.isRecording() || this.midi.name() !== undefined);
  readonly fileName = signal('');
  readonly fault = signal('');
  /** What was played, where it was no sound: nothing of it is in doubt, and its sound is computed. */
  readonly events = signal<PlayedEvents | undefined>(undefined);
  /** True for a take that nobody played: it goes into no logbook, and is not kept. */
  readonly isComputed = signal(false);
  /** What should be known of a recording beside what was heard in it. */
  readonly remarks = signal<readonly string[]>([]);
  readonly isListening = signal(false);
  readonly answer = signal<TakeAnswer | undefined>(undefined);
  /** How the player's fingers keep together, where the sound of the take tells it. */
  readonly timing = signal<HeardTiming | undefined>(undefined);
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
    if (this.events() !== undefined) return 'No sound: how it was blown and tuned cannot be said. What you hear is computed.';
    const cents = this.answer()?.tuning ?? 0;
    if (Math.abs(cents) < 5) return 'In tune with the instrument as it stands here.';
    return `The whole take is about ${Math.abs(cents)} cents ${cents > 0 ? 'sharp' : 'flat'} of the instrument as it stands here.`;
  });
  /** A file that is longer than can be listened to at once, as it was opened last: parts of it are. */
  readonly long = signal<LongFile | undefined>(undefined);
  readonly seconds = computed(() => Math.round((this.samples()?.length ?? 0) / sampleRate));

  /** Beats a minute of the click that the take is played to; undefined without one. */
  readonly click = signal<number | undefined>(undefined);
  readonly slowestClick = slowestClick;
  readonly fastestClick = fastestClick;

  /** The take as it is kept on the server; undefined for one that is in this page only. */
  readonly kept = signal<Take | undefined>(undefined);

  /** What was listened for last. */
  wanted: Asked | undefined;
  private worker: Worker | undefined;
  private asked = 0;
  private isGivenBack = false;
  private opening = '';
  /** Takes that were computed so far. */
  private computed = 0;

  ngOnDestroy(): void {
    this.cancel();
    void this.microphone.stop();
    this.midi.stop();
  }

  turnClick({ tempo }: { readonly tempo: number }): void {
    this.click.update((click) => (click === undefined ? possibleClick(Math.round(tempo)) : undefined));
  }

  stepClick(by: number): void {
    this.click.update((click) => (click === undefined ? undefined : possibleClick(click + by * clickStep)));
  }

  record(): void {
    if (!this.mayRecord() || this.isListening() || this.isTaking()) return;
    this.clear('the take');
    this.microphone
      .start(longestMinutes * 60, (recording) => void this.taken(recording))
      .catch((error: unknown) => this.fault.set(error instanceof MicrophoneFault ? error.message : 'The recording could not begin. Try again.'));
  }

  endRecording(): void {
    void this.microphone.stop().then((recording) => (recording === undefined ? undefined : this.taken(recording)));
  }

  /** Takes what a MIDI instrument plays. */
  playMidi(instrument: TakeRequest['instrument']): void {
    if (this.isListening() || this.isTaking()) return;
    this.clear('what was played');
    this.midi
      .start(() => {
        this.endMidi(instrument);
        this.remarks.set(['The MIDI instrument went away; what was played until then is here.']);
      })
      .catch((error: unknown) => this.fault.set(error instanceof MidiFault ? error.message : 'The MIDI instrument could not be used. Try again.'));
  }

  /** A take that is computed, to see what is heard of one: a learner's, in a room. Each time it is played a little otherwise. */
  playComputed(instrument: TakeRequest['instrument'], notes: readonly AskedNote[]): void {
    if (this.isListening() || this.isTaking() || notes.length === 0) return;
    this.clear('the computed player');
    this.isComputed.set(true);
    this.judgeable(computedTake(instrument, notes, this.click(), (this.computed += 1)));
  }

  endMidi(instrument: TakeRequest['instrument']): void {
    const played = this.midi.stop();
    if (played === undefined) this.fault.set('Nothing was played.');
    else this.takeEvents(instrument, played);
  }

  async open(field: HTMLInputElement, instrument: TakeRequest['instrument']): Promise<void> {
    const file = field.files?.item(0);
    field.value = '';
    if (file == null) return;
    this.clear(file.name);
    this.long.set(undefined);
    const largest = largestFile[this.session.isFamily() ? 'family' : 'staff'];
    if (file.size > largest) {
      this.fault.set(`“${file.name}” is larger than ${largest / 1_000_000} MB. Cut out the minutes that you want to hear.`);
      return;
    }
    this.isListening.set(true);
    let samples: Float32Array;
    try {
      const played = await eventsOfFile(file);
      if (played !== undefined) {
        this.isListening.set(false);
        this.takeEvents(instrument, played);
        return;
      }
      samples = await decodedFile(file);
    } catch (error) {
      this.isListening.set(false);
      this.fault.set(
        error instanceof ZelpitFault
          ? error.message
          : `“${file.name}” could not be read as sound. WAV, FLAC, Ogg and MP3 are read, and MIDI or finger events (JSON, CSV).`,
      );
      return;
    }
    this.isListening.set(false);
    if (samples.length > longestMinutes * 60 * sampleRate) this.long.set({ name: file.name, samples });
    else this.judgeable(samples);
  }

  /** Some seconds of a long file, as a take of their own. */
  openPart(from: number, seconds: number): void {
    const long = this.long();
    if (long === undefined || this.isListening() || this.isTaking()) return;
    this.clear(`${long.name} from ${clockText(from)}`);
    this.judgeable(long.samples.slice(from * sampleRate, (from + seconds) * sampleRate));
  }

  /**
   * Listens to the take against what was asked for.
   * @param heard once, where nothing else was asked meanwhile
   */
  listen(instrument: TakeRequest['instrument'], wanted: Asked, heard: (answer: TakeAnswer) => void): void {
    const samples = this.samples();
    if (samples === undefined) return;
    this.cancel();
    this.timing.set(undefined);
    this.wanted = wanted;
    let stretches: TakeRequest['stretches'];
    try {
      const events = this.events();
      stretches = events === undefined ? undefined : stretchesOfTimeline(instrument, timelineOf(instrument, events));
    } catch (error) {
      this.fault.set(error instanceof ZelpitFault ? error.message : 'What was played could not be read.');
      return;
    }
    this.isListening.set(true);
    const id = (this.asked += 1);
    this.worker = startTakeWorker();
    this.worker.onmessage = ({ data }: MessageEvent<TakeAnswer | TakeTimingAnswer>) => {
      if (data.id !== this.asked) return;
      this.isListening.set(false);
      if ('timing' in data) {
        this.cancel();
        this.timing.set(data.timing);
      } else if (data.heard.kind === 'fault') {
        this.cancel();
        this.fault.set(data.heard.message);
      } else {
        this.answer.set(data);
        heard(data);
      }
    };
    this.worker.onerror = () => {
      this.cancel();
      this.fault.set('The recording could not be listened to. Open it again.');
    };
    const request: TakeRequest = { id, instrument, wanted, samples, sampleRate, stretches };
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
    const [samples, answer, events, isComputed, timing] = [this.samples(), this.answer(), this.events(), this.isComputed(), this.timing()];
    this.clear('');
    return () => {
      this.events.set(events);
      this.isComputed.set(isComputed);
      this.isGivenBack = answer !== undefined;
      this.samples.set(samples);
      this.answer.set(answer);
      this.timing.set(timing);
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
    this.timing.set(undefined);
    this.kept.set(undefined);
    this.events.set(undefined);
    this.isComputed.set(false);
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

  private takeEvents(instrument: TakeRequest['instrument'], played: PlayedEvents): void {
    try {
      const timeline = timelineOf(instrument, played);
      if (timeline.length > longestMinutes * 60_000) {
        this.fault.set(`This is longer than ${longestMinutes} minutes. Play, or cut out, the minutes that you want to hear.`);
        return;
      }
      this.events.set(played);
      this.samples.set(soundOf(instrument, timeline));
    } catch (error) {
      this.fault.set(error instanceof ZelpitFault ? error.message : 'What was played could not be read.');
    }
  }

  /** What cannot be judged is said, and nothing is claimed of it. */
  private judgeable(samples: Float32Array): void {
    const problem = inputProblem(samples, sampleRate);
    if (problem === undefined) this.samples.set(samples);
    else this.fault.set(inputProblemText[problem]);
  }
}
