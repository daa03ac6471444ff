import { onceHeader } from '@zelpit/contract';
import type { Request } from 'express';
import { createHash } from 'node:crypto';
import * as z from 'zod';
import type { Database } from '../database/database';
import type { Sealer } from '../platform/sealer';
import { HttpProblem } from './problem';

export interface KeptAnswer {
  readonly status: number;
  readonly body: unknown;
}

/** Hours that an answer is kept for a write that comes again. */
export const keptHours = 48;

/**
 * Writes that come again: a client that got no answer sends the same write with the same key, and gets the first answer
 * instead of a second write. The answer is kept in the transaction of the write, so that there is either both or none.
 */
export class KeptAnswers {
  constructor(
    private readonly database: Database,
    private readonly sealer: Sealer,
  ) {}

  /** Inside a transaction: the answer of the same write before, or that of `work` now. */
  async once(request: Request, askedBy: string, studioId: string, work: () => Promise<KeptAnswer>): Promise<KeptAnswer> {
    const key = readKey(request);
    if (key === undefined) return work();
    const hash = hashOf(request);
    // Where the first of two is still running, the database makes the second wait here until it is done.
    const claimed = await this.database.query(
      'INSERT INTO kept_answer (asked_by, key, studio_id, request_hash) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING RETURNING key',
      [askedBy, key, studioId, hash],
    );
    if (claimed.length === 0) return this.before(studioId, askedBy, key, hash);
    const answer = await work();
    await this.database.query('UPDATE kept_answer SET status = $3, body = $4 WHERE asked_by = $1 AND key = $2 AND studio_id = $5', [
      askedBy,
      key,
      answer.status,
      answer.body === undefined ? null : this.toKeep(JSON.stringify(answer.body)),
      studioId,
    ]);
    return answer;
  }

  /** Of the studio in hand. */
  async clear(): Promise<void> {
    await this.database.query(`DELETE FROM kept_answer WHERE created_at < now() - interval '${keptHours} hours'`);
  }

  /** An answer in which a live link stands is sealed. */
  private toKeep(body: string): string {
    return body.includes('/link#') ? this.sealer.seal(body) : body;
  }

  private async before(studioId: string, askedBy: string, key: string, hash: string): Promise<KeptAnswer> {
    const [kept] = await this.database.query<{ request_hash: string; status: number; body: string | null }>(
      'SELECT request_hash, status, body FROM kept_answer WHERE asked_by = $1 AND key = $2 AND studio_id = $3',
      [askedBy, key, studioId],
    );
    if (kept.request_hash !== hash)
      throw new HttpProblem('key-used-twice', 'This key belongs to another write. Each new write needs a key of its own; nothing was changed.');
    const body = kept.body === null ? undefined : this.sealer.open(kept.body);
    if (kept.body !== null && body === undefined)
      throw new HttpProblem('key-used-twice', 'This was done before; its answer can no longer be read. Reload the page.');
    return { status: kept.status, body: body === undefined ? undefined : (JSON.parse(body) as unknown) };
  }
}

function readKey(request: Request): string | undefined {
  const sent = request.get(onceHeader);
  if (sent === undefined) return undefined;
  const key = z.uuid().safeParse(sent);
  if (!key.success) throw new HttpProblem('not-understood', `The header ${onceHeader} takes a UUID.`);
  return key.data;
}

function hashOf(request: Request): string {
  const hash = createHash('sha256').update(`${request.method} ${request.originalUrl}\n`);
  return hash.update(Buffer.isBuffer(request.body) ? request.body : JSON.stringify(request.body ?? null)).digest('hex');
}
