import { ZelpitFault } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import type { AuditRepository } from '../audit/audit.repository';
import type { Database } from '../database/database';
import { HttpProblem, isDatabaseAway, problemFor } from '../http/problem';
import type { JobEnd, JobSteps, JobToDo, JobWork } from './job-kind';
import type { Beginner, JobProgress, JobRepository } from './job.repository';
import { workQueue } from './work-queue';

export interface JobWorkerParts {
  readonly database: Database;
  readonly jobs: JobRepository;
  readonly audit: AuditRepository;
  readonly logger: Logger;
}

/** Jobs of different studios that one server does at once. */
const atOnce = 2;
const beatMs = 500;
/** Where nothing was to be done, and nobody says that there is something, it is asked again after so long. */
const restMs = 1000;
/** How often it is looked whether a studio's work was left behind. */
const lookMs = 10_000;

interface Message {
  readonly studioId: string;
}

/** Ended by whoever began it, or taken over by another worker: what was done of it must not stand. */
class NoLongerOurs extends Error {}

/**
 * Does long work, one job of a studio at a time. A message in the queue says only that a studio has work; whoever gets it does that studio's next job and sends another
 * message where more waits. So studios take turns however much one of them has put in.
 */
export class JobWorker {
  private readonly works: ReadonlyMap<string, JobWork>;
  private readonly id = randomUUID();
  private starting?: Promise<void>;
  private looking?: NodeJS.Timeout;
  private isClosing = false;
  /** Ends the rest of each loop that has nothing to do. */
  private readonly resting = new Set<() => void>();

  constructor(
    private readonly boss: PgBoss,
    private readonly parts: JobWorkerParts,
    works: readonly JobWork[],
  ) {
    this.works = new Map(works.map((work) => [work.kind, work]));
    boss.on('error', (error) => parts.logger.warn({ reason: error.message }, 'the job queue had a fault'));
  }

  /** Begins to work, with what was left behind first. Once is enough. */
  start(): Promise<void> {
    this.starting ??= this.parts.database.apart(() =>
      this.begin().catch((error: unknown) => {
        this.starting = undefined;
        throw error;
      }),
    );
    return this.starting;
  }

  /** Says that a studio has work, in the transaction that added it. */
  async tell(studioId: string): Promise<void> {
    await this.start();
    const { manager } = this.parts.database;
    const executeSql = async (text: string, values: unknown[]): Promise<{ rows: unknown[] }> => ({ rows: await manager.query<unknown[]>(text, values) });
    await this.boss.send(workQueue, { studioId }, { singletonKey: studioId, db: { executeSql } as never });
  }

  /** What was told is looked at without waiting. Called when the transaction is through. */
  wake(): void {
    for (const wake of this.resting) wake();
  }

  /** Lets what runs go on until it is begun anew elsewhere; takes nothing more. */
  async close(): Promise<void> {
    clearInterval(this.looking);
    this.isClosing = true;
    this.wake();
    if (this.starting === undefined) return;
    await this.starting.catch(() => undefined);
    await this.boss.stop({ graceful: false, wait: true, close: true }).catch(() => undefined);
  }

  private async begin(): Promise<void> {
    await this.boss.start();
    for (let count = 0; count < atOnce; count += 1) void this.loop();
    this.looking = setInterval(() => void this.look(), lookMs).unref();
    await this.look();
  }

  /** The package's own loop lets a fault of the database end the process where it comes between a job and the message's end: so this one is ours. */
  private async loop(): Promise<void> {
    while (!this.isClosing) {
      let wasBusy = false;
      try {
        wasBusy = await this.next();
      } catch (error) {
        this.parts.logger.warn({ reason: (error as Error).message }, 'the job queue had a fault');
      }
      if (!wasBusy) await this.rest();
    }
  }

  /** True where there was something to do. */
  private async next(): Promise<boolean> {
    const messages = await this.boss.fetch<Message>(workQueue);
    const message = messages?.at(0);
    if (message === undefined) return false;
    try {
      await this.workFor(message.data.studioId);
    } finally {
      await this.boss.complete(workQueue, message.id);
    }
    return true;
  }

  private async rest(): Promise<void> {
    if (this.isClosing) return;
    await new Promise<void>((resolve) => {
      const timer = setTimeout(() => wake(), restMs).unref();
      const wake = (): void => {
        clearTimeout(timer);
        this.resting.delete(wake);
        resolve();
      };
      this.resting.add(wake);
    });
  }

