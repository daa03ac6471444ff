import type { StudioRoomShown } from '@zelpit/contract';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';

interface Counted {
  /** As they were counted last. */
  bytes: number;
  at: number;
  /** What has come in since, as far as this server saw it. */
  since: number;
}

/** A count is trusted for so long, in ms, and for so much that has come in since, as a share of what a studio may keep. */
const trusted = { ms: 24 * 3600 * 1000, share: 0.02 } as const;
/** Before somebody is refused it is counted again, but not more often than this, in ms. */
const againMs = 5000;
/** What a student writes down about a try is taken even where a studio is full, up to so much over. */
const small = { bytes: 4000, over: 1.1 } as const;

/**
 * How much a studio keeps and may keep. Bytes are counted now and then and kept with the studio; what comes in between is added up. So a save costs nothing but
 * a look into a table of this process.
 */
export class StudioRoom {
  private readonly counted = new Map<string, Counted>();
  private readonly counting = new Map<string, Promise<Counted>>();

  constructor(
    private readonly database: Database,
    private readonly most: number,
  ) {}

  /** As it was counted last. */
  async of(studioId: string): Promise<StudioRoomShown> {
    // Counting writes down what it found, which the transaction of a read must not.
    const counted = (await this.known(studioId)) ?? (await this.database.apart(() => this.count(studioId)));
    return { bytes: counted.bytes, most: this.most };
  }

  /**
   * Room for what comes.
   * @throws HttpProblem `studio-full` where there is none
   */
  async take(studioId: string, coming: number): Promise<void> {
    let now = this.counted.get(studioId) ?? (await this.known(studioId)) ?? (await this.count(studioId));
    const limit = coming < small.bytes ? this.most * small.over : this.most;
    if (now.bytes + now.since + coming > limit && Date.now() - now.at > againMs) now = await this.count(studioId);
    if (now.bytes + now.since + coming > limit)
      throw new HttpProblem(
        'studio-full',
        `This studio keeps ${inMegabytes(now.bytes + now.since)}, and may keep ${inMegabytes(this.most)}. Take old backups off their page, or delete for good what was put away. Nothing was changed.`,
      );
    now.since += coming;
    const isOld = Date.now() - now.at > trusted.ms || now.since > this.most * trusted.share;
    // Beside the request: nobody waits for it.
    if (isOld) this.database.apart(() => void this.count(studioId).catch(() => undefined));
  }

  /** What was counted before, by this server or another one. */
  private async known(studioId: string): Promise<Counted | undefined> {
    const kept = this.counted.get(studioId);
    if (kept !== undefined) return kept;
    const [row] = await this.database.inStudio(studioId, () =>
      this.database.query<{ bytes: string | null; at: Date | null }>('SELECT bytes_stored AS bytes, bytes_counted_at AS at FROM studio WHERE id = $1', [
        studioId,
      ]),
    );
    if (row?.bytes == null || row.at === null) return undefined;
    return this.keep(studioId, { bytes: Number(row.bytes), at: row.at.getTime(), since: 0 });
  }

  private count(studioId: string): Promise<Counted> {
    const underWay = this.counting.get(studioId);
    if (underWay !== undefined) return underWay;
    const counting = this.countNow(studioId).finally(() => this.counting.delete(studioId));
    this.counting.set(studioId, counting);
    return counting;
  }

  /** Every table that is a studio's own; of files their length, which need not be read for it. */
  private async countNow(studioId: string): Promise<Counted> {
    return this.database.inStudio(studioId, async () => {
      const tables = await this.database.query<{ name: string }>(
        `SELECT c.oid::regclass::text AS name FROM pg_class c JOIN pg_attribute a ON a.attrelid = c.oid AND a.attname = 'studio_id'
         WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p') AND c.relrowsecurity AND NOT c.relispartition AND c.relname <> 'blob_piece'`,
      );
      const sums = tables.map(({ name }) => `SELECT sum(pg_column_size(t.*)) AS bytes FROM ${name} t WHERE studio_id = $1`);
      const [{ bytes }] = await this.database.query<{ bytes: string | null }>(
        `SELECT sum(bytes) AS bytes FROM (${[...sums, 'SELECT sum(bytes) FROM blob WHERE studio_id = $1'].join(' UNION ALL ')}) each_table`,
        [studioId],
      );
      const total = Math.round(Number(bytes ?? 0));
      await this.database.query('UPDATE studio SET bytes_stored = $2, bytes_counted_at = now() WHERE id = $1', [studioId, total]);
      return this.keep(studioId, { bytes: total, at: Date.now(), since: 0 });
    });
  }

  private keep(studioId: string, counted: Counted): Counted {
    this.counted.set(studioId, counted);
    return counted;
  }
}

const inMegabytes = (bytes: number): string => (bytes < 2_000_000_000 ? `${Math.round(bytes / 1_000_000)} MB` : `${(bytes / 1_000_000_000).toFixed(1)} GB`);
