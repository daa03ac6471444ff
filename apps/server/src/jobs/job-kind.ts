import type { JobKind, JobResult } from '@zelpit/contract';
import type { AuditEvent } from '../audit/audit.repository';

/** A job as whoever does it needs to know it. */
export interface JobToDo {
  readonly studioId: string;
  readonly id: string;
  readonly kind: JobKind;
  readonly name: string;
  /** What was asked for, as the kind itself kept it. */
  readonly settings: unknown;
  /** The blob that came in; null for none. */
  readonly inputId: string | null;
}

/** How the work goes on, seen from inside of it. */
export interface JobSteps {
  /** Says how far it is. */
  readonly progress: (done: number, of: number | null) => void;
  /** Aborted where the job was stopped. */
  readonly signal: AbortSignal;
}

/** What is left to do once everything is read and checked: it is written in one transaction with the end of the job. */
export interface JobEnd<K extends JobKind = JobKind> {
  readonly write: () => Promise<JobResult<K>>;
  readonly audit?: (result: JobResult<K>) => AuditEvent | undefined;
  /** The blob that it gives. */
  readonly outputId?: string;
  /** What lies beside the database for this job goes, whatever became of it. */
  readonly tidy?: () => Promise<void>;
}

/**
 * One kind of long work. `prepare` may take its time and holds no transaction; errors are told to whoever began it by their sentence:
 * `HttpProblem`, `ZelpitFault`.
 */
export interface JobWork<K extends JobKind = JobKind> {
  readonly kind: K;
  readonly prepare: (job: JobToDo, steps: JobSteps) => Promise<JobEnd<K>>;
}

/** Gives work away without the type of its result, which is nobody else's business. */
export const jobWork = <K extends JobKind>(work: JobWork<K>): JobWork => work as unknown as JobWork;
