import type { Attempt, AttemptInput, AttemptRating, Page, PageQuery } from '@zelpit/contract';
import { loggedOf, type KeptAttempt, type LoggedAttempt } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { cursorOf, cutPage, readCursor } from '../http/cursor';
import { AttemptCorrectionEntity, AttemptEntity } from './attempt.entity';

interface Wanted extends PageQuery {
  readonly student?: string;
  readonly item?: string;
  readonly lesson?: string;
  readonly since?: string;
  readonly title?: string;
}

interface Row extends Omit<AttemptEntity, 'studioId' | 'createdAt'> {
  readonly exact: string;
  readonly correction: { readonly rating: AttemptRating; readonly note: string; readonly who: string; readonly at: string } | null;
}

const columns = `a.id, a.student_id AS "studentId", a.item_id AS "itemId", a.lesson_id AS "lessonId", a.title, a.kind, a.model, a.tempo, a.count, a.rating, a.ladder, a.seconds, a.device, a.note, a.by, a.at,
  a.at::text AS exact, c.correction`;
const lastCorrection = `LEFT JOIN LATERAL (
    SELECT jsonb_build_object('rating', rating, 'note', note, 'who', who, 'at', to_char(created_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')) AS correction
    FROM attempt_correction WHERE studio_id = a.studio_id AND attempt_id = a.id ORDER BY created_at DESC LIMIT 1
  ) c ON true`;

const shown = ({ exact: _, at, ...row }: Row): Attempt => ({ ...row, at: at.toISOString() });

/** What students practised: a log, and corrections beside it. */
export class AttemptRepository {
  constructor(private readonly database: Database) {}

  /** Newest first. */
  async list(studioId: string, { limit, after, student, item, lesson, since, title }: Wanted): Promise<Page<Attempt>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<Row>(
      `SELECT ${columns} FROM attempt a ${lastCorrection}
       WHERE a.studio_id = $1
         AND ($4::uuid IS NULL OR a.student_id = $4)
         AND ($2::timestamptz IS NULL OR (a.at, a.id) < ($2::timestamptz, $3::uuid))
         AND ($5::uuid IS NULL OR a.item_id = $5)
         AND ($8::uuid IS NULL OR a.lesson_id = $8)
         AND ($9::text IS NULL OR a.title = $9)
         AND a.at >= coalesce($6::timestamptz, '-infinity')
       ORDER BY a.at DESC, a.id DESC LIMIT $7`,
      [studioId, at ?? null, id ?? null, student ?? null, item ?? null, since ?? null, limit + 1, lesson ?? null, title ?? null],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.exact, row.id), shown);
  }

  /** All of one student since a moment, as far as a logbook reads it; its corrections come in one look. */
  async logged(studioId: string, student: string, since: string | undefined): Promise<LoggedAttempt[]> {
    const rows = await this.database.query<Omit<KeptAttempt, 'at' | 'correction'> & { readonly at: Date; readonly corrected: AttemptRating | null }>(
      `SELECT a.kind, a.title, a.at, a.seconds, a.tempo, a.rating, a.by, a.ladder, c.rating AS corrected
       FROM attempt a LEFT JOIN (
         SELECT DISTINCT ON (attempt_id) attempt_id, rating FROM attempt_correction WHERE studio_id = $1 AND student_id = $2 ORDER BY attempt_id, created_at DESC
       ) c ON c.attempt_id = a.id
       WHERE a.studio_id = $1 AND a.student_id = $2 ${since === undefined ? '' : 'AND a.at >= $3::timestamptz'}
       ORDER BY a.at DESC, a.id DESC`,
      // A moment that is known when it is planned leaves the years before it out.
      since === undefined ? [studioId, student] : [studioId, student, since],
    );
    return rows.map(({ at, corrected, ...row }) => loggedOf({ ...row, at: at.toISOString(), correction: corrected === null ? null : { rating: corrected } }));
  }

  async get(studioId: string, id: string): Promise<Attempt | undefined> {
    const [row] = await this.database.query<Row>(`SELECT ${columns} FROM attempt a ${lastCorrection} WHERE a.studio_id = $1 AND a.id = $2`, [studioId, id]);
    return row === undefined ? undefined : shown(row);
  }

  async add(studioId: string, { at, ...attempt }: AttemptInput, by: 'student' | 'teacher'): Promise<Attempt> {
    const id = randomUUID();
    await this.database.of(AttemptEntity).insert({ studioId, id, ...attempt, by, at: new Date(at) });
    return { id, ...attempt, at: new Date(at).toISOString(), by, correction: null };
  }

  async correct(
    studioId: string,
    { id, studentId }: Attempt,
    { rating, note }: { readonly rating: AttemptRating; readonly note: string },
    who: string,
  ): Promise<void> {
    await this.database.of(AttemptCorrectionEntity).insert({ studioId, id: randomUUID(), attemptId: id, studentId, rating, note, who });
  }
}
