import type { Page, PageQuery, Take, TakeInput, TakeSave } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { cursorOf, cutPage, readCursor } from '../http/cursor';
import { TakeEntity } from './take.entity';

type Row = Omit<TakeEntity, 'studioId' | 'blobId'> & { readonly exact: string };

const columns = `id, student_id AS "studentId", title, asked, model, seconds, places, faulty, text, by, remarks, kept_until AS "keptUntil", is_shown AS "isShown", version, at, at::text AS exact`;

const shown = ({ exact: _, at, keptUntil, ...row }: Row): Take => ({ ...row, at: at.toISOString(), keptUntil: keptUntil?.toISOString() ?? null });

const untilOf = (days: number): Date | null => (days === 0 ? null : new Date(Date.now() + days * 86_400_000));

interface Wanted extends PageQuery {
  readonly student?: string;
  /** `teachers` recorded themselves; `shown` are those of them that students may hear. */
  readonly whose?: 'anyone' | 'teachers' | 'shown';
}

/** Takes that are kept. */
export class TakeRepository {
  constructor(private readonly database: Database) {}

  /** Newest first. */
  async list(studioId: string, { limit, after, student, whose = 'anyone' }: Wanted): Promise<Page<Take>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<Row>(
      `SELECT ${columns} FROM take
       WHERE studio_id = $1
         AND ($2::timestamptz IS NULL OR (at, id) < ($2::timestamptz, $3::uuid))
         AND ($4::uuid IS NULL OR student_id = $4::uuid)
         AND ($5 = 'anyone' OR student_id IS NULL)
         AND ($5 <> 'shown' OR is_shown)
       ORDER BY at DESC, id DESC LIMIT $6`,
      [studioId, at ?? null, id ?? null, student ?? null, whose, limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.exact, row.id), shown);
  }

  async get(studioId: string, id: string): Promise<Take | undefined> {
    const [row] = await this.database.query<Row>(`SELECT ${columns} FROM take WHERE studio_id = $1 AND id = $2`, [studioId, id]);
    return row === undefined ? undefined : shown(row);
  }

  /** The file with its sound. */
  async soundOf(studioId: string, id: string): Promise<string | undefined> {
    return (await this.database.of(TakeEntity).findOneBy({ studioId, id }))?.blobId;
  }

  async add(studioId: string, { soundId, keepDays, at, ...take }: TakeInput, by: Take['by']): Promise<Take> {
    const id = randomUUID();
    const row = { ...take, id, by, remarks: [], keptUntil: untilOf(keepDays), isShown: false, version: 1, at: new Date(at) };
    await this.database.of(TakeEntity).insert({ ...row, studioId, blobId: soundId });
    return shown({ ...row, exact: '' });
  }

  /** @returns false where somebody else saved it meanwhile */
  async save(studioId: string, id: string, { remarks, keepDays, isShown, version }: TakeSave): Promise<boolean> {
    const until = keepDays === undefined ? {} : { keptUntil: untilOf(keepDays) };
    return (
      (
        await this.database
          .of(TakeEntity)
          .update({ studioId, id, version }, { remarks, ...until, ...(isShown !== undefined && { isShown }), version: version + 1 })
      ).affected === 1
    );
  }

  /** With its sound: the take goes with it. */
  async drop(studioId: string, id: string): Promise<void> {
    await this.database.query('DELETE FROM blob WHERE studio_id = $1 AND id = (SELECT blob_id FROM take WHERE studio_id = $1 AND id = $2)', [studioId, id]);
  }

  /** @returns how many there were */
  async dropOf(studioId: string, studentId: string): Promise<number> {
    const rows = await this.database.query(
      `WITH gone AS (DELETE FROM blob WHERE studio_id = $1 AND id IN (SELECT blob_id FROM take WHERE studio_id = $1 AND student_id = $2) RETURNING id) SELECT id FROM gone`,
      [studioId, studentId],
    );
    return rows.length;
  }

  /** Those whose time is over, of the studio in hand. */
  async clear(): Promise<void> {
    await this.database.query('DELETE FROM blob WHERE (studio_id, id) IN (SELECT studio_id, blob_id FROM take WHERE kept_until < now())');
  }
}
