import type { Page, PageQuery, Trial, TrialInput } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { TrialEntity } from './trial.entity';
import { cursorOf, cutPage, readCursor } from '../http/cursor';

interface Wanted extends PageQuery {
  readonly student?: string;
  readonly kind?: TrialInput['result']['kind'];
  readonly taken?: 'true';
}

type Row = Pick<TrialEntity, 'id' | 'studentId' | 'model' | 'result' | 'createdAt'> & { readonly exact: string };

const shown = ({ id, studentId, model, result, createdAt }: Omit<Row, 'exact'>): Trial => ({ id, studentId, model, result, at: createdAt.toISOString() });

/** What students and teachers did in one go: fingers on keys, blind tests, faults found. */
export class TrialRepository {
  constructor(private readonly database: Database) {}

  /** Newest first. */
  async list(studioId: string, { limit, after, student, kind, taken }: Wanted): Promise<Page<Trial>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<Row>(
      `SELECT id, student_id AS "studentId", model, result, created_at AS "createdAt", created_at::text AS exact FROM trial
       WHERE studio_id = $1
         AND ($2::timestamptz IS NULL OR (created_at, id) < ($2::timestamptz, $3::uuid))
         AND ($4::uuid IS NULL OR student_id = $4::uuid)
         AND ($5::text IS NULL OR kind = $5)
         AND ($6::text IS NULL OR (result->>'isTaken')::boolean)
       ORDER BY created_at DESC, id DESC LIMIT $7`,
      [studioId, at ?? null, id ?? null, student ?? null, kind ?? null, taken ?? null, limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.exact, row.id), shown);
  }

  async add(studioId: string, { studentId, model, result }: TrialInput): Promise<Trial> {
    const id = randomUUID();
    await this.database.of(TrialEntity).insert({ id, studioId, studentId, model, kind: result.kind, result });
    return shown(await this.database.of(TrialEntity).findOneByOrFail({ studioId, id }));
  }

  async drop(studioId: string, id: string): Promise<boolean> {
    return (await this.database.of(TrialEntity).delete({ studioId, id })).affected === 1;
  }
}
