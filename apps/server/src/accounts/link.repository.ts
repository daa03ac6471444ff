import type { Invitation } from '@zelpit/contract';
import { createHash, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import { IsNull, MoreThan } from 'typeorm';
import type { Database } from '../database/database';
import { OneTimeLinkEntity } from './account.entities';

export type LinkPurpose = 'invitation' | 'reset' | 'student' | 'parent' | 'door';

export interface LinkInput {
  readonly studioId: string;
  readonly purpose: LinkPurpose;
  readonly name: string;
  readonly email: string;
  readonly teacherId?: string;
  readonly studentId?: string;
  readonly hours: number;
  /** Of a private link: what is typed beside it. */
  readonly code?: string;
}

export interface OpenLink {
  readonly id: string;
  readonly studioId: string;
  readonly purpose: LinkPurpose;
  readonly name: string;
  readonly email: string;
  readonly teacherId: string | null;
  readonly studentId: string | null;
  /** Of a private link: the hash of its code. */
  readonly codeHash: string | null;
}

/** A code is hashed with its link, so that the same code of two is not the same here. */
const codeHashOf = (id: string, code: string): string => createHash('sha256').update(`${id} ${code}`).digest('hex');

export function isCodeOf({ id, codeHash }: OpenLink, code: string): boolean {
  const [wanted, sent] = [Buffer.from(codeHash ?? ''), Buffer.from(codeHashOf(id, code))];
  return wanted.length === sent.length && timingSafeEqual(wanted, sent);
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Links that work once and not for ever. The database's clock decides how long. */
export class LinkRepository {
  constructor(private readonly database: Database) {}

  async add({
    hours,
    teacherId = undefined,
    studentId = undefined,
    code = undefined,
    ...input
  }: LinkInput): Promise<{ id: string; token: string; until: Date }> {
    const id = randomUUID();
    const token = randomBytes(24).toString('base64url');
    const [{ expires_at: until }] = await this.database.query<{ expires_at: Date }>(
      `INSERT INTO one_time_link (id, studio_id, purpose, token_hash, name, email, teacher_id, student_id, expires_at, code_hash)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, now() + make_interval(hours => $9), $10) RETURNING expires_at`,
      [
        ...[id, input.studioId, input.purpose, hashOf(token), input.name, input.email, teacherId ?? null, studentId ?? null, hours],
        code === undefined ? null : codeHashOf(id, code),
      ],
    );
    return { id, token, until };
  }

  /** A link that can still be used; undefined for one that is used, too old, or none. */
  async open(token: string): Promise<OpenLink | undefined> {
    return this.row('link_by_token($1)', token);
  }

  /** The same, used up in this transaction: of two at once only one gets it. */
  async use(token: string): Promise<OpenLink | undefined> {
    return this.row('link_use($1)', token);
  }

  async invitations(studioId: string): Promise<Invitation[]> {
    const now = await this.now();
    const where = { studioId, purpose: 'invitation' as const, usedAt: IsNull(), expiresAt: MoreThan(now) };
    const found = await this.database.of(OneTimeLinkEntity).find({ where, order: { name: 'ASC', id: 'ASC' } });
    return found.map(({ id, name, email, expiresAt }) => ({ id, name, email, until: expiresAt.toISOString() }));
  }

  async withdraw(studioId: string, id: string): Promise<string | undefined> {
    const found = await this.database.of(OneTimeLinkEntity).findOneBy({ studioId, id, purpose: 'invitation', usedAt: IsNull() });
    if (found === null) return undefined;
    await this.database.of(OneTimeLinkEntity).delete({ studioId, id });
    return found.name;
  }

  /** Ends links of a teacher's forgotten password: one that was used makes the others useless. */
  async endResets(teacherId: string): Promise<void> {
    await this.database.query('SELECT resets_end($1)', [teacherId]);
  }

  /** Ends the private link of a student; true where there was one. */
  async endDoor(studioId: string, studentId: string): Promise<boolean> {
    return ((await this.database.of(OneTimeLinkEntity).delete({ studioId, studentId, purpose: 'door' })).affected ?? 0) > 0;
  }

  async endInvitations(studioId: string, email: string): Promise<void> {
    await this.database.of(OneTimeLinkEntity).delete({ studioId, email, purpose: 'invitation' });
  }

  /** Forgets links of the studio in hand that lead nowhere any more, and mails of a month ago. */
  async clear(): Promise<void> {
    await this.database.query("DELETE FROM one_time_link WHERE expires_at < now() OR used_at < now() - interval '1 day'");
    await this.database.query("DELETE FROM mail WHERE created_at < now() - interval '30 days'");
  }

  private async now(): Promise<Date> {
    return (await this.database.query<{ now: Date }>('SELECT now() AS now'))[0].now;
  }

  private async row(call: string, token: string): Promise<OpenLink | undefined> {
    const [row] = await this.database.query<OpenLink>(
      `SELECT id, studio_id AS "studioId", purpose, name, email, teacher_id AS "teacherId", student_id AS "studentId", code_hash AS "codeHash" FROM ${call}`,
      [hashOf(token)],
    );
    return row;
  }
}
