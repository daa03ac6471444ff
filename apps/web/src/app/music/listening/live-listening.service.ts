import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import type { HeardChange, LivePitch } from '@zelpit/core/listening';
import type { Subscription } from 'rxjs';
import { Microphone } from '../microphone/microphone.service';
import type { LiveAnswer, LiveRequest } from './live-messages';

/** Listens while the microphone is open: what sounds now, and how the last change went. Each page that does has its own. */
@Injectable()
export class LiveListening implements OnDestroy {
  private readonly microphone = inject(Microphone);
  readonly pitch = signal<LivePitch | undefined>(undefined);
  readonly change = signal<HeardChange | undefined>(undefined);
  private worker: Worker | undefined;
  private coming: Subscription | undefined;

  ngOnDestroy(): void {
    this.end();
  }

  /** @param pair whose changes are named as they are played */
  begin(instrument: Instrument, pair?: readonly [NoteId, NoteId]): void {
    this.end();
    const worker = new Worker(new URL('./live.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    worker.onmessage = ({ data }: MessageEvent<LiveAnswer>) => {
      this.pitch.set(data.pitch);
      this.change.set(data.change);
    };
    let hasBegun = false;
    const tell = (request: LiveRequest): void => worker.postMessage(request);
    this.coming = this.microphone.pieces.subscribe(({ samples, sampleRate }) => {
      if (!hasBegun) tell({ kind: 'begin', instrument, sampleRate, pair });
      hasBegun = true;
      tell({ kind: 'piece', samples });
    });
  }

  end(): void {
    this.coming?.unsubscribe();
    this.worker?.terminate();
    this.worker = undefined;
    this.pitch.set(undefined);
    this.change.set(undefined);
  }
}
