import { HttpProblem } from '../http/problem';

interface Job {
  readonly studioId: string;
  readonly run: () => Promise<void>;
}

export interface TurnsSettings {
  /** Jobs at once, over all studios. */
  readonly atOnce: number;
  /** Jobs of one studio that may wait while one of them runs. */
  readonly waiting: number;
  /** What is said where its queue is full. */
  readonly full: string;
}

/** Long work taken in turns: each studio has one job running at a time and a queue of its own, so that none waits behind another's pile. */
export class Turns {
  private readonly jobs: Job[] = [];
  private readonly running = new Set<string>();

  constructor(private readonly settings: TurnsSettings) {}

  /** Errors: those of the work; `HttpProblem` `too-many-tries` where the studio's queue is full */
  run<T>(studioId: string, work: () => Promise<T>): Promise<T> {
    const { waiting, full } = this.settings;
    if (this.jobs.filter((job) => job.studioId === studioId).length >= waiting) return Promise.reject(new HttpProblem('too-many-tries', full));
    return new Promise((resolve, reject) => {
      this.jobs.push({ studioId, run: () => work().then(resolve, reject) });
      this.next();
    });
  }

  private next(): void {
    if (this.running.size >= this.settings.atOnce) return;
    const at = this.jobs.findIndex(({ studioId }) => !this.running.has(studioId));
    if (at === -1) return;
    const [{ studioId, run }] = this.jobs.splice(at, 1);
    this.running.add(studioId);
    void run().finally(() => {
      this.running.delete(studioId);
      this.next();
    });
    this.next();
  }
}
