import { jobDays, jobSchema, mostJobsWaiting, type Job, type JobKind, type JobState } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';
import type { JobToDo } from './job-kind';

interface Row {
  readonly id: string;
  readonly kind: JobKind;
  readonly name: string;
  readonly state: JobState;
  readonly done: number;
  readonly of: number | null;
  readonly problem: string;
  readonly created_at: Date;
  readonly ended_at: Date | null;
  readonly result?: unknown;
}

export interface NewJob {
  readonly kind: JobKind;
  readonly name: string;
  readonly settings: object;
  readonly inputId: string | null;
  /** Whom it hears: the job goes with that student. */
  readonly studentId?: string | null;
}

/** Who began a job. */
export interface Beginner {
  readonly studioId: string;
  readonly teacherId: string;
  readonly name: string;
}

/** How a job came to its end: with a result, or with why it has none. */
export interface JobOutcome {
  readonly result?: unknown;
  readonly problem?: string;
  readonly outputId?: string;
  readonly progress: JobProgress;
}

export interface JobProgress {
  readonly done: number;
  readonly of: number | null;
}

const shown = 'id, kind, name, state, done, "of", problem, created_at, ended_at';
/** Jobs that one person is shown. */
const mostShown = 50;
/** A job whose server has not been heard of for so long is begun again. */
export const staleSeconds = 20;
/** What ends its server each time is not begun for ever. */
const mostBeginnings = 3;

const jobOf = ({ created_at, ended_at, result = null, ...row }: Row): Job =>
  jobSchema.parse({ ...row, result, begunAt: created_at.toISOString(), endedAt: ended_at?.toISOString() ?? null });

/** Long work: what was asked for, how far it is, what it gave. Who does it, and when, is `JobWorker`'s. */
export class JobRepository {
  constructor(private readonly database: Database) {}

  /** @throws HttpProblem `too-many-tries` where as many of this studio wait already as may */
  async add({ studioId, teacherId, name: who }: Beginner, { kind, name, settings, inputId, studentId = null }: NewJob): Promise<Job> {
    await this.oneAtATime(studioId);
    const [{ waiting }] = await this.database.query<{ waiting: string }>("SELECT count(*) AS waiting FROM job WHERE studio_id = $1 AND state = 'waiting'", [
      studioId,
    ]);
    if (Number(waiting) >= mostJobsWaiting)
      throw new HttpProblem('too-many-tries', `${mostJobsWaiting} pieces of work of this studio are waiting already. Try again when they are done.`);
    const [row] = await this.database.query<Row>(
      `INSERT INTO job (studio_id, id, teacher_id, who, kind, name, settings, input_id, student_id) VALUES ($1, $2, $3, $4, $5, $6, $7::jsonb, $8, $9) RETURNING ${shown}`,
      [studioId, randomUUID(), teacherId, who, kind, name, JSON.stringify(settings), inputId, studentId],
    );
    return jobOf(row);
  }

  /** Somebody's own, the latest first, without what they gave. */
  async list(studioId: string, teacherId: string): Promise<Job[]> {
    const rows = await this.database.query<Row>(
      `SELECT ${shown} FROM job WHERE studio_id = $1 AND teacher_id = $2 ORDER BY created_at DESC, id LIMIT ${mostShown}`,
      [studioId, teacherId],
    );
    return rows.map(jobOf);
  }

  async get(studioId: string, teacherId: string, id: string): Promise<Job | undefined> {
    const [row] = await this.database.query<Row>(`SELECT ${shown}, result FROM job WHERE studio_id = $1 AND teacher_id = $2 AND id = $3`, [
      studioId,
      teacherId,
      id,
    ]);
    return row === undefined ? undefined : jobOf(row);
  }

  /** The blob that a job gave; undefined where it gave none. */
  async outputOf(studioId: string, teacherId: string, id: string): Promise<string | undefined> {
    const [row] = await this.database.query<{ output_id: string | null }>('SELECT output_id FROM job WHERE studio_id = $1 AND teacher_id = $2 AND id = $3', [
      studioId,
      teacherId,
      id,
    ]);
    return row?.output_id ?? undefined;
  }

  /** True where it was still to be ended. */
  async stop(studioId: string, teacherId: string, id: string): Promise<boolean> {
    const rows = await this.database.query(
      `WITH stopped AS (UPDATE job SET state = 'stopped', ended_at = now() WHERE studio_id = $1 AND teacher_id = $2 AND id = $3 AND state IN ('waiting', 'running')
         RETURNING input_id),
       emptied AS (DELETE FROM blob WHERE studio_id = $1 AND id IN (SELECT input_id FROM stopped))
       SELECT 1 FROM stopped`,
      [studioId, teacherId, id],
    );
    return rows.length > 0;
  }

