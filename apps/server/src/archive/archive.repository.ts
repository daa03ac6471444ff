import type { ArchiveResult } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';
import type { Database } from '../database/database';
import type { JobSteps } from '../jobs/job-kind';
import { archivePartsOf, putAwayPartsOf, type Thing } from '../things/thing';
import type { Checked } from './archive-part';
import { checkedPath, type CheckedArchive } from './check-archive';

/** A whole studio into the tables, one kind of thing after the other. */
export class ArchiveRepository {
  constructor(
    private readonly database: Database,
    private readonly things: readonly Thing[],
  ) {}

  /** True where the studio holds nothing, what is put away left aside. */
  async isEmpty(studioId: string): Promise<boolean> {
    for (const { table } of putAwayPartsOf(this.things)) {
      const found = await this.database.query(`SELECT 1 FROM ${table} WHERE studio_id = $1 AND deleted_at IS NULL LIMIT 1`, [studioId]);
      if (found.length > 0) return false;
    }
    return true;
  }

  /** Puts everything of the studio away, to be found again for as long as things are kept. */
  async putAllAway(studioId: string): Promise<number> {
    let count = 0;
    for (const { table } of putAwayPartsOf(this.things)) {
      const [row] = await this.database.query<{ count: string }>(
        `WITH away AS (UPDATE ${table} SET deleted_at = now() WHERE studio_id = $1 AND deleted_at IS NULL RETURNING 1) SELECT count(*) FROM away`,
        [studioId],
      );
      count += Number(row.count);
    }
    return count;
  }

  /**
   * Writes all of a checked archive into the studio, some things at a time. Belongs into a transaction.
   * @param folder where what was checked lies
   */
  async write(
    studioId: string,
    folder: string,
    { signs, counts: expected }: CheckedArchive,
    { progress, signal }: JobSteps,
  ): Promise<Omit<ArchiveResult, 'putAway'>> {
    const ids = new Map(signs.map((sign) => [sign, randomUUID() as string]));
    const target = {
      database: this.database,
      studioId,
      idOf: (sign: string) => ids.get(sign) as string,
      modelOf: (model: string) => ids.get(model) ?? model,
    };
    const of = Object.values(expected).reduce((sum, count) => sum + count, 0);
    const counts: Record<string, number> = {};
    let [done, newCodes] = [0, 0];
    for (const { kind, part } of archivePartsOf(this.things)) {
      const writer = part.write(target);
      if (expected[kind] !== undefined)
        for await (const some of checkedThings(checkedPath(folder, kind))) {
          signal.throwIfAborted();
          await writer.some(some);
          done += some.length;
          progress(done, of);
        }
      await writer.end?.();
      const brought = writer.brought();
      counts[kind] = brought.count;
      newCodes += brought.newCodes ?? 0;
    }
    return { counts, newCodes };
  }
}

/** Written at once, in things and in signs of their text: between them the server answers others. */
const most = { things: 200, signs: 1_000_000 } as const;

/** What was checked, some at a time. */
async function* checkedThings(path: string): AsyncGenerator<readonly Checked<unknown, unknown>[]> {
  let waiting: Checked<unknown, unknown>[] = [];
  let signs = 0;
  for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
    waiting.push(JSON.parse(line) as Checked<unknown, unknown>);
    signs += line.length;
    if (waiting.length < most.things && signs < most.signs) continue;
    yield waiting;
    [waiting, signs] = [[], 0];
  }
  if (waiting.length > 0) yield waiting;
}
