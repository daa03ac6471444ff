import { putAwayDays, type Page, type PageQuery, type PutAway } from '@zelpit/contract';
import type { Database } from '../database/database';
import { StudentEntity } from '../students/student.entity';
import { putAwayPartsOf, type PutAwayPart, type Thing } from '../things/thing';
import { cursorOf, cutPage, readCursor } from '../http/cursor';

interface Row {
  readonly kind: PutAway['kind'];
  readonly id: string;
  readonly name: string;
  readonly since: Date;
  readonly until: Date;
  /** To the microsecond, as the database orders. */
  readonly exact: string;
}

const kept = `interval '${putAwayDays} days'`;

/** What was put away: listed while it can be brought back, gone afterwards. The database's clock decides. */
export class PutAwayRepository {
  private readonly parts: readonly (PutAwayPart & { readonly kind: string })[];

  constructor(
    private readonly database: Database,
    things: readonly Thing[],
  ) {
    this.parts = putAwayPartsOf(things);
  }

  /** Newest first. */
  async list(studioId: string, { limit, after }: PageQuery): Promise<Page<PutAway>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<Row>(
      `SELECT kind, id, name, deleted_at AS since, deleted_at + ${kept} AS until, deleted_at::text AS exact FROM (
         ${this.parts.map(({ kind, table, name }) => `SELECT '${kind}' AS kind, id, ${name} AS name, deleted_at FROM ${table} WHERE studio_id = $1 AND deleted_at IS NOT NULL`).join(' UNION ALL ')}
       ) AS away
       WHERE $2::timestamptz IS NULL OR (deleted_at, id) < ($2::timestamptz, $3::uuid)
       ORDER BY deleted_at DESC, id DESC LIMIT $4`,
      [studioId, at ?? null, id ?? null, limit + 1],
    );
    return cutPage(
      rows,
      limit,
      (row) => cursorOf(row.exact, row.id),
      (row) => ({ kind: row.kind, id: row.id, name: row.name, since: row.since.toISOString(), until: row.until.toISOString() }),
    );
  }

  /** In the studio in hand: deletes for good what was put away longer ago than it is kept: what names another thing before what it names. */
  async clear(): Promise<number> {
    return this.database.transaction(async () => {
      let gone = 0;
      for (const { table, alsoClears } of [...this.parts].reverse()) {
        // What is gone is not named in the list of changes either.
        const rows = await this.database.query(
          `WITH old AS (DELETE FROM ${table} WHERE deleted_at < now() - ${kept} RETURNING id),
             unnamed AS (UPDATE audit_entry SET thing = 'a ${table}' WHERE thing_id IN (SELECT id FROM old))
           SELECT id FROM old`,
        );
        gone += rows.length;
        if (alsoClears !== undefined) await this.database.query(`DELETE FROM ${alsoClears.table} WHERE ${alsoClears.since} < now() - ${kept}`);
      }
      return gone;
    });
  }

  /**
   * Deletes a student from the database, put away or not: their sheets and instruments, their links and sessions, and every mention in the
   * list of changes and in kept answers. False where there is no such student here.
   */
  async forget(studioId: string, id: string): Promise<boolean> {
    return this.database.transaction(async () => {
      if (!(await this.database.of(StudentEntity).exists({ where: { studioId, id }, withDeleted: true }))) return false;
      await this.database.query(`DELETE FROM audit_entry WHERE studio_id = $1 AND (thing_id = $2 OR thing_id IN (${this.idsOfStudent('$1', '$2')}))`, [
        studioId,
        id,
      ]);
      await this.database.query('DELETE FROM kept_answer WHERE studio_id = $1 AND position($2 in body) > 0', [studioId, id]);
      await this.database.query('SELECT sessions_end_of_student($1)', [id]);
      await this.database.of(StudentEntity).delete({ studioId, id });
      return true;
    });
  }

  /** The ids of everything that goes with a student, as a query. */
  private idsOfStudent(studio: string, student: string): string {
    const own = [...this.parts, { table: 'lesson', isOfStudent: true as const }];
    return own
      .flatMap(({ table, isOfStudent }) => (isOfStudent ? [`SELECT id FROM ${table} WHERE studio_id = ${studio} AND student_id = ${student}`] : []))
      .join(' UNION ALL ');
  }
}
