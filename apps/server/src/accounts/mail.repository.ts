import type { Mail, Page, PageQuery } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { MailEntity } from './account.entities';
import type { Sealer } from '../platform/sealer';
import { cursorOf, cutPage, readCursor } from '../http/cursor';

const unreadable = 'This message can no longer be read: the secret of the server is another one now. Send a new invitation or ask for a new link.';

/** The outbox: what would be mailed. No mail leaves this computer. In the database its text is sealed, since a live link stands in it. */
export class MailRepository {
  constructor(
    private readonly database: Database,
    private readonly sealer: Sealer,
  ) {}

  /** @param studentId the student that it is about, with whom it goes */
  async add(studioId: string, recipient: string, subject: string, body: string, studentId: string | null = null): Promise<void> {
    await this.database.of(MailEntity).insert({ id: randomUUID(), studioId, recipient, subject, body: this.sealer.seal(body), studentId });
  }

  /** Newest first, of all studios of this server. */
  async list({ limit, after }: PageQuery): Promise<Page<Mail>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<{ id: string; recipient: string; subject: string; body: string; created_at: Date; exact: string }>(
      'SELECT id, recipient, subject, body, created_at, created_at::text AS exact FROM outbox($1, $2, $3)',
      [at ?? null, id ?? null, limit + 1],
    );
    return cutPage(
      rows,
      limit,
      (row) => cursorOf(row.exact, row.id),
      (row) => ({ id: row.id, to: row.recipient, subject: row.subject, body: this.sealer.open(row.body) ?? unreadable, at: row.created_at.toISOString() }),
    );
  }
}