  /** Takes an ended one off the list, with what it gave. False where there is none that has ended. */
  async forget(studioId: string, teacherId: string, id: string): Promise<boolean> {
    const rows = await this.database.query(
      `WITH gone AS (DELETE FROM job WHERE studio_id = $1 AND teacher_id = $2 AND id = $3 AND ended_at IS NOT NULL RETURNING output_id),
       emptied AS (DELETE FROM blob WHERE studio_id = $1 AND id IN (SELECT output_id FROM gone))
       SELECT 1 FROM gone`,
      [studioId, teacherId, id],
    );
    return rows.length > 0;
  }

  /** Ended ones go after a while, of the studio in hand. */
  async clear(): Promise<void> {
    await this.database.query(
      `WITH gone AS (DELETE FROM job WHERE ended_at < now() - interval '${jobDays} days' RETURNING output_id)
       DELETE FROM blob WHERE id IN (SELECT output_id FROM gone)`,
    );
  }

  /** Takes the next one of a studio in hand for this worker; undefined where none waits, or one is running elsewhere: a studio has one at a time. */
  async begin(studioId: string, worker: string): Promise<(JobToDo & { readonly beginner: Beginner }) | undefined> {
    await this.oneAtATime(studioId);
    // What its server left behind waits again, unless it has ended one server after the other.
    await this.database.query(
      `UPDATE job SET state = CASE WHEN begun >= ${mostBeginnings} THEN 'failed' ELSE 'waiting' END,
         ended_at = CASE WHEN begun >= ${mostBeginnings} THEN now() END,
         problem = CASE WHEN begun >= ${mostBeginnings} THEN 'This was begun ${mostBeginnings} times and never came to its end. Nothing was changed.' ELSE '' END
       WHERE studio_id = $1 AND state = 'running' AND beat_at < now() - make_interval(secs => ${staleSeconds})`,
      [studioId],
    );
    const rows = await this.database.query<{
      id: string;
      kind: JobKind;
      name: string;
      settings: unknown;
      input_id: string | null;
      teacher_id: string;
      who: string;
    }>(
      `WITH next AS (
         SELECT id FROM job WHERE studio_id = $1 AND state = 'waiting' AND NOT EXISTS (SELECT 1 FROM job WHERE studio_id = $1 AND state = 'running')
         ORDER BY created_at, id LIMIT 1
       ), taken AS (
         UPDATE job SET state = 'running', worker = $2, beat_at = now(), begun = begun + 1, done = 0 WHERE studio_id = $1 AND id IN (SELECT id FROM next)
         RETURNING id, kind, name, settings, input_id, teacher_id, who
       ) SELECT * FROM taken`,
      [studioId, worker],
    );
    if (rows.length === 0) return undefined;
    const [{ id, kind, name, settings, input_id: inputId, teacher_id: teacherId, who }] = rows;
    return { studioId, id, kind, name, settings, inputId, beginner: { studioId, teacherId, name: who } };
  }

  /** Says that it goes on and how far it is. False where it is this worker's no more: it was stopped, or taken for lost. */
  async beat({ studioId, id }: JobToDo, worker: string, { done, of }: JobProgress): Promise<boolean> {
    const rows = await this.database.query(
      `WITH beaten AS (UPDATE job SET beat_at = now(), done = $4, "of" = $5 WHERE studio_id = $1 AND id = $2 AND worker = $3 AND state = 'running' RETURNING 1)
       SELECT 1 FROM beaten`,
      [studioId, id, worker, done, of],
    );
    return rows.length > 0;
  }

  /** Ends it, with what it gave. False where it is this worker's no more; what was written with it must then not stand. */
  async end({ studioId, id }: JobToDo, worker: string, { result = null, problem = '', outputId, progress: { done, of } }: JobOutcome): Promise<boolean> {
    const rows = await this.database.query(
      `WITH ended AS (
         UPDATE job SET state = $4, result = $5::jsonb, problem = $6, output_id = $7, ended_at = now(), done = $8, "of" = $9
         WHERE studio_id = $1 AND id = $2 AND worker = $3 AND state = 'running' RETURNING input_id
       ), emptied AS (DELETE FROM blob WHERE studio_id = $1 AND id IN (SELECT input_id FROM ended))
       SELECT 1 FROM ended`,
      [studioId, id, worker, problem === '' ? 'done' : 'failed', result === null ? null : JSON.stringify(result), problem, outputId ?? null, done, of],
    );
    return rows.length > 0;
  }

  /** Studios that have work to be done, of all studios. */
  async studiosWithWork(): Promise<string[]> {
    const rows = await this.database.query<{ id: string }>('SELECT studios_with_work($1) AS id', [staleSeconds]);
    return rows.map(({ id }) => id);
  }

  /** Two that look at a studio's list at once would both find nothing running. */
  private async oneAtATime(studioId: string): Promise<void> {
    await this.database.query("SELECT pg_advisory_xact_lock(hashtextextended('jobs ' || $1, 0))", [studioId]);
  }
}
