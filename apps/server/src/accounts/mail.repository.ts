import type { Mail, Page, PageQuery } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { MailEntity } from './account.entities';
import { cursorOf, cutPage, readCursor } from '../http/cursor';

/** The outbox: what would be mailed. No mail leaves this computer. */
export class MailRepository {
  constructor(private readonly database: Database) {}

  async add(studioId: string, recipient: string, subject: string, body: string): Promise<void> {
    await this.database.of(MailEntity).insert({ id: randomUUID(), studioId, recipient, subject, body });
  }

  /** Newest first, of all studios of this server. */
  async list({ limit, after }: PageQuery): Promise<Page<Mail>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<{ id: string; recipient: string; subject: string; body: string; created_at: Date; exact: string }>(
      `SELECT id, recipient, subject, body, created_at, created_at::text AS exact FROM mail
       WHERE $1::timestamptz IS NULL OR (created_at, id) < ($1::timestamptz, $2::uuid) ORDER BY created_at DESC, id DESC LIMIT $3`,
      [at ?? null, id ?? null, limit + 1],
    );
    return cutPage(
      rows,
      limit,
      (row) => cursorOf(row.exact, row.id),
      (row) => ({ id: row.id, to: row.recipient, subject: row.subject, body: row.body, at: row.created_at.toISOString() }),
    );
  }
}