  /** Work whose message was lost, or whose server was, is told of again. */
  private async look(): Promise<void> {
    try {
      for (const studioId of await this.parts.jobs.studiosWithWork()) await this.boss.send(workQueue, { studioId }, { singletonKey: studioId });
    } catch (error) {
      this.parts.logger.warn({ reason: (error as Error).message }, 'work that was left behind could not be looked for');
    }
  }

  private async workFor(studioId: string): Promise<void> {
    const { database, jobs, logger } = this.parts;
    const job = await database.inStudio(studioId, () => jobs.begin(studioId, this.id));
    if (job === undefined) return;
    const started = Date.now();
    const outcome = await this.run(job);
    logger.info({ kind: job.kind, outcome, ms: Date.now() - started }, 'job ended');
    await this.boss.send(workQueue, { studioId }, { singletonKey: studioId });
    this.wake();
  }

  private async run(job: JobToDo & { readonly beginner: Beginner }): Promise<'done' | 'failed' | 'stopped' | 'left'> {
    const pulse = new Pulse(this.parts, job, this.id);
    let end: JobEnd | undefined;
    try {
      end = await this.work(job).prepare(job, pulse);
      await this.write(job, end, pulse);
      return 'done';
    } catch (error) {
      if (pulse.signal.aborted || error instanceof NoLongerOurs) return 'stopped';
      // It stays this worker's until it is taken for lost, and is begun again then.
      if (isDatabaseAway(error)) return 'left';
      return await this.fail(job, error, pulse);
    } finally {
      pulse.end();
      await end?.tidy?.();
    }
  }

  private work({ kind }: JobToDo): JobWork {
    const work = this.works.get(kind);
    if (work === undefined) throw new Error(`There is no work of the kind “${kind}”.`);
    return work;
  }

  /** All that the job gives and its end are one transaction: after a fall there is either both or none. */
  private async write(job: JobToDo & { readonly beginner: Beginner }, end: JobEnd, pulse: Pulse): Promise<void> {
    const { database, jobs, audit } = this.parts;
    await database.inStudio(job.studioId, async () => {
      const result = await end.write();
      const event = end.audit?.(result);
      if (event !== undefined) await audit.add(job.beginner, event);
      if (!(await jobs.end(job, this.id, { result, outputId: end.outputId, progress: pulse.now }))) throw new NoLongerOurs();
    });
  }

  private async fail(job: JobToDo, error: unknown, pulse: Pulse): Promise<'failed' | 'left'> {
    const { database, jobs, logger } = this.parts;
    if (!(error instanceof HttpProblem || error instanceof ZelpitFault)) logger.error({ reason: (error as Error).message, kind: job.kind }, 'job failed');
    try {
      await database.inStudio(job.studioId, () => jobs.end(job, this.id, { problem: problemFor(error).detail, progress: pulse.now }));
      return 'failed';
    } catch (second) {
      if (isDatabaseAway(second)) return 'left';
      throw second;
    }
  }
}

/** Says twice a second that a job goes on and how far it is, and hears that it was stopped. */
class Pulse implements JobSteps {
  private readonly ending = new AbortController();
  private readonly timer: NodeJS.Timeout;
  now: JobProgress = { done: 0, of: null };
  private isBeating = false;

  constructor(
    private readonly parts: JobWorkerParts,
    private readonly job: JobToDo,
    private readonly worker: string,
  ) {
    this.timer = setInterval(() => void this.beat(), beatMs).unref();
  }

  get signal(): AbortSignal {
    return this.ending.signal;
  }

  readonly progress = (done: number, of: number | null): void => {
    this.now = { done, of };
  };

  end(): void {
    clearInterval(this.timer);
  }

  private async beat(): Promise<void> {
    if (this.isBeating) return;
    this.isBeating = true;
    const { database, jobs } = this.parts;
    try {
      const isOurs = await database.inStudio(this.job.studioId, () => jobs.beat(this.job, this.worker, this.now));
      if (!isOurs) this.ending.abort();
    } catch {
      // The next one tries again; whoever takes the job for lost begins it anew, and then it is ours no more.
    } finally {
      this.isBeating = false;
    }
  }
}
