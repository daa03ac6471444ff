import { splitBook, titleOf, ZelpitFault, type Instrument } from '@zelpit/core';
import type { Worker } from 'node:worker_threads';
import { letGo, startApart } from '../platform/apart';
import { Turns } from '../platform/turns';
import type { TuneReading } from './kept-tune';
import type { ReaderAnswer, ReaderRequest } from './reader-messages';

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
   * @param isMeant true where the instrument was chosen for this text, whatever its key says
   * Errors: `ZelpitFault` `not-abc-text`; `HttpProblem` `too-many-tries` where the studio's queue is full
   */
  read(studioId: string, instrument: Instrument, text: string, isMeant = false): Promise<readonly TuneReading[]> {
    return this.turns.run(studioId, () => this.readAll({ instrument, text, from: 0, isMeant }));
  }

  /** Ends every reader. */
  async close(): Promise<void> {
    this.isClosed = true;
    await Promise.all(this.idle.splice(0).map((worker) => worker.terminate()));
  }

  private async readAll(request: ReaderRequest): Promise<readonly TuneReading[]> {
    const readings: TuneReading[] = [];
    for (;;) {
      const end = await this.readOn({ ...request, from: readings.length }, readings);
      if (end === 'done') return readings;
      readings.push(tooMuch(request.text, readings.length));
      if (readings.length >= splitBook(request.text).length) return readings;
    }
  }

  /** Reads from a place until the end, or until one tune is too much for its reader, which is ended then. */
  private readOn(request: ReaderRequest, readings: TuneReading[]): Promise<'done' | 'too-much'> {
    const worker = this.idle.pop() ?? this.start();
    return new Promise((resolve, reject) => {
      const watch = setTimeout(() => lose(), this.settings.tuneMs);
      const settle = (): void => {
        clearTimeout(watch);
        letGo(worker);
      };
      const lose = (): void => {
        settle();
        void worker.terminate();
        resolve('too-much');
      };
      worker.on('error', lose).on('exit', lose);
      worker.on('message', (answer: ReaderAnswer) => {
        if (answer.kind === 'tune') {
          readings.push(answer.reading);
          watch.refresh();
          return;
        }
        settle();
        if (this.isClosed) void worker.terminate();
        else this.idle.push(worker);
        if (answer.kind === 'done') resolve('done');
        else reject(new ZelpitFault(answer.code, answer.message, answer.data));
      });
      worker.postMessage(request);
    });
  }

  private start(): Worker {
    return startApart(this.settings.path, { maxOldGenerationSizeMb: this.settings.memoryMb, maxYoungGenerationSizeMb: 32 });
  }
}

/** A tune that no reader could read in its time and room. */
function tooMuch(text: string, index: number): TuneReading {
  const entry = splitBook(text)[index];
  const fault = {
    line: entry.firstLine,
    column: 1,
    problem: 'This tune takes too long to read, so it was left out.',
    expected: 'a shorter text, or one without long rows of the same character',
  };
  return { kind: 'refused', entry: { title: titleOf(entry), firstLine: entry.firstLine, abc: entry.abc.slice(0, shown), faults: [fault] } };
}

/** So much of a text that could not be read goes back, in characters. */
const shown = 2000;
