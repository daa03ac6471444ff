import type { OwnModel, Page, PageQuery } from '@zelpit/contract';
import { instrumentById, instruments, type Instrument } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { IsNull } from 'typeorm';
import type { Database } from '../database/database';
import { ModelEntity } from './model.entity';
import { cursorOf, cutPage, readCursor } from '../http/cursor';
import { idSchema } from '@zelpit/contract';
import type { SaveOutcome } from '../http/save-outcome';

type Row = Pick<ModelEntity, 'id' | 'name' | 'instrument' | 'madeBy' | 'updatedAt' | 'version'>;

const shown = ({ id, instrument, madeBy, updatedAt, version }: Row): OwnModel => ({
  id,
  instrument: { ...instrument, id },
  by: madeBy,
  changed: updatedAt.toISOString(),
  version,
});

/** Models that a studio made, beside the built-in ones. */
export class ModelRepository {
  constructor(private readonly database: Database) {}

  /** By name. */
  async list(studioId: string, { limit, after }: PageQuery): Promise<Page<OwnModel>> {
    const [name, id] = readCursor(after, 'name');
    const rows = await this.database.query<Row>(
      `SELECT id, name, instrument, made_by AS "madeBy", updated_at AS "updatedAt", version FROM model
       WHERE studio_id = $1 AND deleted_at IS NULL AND ($2::text IS NULL OR (name, id) > ($2, $3::uuid))
       ORDER BY name, id LIMIT $4`,
      [studioId, name ?? null, id ?? null, limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.name, row.id), shown);
  }

  async get(studioId: string, id: string): Promise<OwnModel | undefined> {
    const found = await this.database.of(ModelEntity).findOneBy({ studioId, id });
    return found === null ? undefined : shown(found);
  }

  /** A built-in instrument or one of the studio's; undefined where there is none of that id. */
  async instrument(studioId: string, id: string): Promise<Instrument | undefined> {
    const builtIn = instruments.find((each) => each.id === id);
    if (builtIn !== undefined || !idSchema.safeParse(id).success) return builtIn;
    return (await this.get(studioId, id))?.instrument;
  }

  /** @throws ZelpitFault `invalid-instrument` where there is none of that id */
  async known(studioId: string, id: string): Promise<Instrument> {
    return (await this.instrument(studioId, id)) ?? instrumentById(id);
  }

  async add(studioId: string, by: string, instrument: Instrument): Promise<string> {
    const id = randomUUID();
    await this.database.of(ModelEntity).insert({ id, studioId, name: instrument.name, instrument: { ...instrument, id }, madeBy: by, version: 1 });
    return id;
  }

  /** Saves unless a later version is there. */
  async save(studioId: string, id: string, version: number, instrument: Instrument): Promise<SaveOutcome> {
    const change = { name: instrument.name, instrument: { ...instrument, id }, version: version + 1 };
    const { affected } = await this.database.of(ModelEntity).update({ studioId, id, version, deletedAt: IsNull() }, change);
    if (affected === 1) return 'saved';
    return (await this.database.of(ModelEntity).existsBy({ studioId, id })) ? 'stale' : 'missing';
  }

  /** How many tunes and sheets are for it. */
  async usesOf(studioId: string, id: string): Promise<number> {
    const [{ count }] = await this.database.query<{ count: string }>(
      `SELECT (SELECT count(*) FROM tune WHERE studio_id = $1 AND instrument = $2 AND deleted_at IS NULL)
            + (SELECT count(*) FROM sheet WHERE studio_id = $1 AND instrument = $2 AND deleted_at IS NULL) AS count`,
      [studioId, id],
    );
    return Number(count);
  }

  /** Puts away, and gives the name back; undefined where there is no such model. */
  async remove(studioId: string, id: string): Promise<string | undefined> {
    const name = (await this.get(studioId, id))?.instrument.name;
    await this.database.of(ModelEntity).softDelete({ studioId, id });
    return name;
  }

  async restore(studioId: string, id: string): Promise<string | undefined> {
    await this.database.of(ModelEntity).restore({ studioId, id });
    return (await this.get(studioId, id))?.instrument.name;
  }
}
