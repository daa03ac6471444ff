import { ZelpitFault, type Instrument, type ReadingChoice } from '@zelpit/core';
import type { Worker } from 'node:worker_threads';
import type { JobSteps } from '../jobs/job-kind';
import { letGo, startApart } from '../platform/apart';
import { Turns } from '../platform/turns';
import type { KeptTune, TuneReading } from './kept-tune';
import type { BookRequest, ReaderAnswer, ReaderRequest } from './reader-messages';

export interface ReadersSettings {
  /** The bundled `reader.worker.ts`. */
  readonly path: string;
  /** Books read at once, over all studios. */
  readonly atOnce?: number;
  /** Books of one studio that may wait while one of them is read. */
  readonly waiting?: number;
  /** One tune may take so long, in ms. */
  readonly tuneMs?: number;
  /** Largest heap of a reader, in MB. */
  readonly memoryMb?: number;
}

const usual = { atOnce: 2, waiting: 12, tuneMs: 10_000, memoryMb: 160 } as const;

/**
 * Reads books of tunes in threads of their own, so that no text keeps the server from answering. A tune that takes too long or too much room is refused and the rest of
 * its book is read on. Each studio has one book read at a time and a queue of its own; studios take turns.
 */
export class Readers {
  private readonly settings: Required<ReadersSettings>;
  private readonly turns: Turns;
  private readonly idle: Worker[] = [];
  private isClosed = false;

  constructor(settings: ReadersSettings) {
    this.settings = { ...usual, ...settings };
    const { atOnce, waiting } = this.settings;
    this.turns = new Turns({ atOnce, waiting, full: 'This studio has other tunes being read. Wait until they are there, then try again.' });
  }

  /**
   * The tunes of a book, in their order.
   * @param file as it came, or a text
   * @param isMeant true where the instrument was chosen for this text, whatever its key says
   * @param choice what is read of each tune
   * Errors: `ZelpitFault` `not-abc-text`; `HttpProblem` `too-many-tries` where the studio's queue is full; the signal's reason where it was ended
   */
  read(
    studioId: string,
    instrument: Instrument,
    file: Uint8Array | string,
    { isMeant = false, choice = {}, steps }: { isMeant?: boolean; choice?: ReadingChoice; steps?: JobSteps } = {},
  ): Promise<readonly TuneReading[]> {
    return this.turns.run(studioId, () => this.readAll({ kind: 'book', instrument, file, from: 0, wasTooMuch: false, isMeant, choice }, steps));
  }

  /** A kept tune read again; undefined where that takes too long. */
  readKept(studioId: string, instrument: Instrument, { abc, voice, chordNote }: Pick<KeptTune, 'abc' | 'voice' | 'chordNote'>): Promise<KeptTune | undefined> {
    return this.turns.run(studioId, async () => {
      let kept: KeptTune | undefined;
      await this.ask({ kind: 'kept', instrument, abc, voice, chordNote }, (message) => {
        if (message.kind === 'kept') kept = message.tune;
      });
      return kept;
    });
  }

  /** Ends every reader. */
  async close(): Promise<void> {
    this.isClosed = true;
    await Promise.all(this.idle.splice(0).map((worker) => worker.terminate()));
  }

  private async readAll(request: BookRequest, steps?: JobSteps): Promise<readonly TuneReading[]> {
    const readings: TuneReading[] = [];
    let tunes: number | null = null;
    for (let wasTooMuch = false; ; wasTooMuch = true) {
      let isBegun = false;
      const hear = (message: ReaderAnswer): void => {
        if (message.kind === 'tune') readings.push(message.reading);
        if (message.kind === 'begun') [isBegun, tunes] = [true, message.tunes];
        steps?.progress(readings.length, tunes);
      };
      const end = await this.ask({ ...request, from: readings.length + (wasTooMuch ? 1 : 0), wasTooMuch }, hear, steps?.signal);
      if (end === 'done') return readings;
      if (!isBegun) throw new ZelpitFault('not-abc-text', 'This file takes too long to read, so nothing of it was added.');
    }
  }

  /** Asks a reader, and hears it until it is done, or until one answer takes too long or too much room, or nobody wants it any more; then it is ended. */
  private ask(request: ReaderRequest, hear: (message: ReaderAnswer) => void, signal?: AbortSignal): Promise<'done' | 'too-much'> {
    signal?.throwIfAborted();
    const worker = this.idle.pop() ?? this.start();
    return new Promise((resolve, reject) => {
      const watch = setTimeout(() => lose(), this.settings.tuneMs);
      const settle = (): void => {
        clearTimeout(watch);
        signal?.removeEventListener('abort', leave);
        letGo(worker);
      };
      const leave = (): void => {
        settle();
        void worker.terminate();
        reject(signal?.reason as Error);
      };
      signal?.addEventListener('abort', leave);
      const lose = (): void => {
        settle();
        void worker.terminate();
        resolve('too-much');
      };
      worker.on('error', lose).on('exit', lose);
      worker.on('message', (message: ReaderAnswer) => {
        if (message.kind !== 'done' && message.kind !== 'refused') {
          hear(message);
          watch.refresh();
          return;
        }
        settle();
        if (this.isClosed) void worker.terminate();
        else this.idle.push(worker);
        if (message.kind === 'done') resolve('done');
        else reject(new ZelpitFault(message.code, message.message, message.data));
      });
      worker.postMessage(request);
    });
  }

  private start(): Worker {
    return startApart(this.settings.path, { maxOldGenerationSizeMb: this.settings.memoryMb, maxYoungGenerationSizeMb: 32 });
  }
}
