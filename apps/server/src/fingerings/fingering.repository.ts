import type { ConfirmedFingeringInput, Page, PageQuery, StudioFingering } from '@zelpit/contract';
import { patternKey } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { FingeringEntity } from './fingering.entity';
import { cursorOf, cutPage, readCursor } from '../http/cursor';

type Row = Pick<FingeringEntity, 'id' | 'model' | 'kept' | 'confirmedBy' | 'confirmedOn'> & { readonly key: string };

const shown = ({ id, model, kept, confirmedBy, confirmedOn }: Omit<Row, 'key'>): StudioFingering => ({ ...kept, id, model, by: confirmedBy, on: confirmedOn });

/** What the teachers of a studio said of fingerings. */
export class FingeringRepository {
  constructor(private readonly database: Database) {}

  /** By model, note and holes. */
  async list(studioId: string, { limit, after, model }: PageQuery & { readonly model?: string }): Promise<Page<StudioFingering>> {
    const [key, id] = readCursor(after, 'name');
    const rows = await this.database.query<Row>(
      `SELECT id, model, kept, confirmed_by AS "confirmedBy", confirmed_on AS "confirmedOn", model || ' ' || note || ' ' || pattern_key AS key FROM fingering
       WHERE studio_id = $1 AND ($4::text IS NULL OR model = $4)
         AND ($2::text IS NULL OR (model || ' ' || note || ' ' || pattern_key, id) > ($2, $3::uuid))
       ORDER BY model || ' ' || note || ' ' || pattern_key, id LIMIT $5`,
      [studioId, key ?? null, id ?? null, model ?? null, limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.key, row.id), shown);
  }

  async of(studioId: string, model: string): Promise<readonly StudioFingering[]> {
    const found = await this.database.of(FingeringEntity).find({ where: { studioId, model }, order: { createdAt: 'ASC', id: 'ASC' } });
    return found.map(shown);
  }

  /** Keeps it; what was said of the same fingering before is replaced. */
  async keep(studioId: string, by: string, on: string, { model, ...kept }: ConfirmedFingeringInput): Promise<StudioFingering> {
    const key = patternKey(kept.pattern);
    await this.database.of(FingeringEntity).delete({ studioId, model, note: kept.note, patternKey: key });
    const row = { id: randomUUID() as string, studioId, model, note: kept.note, patternKey: key, kept, confirmedBy: by, confirmedOn: on };
    await this.database.of(FingeringEntity).insert(row);
    return shown(row);
  }

  /** Takes back, and gives the note's id and the model; undefined where there is none. */
  async drop(studioId: string, id: string): Promise<{ readonly model: string; readonly note: string } | undefined> {
    const found = await this.database.of(FingeringEntity).findOneBy({ studioId, id });
    if (found === null) return undefined;
    await this.database.of(FingeringEntity).delete({ studioId, id });
    return { model: found.model, note: found.note };
  }
}
