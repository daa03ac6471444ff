import type { LongTakeAsked, LongTakeResult } from '@zelpit/contract';
import { ZelpitFault, type Instrument } from '@zelpit/core';
import type { JobSteps } from '../jobs/job-kind';
import { answerOf, startApart } from '../platform/apart';
import { Turns } from '../platform/turns';
import type { LongTakeAnswer, LongTakeRequest } from './long-take-messages';

export interface LongTakesSettings {
  /** The bundled `long-take.worker.ts`. */
  readonly path: string;
  /** One take may be listened to for so long, in ms. */
  readonly ms?: number;
  /** Largest heap of its thread, in MB: what is heard in each moment of a minute stands there, and the take itself beside it. */
  readonly memoryMb?: number;
}

const usual = { ms: 600_000, memoryMb: 512 } as const;

/** Listens to long takes in a thread of its own, one at a time over all studios. */
export class LongTakes {
  private readonly settings: Required<LongTakesSettings>;
  private readonly turns = new Turns({
    ...{ atOnce: 1, waiting: 2 },
    full: 'This studio has other takes being listened to. Wait until they have been heard, then try again.',
  });

  constructor(settings: LongTakesSettings) {
    this.settings = { ...usual, ...settings };
  }

  /**
   * @param pieces of a WAV file
   * @throws ZelpitFault with a sentence, also for one that takes too long or too much room; the signal's reason where it was ended
   */
  listen(
    studioId: string,
    take: { readonly instrument: Instrument; readonly asked: LongTakeAsked },
    pieces: AsyncIterable<Uint8Array>,
    steps: JobSteps,
  ): Promise<LongTakeResult> {
    return this.turns.run(studioId, () => this.listenApart(take, pieces, steps));
  }

  private async listenApart(
    take: { readonly instrument: Instrument; readonly asked: LongTakeAsked },
    pieces: AsyncIterable<Uint8Array>,
    { progress, signal }: JobSteps,
  ): Promise<LongTakeResult> {
    signal.throwIfAborted();
    const { path, ms, memoryMb } = this.settings;
    const worker = startApart(path, { maxOldGenerationSizeMb: memoryMb });
    const lost = (): Error => new ZelpitFault('take-not-heard', 'Listening to this take takes too long, or too much room.');
    const coming = answerOf<LongTakeAnswer>(worker, { progress, signal, ms, lost });
    // Heard below; the pieces may fail before it.
    coming.catch(() => undefined);
    const ask = (request: LongTakeRequest): void => worker.postMessage(request);
    try {
      for await (const bytes of pieces) ask({ kind: 'piece', bytes });
      ask({ kind: 'listen', ...take });
      const answer = await coming;
      if (answer.kind === 'refused') throw new ZelpitFault('take-not-heard', answer.detail);
      return answer.result;
    } finally {
      await worker.terminate();
    }
  }
}
