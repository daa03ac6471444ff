import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import type { AskedNote, HeardRung } from '@zelpit/core/listening';
import type { Subscription } from 'rxjs';
import { Microphone } from '../microphone/microphone.service';
import { joined } from '../sound/joined';
import type { TakeAnswer, TakeRequest } from './take-messages';
import { resampled, sampleRate } from './take-sound';
import { startTakeWorker } from './take-worker';

/** A rung as it is played. */
export interface PlayedRung {
  readonly instrument: Instrument;
  /** All that is to be heard, as often as it is played. */
  readonly notes: readonly AskedNote[];
  /** Beats a minute. */
  readonly tempo: number;
}

const longestClimbSeconds = 20 * 60;

/** Listens to a climb in tempos: the microphone stays open, and of each rung only what is needed to judge it is held. Nothing is kept. */
@Injectable()
export class RungEar implements OnDestroy {
  private readonly microphone = inject(Microphone);
  /** True from the moment at which the microphone is open until the climb ends. */
  readonly isOpen = signal(false);
  /** Where the last slip was, or why nothing was judged. */
  readonly text = signal('');
  readonly level = computed(() => (this.isOpen() ? this.microphone.level() : undefined));
  private rung: PlayedRung | undefined;
  private pieces: Float32Array[] = [];
  private rate = sampleRate;
  private coming: Subscription | undefined;
  private worker: Worker | undefined;
  private asked = 0;
  /** True once its page was left, perhaps while somebody was asked for the microphone. */
  private isGone = false;

  ngOnDestroy(): void {
    this.isGone = true;
    this.close();
  }

  /** Opens the microphone. @throws MicrophoneFault with a sentence */
  async open(): Promise<void> {
    this.close();
    this.text.set('');
    // It ends by itself where it is unplugged: the climb goes on with keys.
    await this.microphone.start(longestClimbSeconds, () => this.lost(), false);
    if (this.isGone) {
      void this.microphone.stop();
      return;
    }
    this.coming = this.microphone.pieces.subscribe(({ samples, sampleRate: rate }) => {
      this.rate = rate;
      this.pieces.push(samples);
    });
    this.isOpen.set(true);
  }

  /** A rung begins, with its count-in. */
  begin(rung: PlayedRung): void {
    this.cancel();
    this.text.set('');
    this.pieces = [];
    this.rung = rung;
  }

  /** How the rung went so far; undefined where it was not listened to, or another question came meanwhile. */
  async heard(isOver: boolean): Promise<HeardRung | undefined> {
    const { rung } = this;
    if (!this.isOpen() || rung === undefined) return undefined;
    this.cancel();
    const id = this.asked;
    const samples = await resampled(joined(this.pieces), this.rate);
    if (id !== this.asked) return undefined;
    const heard = await this.judged(id, rung, samples, isOver);
    if (heard !== undefined) this.text.set(heard.text);
    return heard;
  }

  close(): void {
    this.cancel();
    this.coming?.unsubscribe();
    this.coming = undefined;
    this.pieces = [];
    this.rung = undefined;
    if (this.isOpen()) void this.microphone.stop();
    this.isOpen.set(false);
  }

  private judged(id: number, { instrument, notes, tempo }: PlayedRung, samples: Float32Array, isOver: boolean): Promise<HeardRung | undefined> {
    const worker = startTakeWorker();
    this.worker = worker;
    return new Promise((resolve) => {
      this.release = () => resolve(undefined);
      worker.onerror = () => resolve(undefined);
      worker.onmessage = ({ data: { heard } }: MessageEvent<TakeAnswer>) => resolve(heard.kind === 'rung' ? heard.rung : undefined);
      const wanted = { kind: 'rung', notes, click: { beatMs: 60_000 / tempo }, isOver } as const;
      worker.postMessage({ id, instrument, wanted, samples, sampleRate } satisfies TakeRequest);
    });
  }

  private release: () => void = () => undefined;

  private cancel(): void {
    this.asked += 1;
    this.worker?.terminate();
    this.worker = undefined;
    this.release();
  }

  private lost(): void {
    this.close();
    this.text.set('The microphone went away. Judge the rungs yourself, or plug it in and begin again.');
  }
}
