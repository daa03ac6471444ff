import type { Lesson, LessonInput, PlanItem } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import type { SaveOutcome } from '../http/save-outcome';
import { LessonEntity } from './lesson.entity';

type Row = Omit<LessonEntity, 'studioId' | 'createdAt'> & Pick<Lesson, 'student' | 'review'>;

const columns = `lesson.id, lesson.student_id AS "studentId", student.alias AS student, lesson.weekly_id AS "weeklyId", to_char(lesson.day, 'YYYY-MM-DD') AS "on", lesson.time,
  lesson.minutes, lesson.repeats, to_char(lesson.until, 'YYYY-MM-DD') AS until, lesson.note, lesson.plan, lesson.begun_at AS "begunAt", lesson.ended_at AS "endedAt", lesson.version,
  (SELECT json_build_object('id', r.id, 'sentAt', r.sent_at) FROM sheet r
   WHERE r.studio_id = lesson.studio_id AND r.lesson_id = lesson.id AND r.replaces_id IS NULL AND r.deleted_at IS NULL) AS review`;
const withStudent = 'JOIN student ON student.studio_id = lesson.studio_id AND student.id = lesson.student_id AND student.deleted_at IS NULL';

const shown = ({ begunAt, endedAt, ...row }: Row): Lesson => ({ ...row, begunAt: begunAt?.toISOString() ?? null, endedAt: endedAt?.toISOString() ?? null });

const dayMs = 86_400_000;
const daysOf = (from: string, to: string): string[] =>
  Array.from({ length: (Date.parse(to) - Date.parse(from)) / dayMs + 1 }, (_, index) => new Date(Date.parse(from) + index * dayMs).toISOString().slice(0, 10));

/** Lessons of a studio. */
export class LessonRepository {
  constructor(private readonly database: Database) {}

  /** Those of some days by day and time: single ones and held ones, and each day of a weekly one that was not held there. */
  async between(studioId: string, from: string, to: string, student: string | undefined): Promise<Lesson[]> {
    const rows = await this.database.query<Row>(
      `SELECT ${columns} FROM lesson ${withStudent}
       WHERE lesson.studio_id = $1 AND lesson.repeats = 'once' AND lesson.day BETWEEN $2::date AND $3::date AND ($4::uuid IS NULL OR lesson.student_id = $4)
       UNION ALL
       SELECT ${columns.replace('to_char(lesson.day,', 'to_char(each.day,')} FROM unnest($5::date[]) AS each(day)
       JOIN lesson ON lesson.day <= each.day AND (lesson.until IS NULL OR each.day <= lesson.until) AND (each.day - lesson.day) % 7 = 0 ${withStudent}
       WHERE lesson.studio_id = $1 AND lesson.repeats = 'weekly' AND ($4::uuid IS NULL OR lesson.student_id = $4)
         AND NOT EXISTS (SELECT 1 FROM lesson held WHERE held.studio_id = $1 AND held.weekly_id = lesson.id AND held.day = each.day)
       ORDER BY 5, 6, 3`,
      // How many days there are is known when the query is planned.
      [studioId, from, to, student ?? null, daysOf(from, to)],
    );
    return rows.map(shown);
  }

  async get(studioId: string, id: string): Promise<Lesson | undefined> {
    const [row] = await this.database.query<Row>(`SELECT ${columns} FROM lesson ${withStudent} WHERE lesson.studio_id = $1 AND lesson.id = $2`, [studioId, id]);
    return row === undefined ? undefined : shown(row);
  }

  async add(studioId: string, input: LessonInput, beside: { readonly weeklyId?: string; readonly plan?: readonly PlanItem[] } = {}): Promise<string> {
    const id = randomUUID();
    await this.database.query(
      `INSERT INTO lesson (studio_id, id, student_id, weekly_id, day, time, minutes, repeats, until, note, plan, version)
       VALUES ($1, $2, $3, $4, $5::date, $6, $7, $8, $9::date, $10, $11::jsonb, 1) ON CONFLICT (studio_id, weekly_id, day) DO NOTHING`,
      [
        ...[studioId, id, input.studentId, beside.weeklyId ?? null, input.on, input.time, input.minutes, input.repeats, input.until, input.note],
        JSON.stringify(beside.plan ?? []),
      ],
    );
    return id;
  }

  async save(
    studioId: string,
    id: string,
    version: number,
    { plan, ...lesson }: Omit<LessonInput, 'studentId'> & { readonly plan: readonly PlanItem[] },
  ): Promise<SaveOutcome> {
    const { affected } = await this.database.of(LessonEntity).update({ studioId, id, version }, { ...lesson, plan: [...plan], version: version + 1 });
    return affected === 1 ? 'saved' : 'stale';
  }

  async drop(studioId: string, id: string): Promise<boolean> {
    return (await this.database.of(LessonEntity).delete({ studioId, id })).affected === 1;
  }

  /** The lesson of a weekly one on a day, where it was held. */
  async heldOn(studioId: string, weeklyId: string, day: string): Promise<string | undefined> {
    const [row] = await this.database.query<{ id: string }>('SELECT id FROM lesson WHERE studio_id = $1 AND weekly_id = $2 AND day = $3::date', [
      studioId,
      weeklyId,
      day,
    ]);
    return row?.id;
  }

  /** Marks a lesson as begun, once; its plan stays where it has one. */
  async begin(studioId: string, id: string, plan: readonly PlanItem[]): Promise<void> {
    await this.database.query(
      `UPDATE lesson SET begun_at = coalesce(begun_at, now()), ended_at = NULL, plan = CASE WHEN jsonb_array_length(plan) = 0 THEN $3::jsonb ELSE plan END, version = version + 1
       WHERE studio_id = $1 AND id = $2`,
      [studioId, id, JSON.stringify(plan)],
    );
  }

  /** Keeps others from the same lesson until this transaction ends. */
  async hold(studioId: string, id: string): Promise<void> {
    await this.database.query('SELECT 1 FROM lesson WHERE studio_id = $1 AND id = $2 FOR UPDATE', [studioId, id]);
  }

  async end(studioId: string, id: string): Promise<boolean> {
    const rows = await this.database.query<{ id: string }>(
      `WITH ended AS (UPDATE lesson SET ended_at = now(), version = version + 1 WHERE studio_id = $1 AND id = $2 AND begun_at IS NOT NULL RETURNING id)
       SELECT id FROM ended`,
      [studioId, id],
    );
    return rows.length === 1;
  }
}
