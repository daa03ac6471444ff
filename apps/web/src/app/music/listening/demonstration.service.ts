import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import type { Take, TakeAsked } from '@zelpit/contract';
import { firstValueFrom } from 'rxjs';
import { TakesService } from '../../studio/takes/takes.service';
import type { Asked, TakeAnswer, TakeRequest, TakeTimingAnswer } from './take-messages';
import type { JudgedPlace } from './take-review';
import { decodedFile, sampleRate } from './take-sound';
import { startTakeWorker } from './take-worker';

/** A demonstration that was listened to. */
export interface HeardDemonstration {
  readonly samples: Float32Array;
  readonly places: readonly JudgedPlace[];
}

/** What a teacher recorded and shows, to be heard beside a take of the same; fetched and listened to once, when it is first asked for. */
@Injectable()
export class Demonstration implements OnDestroy {
  private readonly takes = inject(TakesService);
  private readonly all = signal<readonly Take[]>([]);
  private readonly known = new Map<string, Promise<HeardDemonstration>>();
  private readonly workers = new Set<Worker>();
  readonly isLoading = signal(false);

  ngOnDestroy(): void {
    for (const worker of this.workers) worker.terminate();
  }

  /** Without them there is nothing to be heard beside. */
  load(): void {
    this.takes.ofTeachers().subscribe({ next: (takes) => this.all.set(takes.filter(({ isShown }) => isShown)), error: () => undefined });
  }

  /** The newest of the same thing on the same instrument. */
  of(asked: TakeAsked, model: string): Take | undefined {
    return this.all().find((take) => take.model === model && isSameAsked(take.asked, asked));
  }

  /** @throws ApiFault, and Error where it cannot be read */
  async hear(take: Take, instrument: TakeRequest['instrument'], wanted: Asked): Promise<HeardDemonstration> {
    const known = this.known.get(take.id) ?? this.listened(take, instrument, wanted);
    this.known.set(take.id, known);
    this.isLoading.set(true);
    try {
      return await known;
    } catch (error) {
      this.known.delete(take.id);
      throw error;
    } finally {
      this.isLoading.set(false);
    }
  }

  private async listened({ id }: Take, instrument: TakeRequest['instrument'], wanted: Asked): Promise<HeardDemonstration> {
    const samples = await decodedFile(await firstValueFrom(this.takes.sound(id)));
    const worker = startTakeWorker();
    this.workers.add(worker);
    try {
      const answer = await new Promise<TakeAnswer>((resolve, reject) => {
        worker.onmessage = ({ data }: MessageEvent<TakeAnswer | TakeTimingAnswer>) => ('heard' in data ? resolve(data) : undefined);
        worker.onerror = () => reject(new Error('The demonstration could not be listened to.'));
        worker.postMessage({ id: 1, instrument, wanted, samples, sampleRate } satisfies TakeRequest);
      });
      return { samples, places: placesIn(answer.heard) };
    } finally {
      worker.terminate();
      this.workers.delete(worker);
    }
  }
}

function placesIn(heard: TakeAnswer['heard']): readonly JudgedPlace[] {
  if (heard.kind === 'changes') return heard.take.changes;
  return heard.kind === 'piece' ? heard.piece.notes : [];
}

/** A change is the same the other way round: it is played to and fro. */
function isSameAsked(one: TakeAsked, other: TakeAsked): boolean {
  if (one.kind === 'changes' && other.kind === 'changes')
    return (one.from === other.from && one.to === other.to) || (one.from === other.to && one.to === other.from);
  if (one.kind === 'tune' && other.kind === 'tune') return one.tuneId === other.tuneId && one.what === other.what;
  return one.kind === 'line' && other.kind === 'line' && one.code === other.code;
}
