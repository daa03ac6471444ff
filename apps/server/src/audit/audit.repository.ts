import type { AuditEntry, Page, PageQuery } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { containing, cursorOf, cutPage, readCursor } from '../http/cursor';

/** What a write did, for the list of who changed what. */
export interface AuditEvent {
  readonly did: AuditEntry['did'];
  readonly kind: AuditEntry['kind'];
  /** Absent where it is about many things. */
  readonly id?: string;
  readonly name: string;
}

export interface Doer {
  readonly studioId: string;
  readonly teacherId?: string;
  readonly name: string;
}

interface Row {
  readonly id: string;
  readonly who: string;
  readonly did: AuditEntry['did'];
  readonly kind: AuditEntry['kind'];
  readonly thing: string;
  readonly first_at: Date;
  readonly last_at: Date;
  /** To the microsecond, as the database orders. */
  readonly exact: string;
  readonly times: number;
}

interface Wanted extends PageQuery {
  readonly find?: string;
  readonly kind?: AuditEntry['kind'];
}

/** Who changed what. Written in the transaction of the change itself, so that one is never there without the other. */
export class AuditRepository {
  constructor(private readonly database: Database) {}

  /** Changes of one thing by one person within ten minutes are one entry. */
  async add({ studioId, teacherId, name: who }: Doer, { did, kind, id, name }: AuditEvent): Promise<void> {
    if (did === 'changed' && id !== undefined) {
      const joined = await this.database.query<{ id: string }>(
        `WITH latest AS (
           SELECT id FROM audit_entry
           WHERE thing_id = $1 AND studio_id = $2 AND teacher_id IS NOT DISTINCT FROM $3 AND did = 'changed' AND kind = $4
             AND last_at > now() - interval '10 minutes'
           ORDER BY last_at DESC LIMIT 1
         ), grown AS (
           UPDATE audit_entry SET last_at = clock_timestamp(), times = times + 1, thing = $5 WHERE studio_id = $2 AND id IN (SELECT id FROM latest) RETURNING id
         ) SELECT id FROM grown`,
        [id, studioId, teacherId ?? null, kind, name],
      );
      if (joined.length > 0) return;
    }
    await this.database.query(
      `INSERT INTO audit_entry (id, studio_id, teacher_id, who, did, kind, thing_id, thing, first_at, last_at)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, clock_timestamp(), clock_timestamp())`,
      [randomUUID(), studioId, teacherId ?? null, who, did, kind, id ?? null, name],
    );
  }

  /** Newest first. */
  async list(studioId: string, { limit, after, find, kind }: Wanted): Promise<Page<AuditEntry>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<Row>(
      `SELECT id, who, did, kind, thing, first_at, last_at, last_at::text AS exact, times FROM audit_entry
       WHERE studio_id = $1
         AND ($2::timestamptz IS NULL OR (last_at, id) < ($2::timestamptz, $3::uuid))
         AND ($4::text IS NULL OR thing ILIKE $4 OR who ILIKE $4)
         AND ($5::text IS NULL OR kind = $5)
       ORDER BY last_at DESC, id DESC LIMIT $6`,
      [studioId, at ?? null, id ?? null, containing(find), kind ?? null, limit + 1],
    );
    return cutPage(
      rows,
      limit,
      (row) => cursorOf(row.exact, row.id),
      (row) => ({
        id: row.id,
        who: row.who,
        did: row.did,
        kind: row.kind,
        thing: row.thing,
        from: row.first_at.toISOString(),
        until: row.last_at.toISOString(),
        times: row.times,
      }),
    );
  }
}
