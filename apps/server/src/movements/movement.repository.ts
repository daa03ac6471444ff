import {
  movementChoicesSchema,
  type KeptMovement,
  type KeptMovementInput,
  type MovementChoices,
  type MovementChoicesShown,
  type Page,
  type PageQuery,
} from '@zelpit/contract';
import { usualMovementSettings } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { MovementEntity } from './movement.entity';
import { StudioEntity } from '../accounts/account.entities';
import { cursorOf, cutPage, readCursor } from '../http/cursor';

type Row = Pick<MovementEntity, 'id' | 'movement' | 'definition' | 'keptBy' | 'keptOn'>;

const shown = ({ id, movement, definition, keptBy, keptOn }: Row): KeptMovement => ({ id, movement, definition, by: keptBy, on: keptOn });

export const usualChoices = (): MovementChoices => ({ settings: usualMovementSettings, syllables: {}, ornaments: {} });

/** What the teachers of a studio said of movements, and how the studio plays them. */
export class MovementRepository {
  constructor(private readonly database: Database) {}

  /** By the movement's id. */
  async list(studioId: string, { limit, after }: PageQuery): Promise<Page<KeptMovement>> {
    const [key, id] = readCursor(after, 'name');
    const rows = await this.database.query<Row>(
      `SELECT id, movement, definition, kept_by AS "keptBy", kept_on AS "keptOn" FROM movement
       WHERE studio_id = $1 AND ($2::text IS NULL OR (movement, id) > ($2, $3::uuid))
       ORDER BY movement, id LIMIT $4`,
      [studioId, key ?? null, id ?? null, limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.movement, row.id), shown);
  }

  async all(studioId: string): Promise<readonly KeptMovement[]> {
    return (await this.database.of(MovementEntity).find({ where: { studioId }, order: { movement: 'ASC' } })).map(shown);
  }

  /** Keeps it; what was said of the same movement before is replaced. */
  async keep(studioId: string, by: string, on: string, { movement, definition }: KeptMovementInput): Promise<KeptMovement> {
    await this.database.of(MovementEntity).delete({ studioId, movement });
    const row = { id: randomUUID() as string, studioId, movement, definition, keptBy: by, keptOn: on };
    await this.database.of(MovementEntity).insert(row);
    return shown(row);
  }

  /** Takes back, and gives the movement's id; undefined where there is none. */
  async drop(studioId: string, id: string): Promise<string | undefined> {
    const found = await this.database.of(MovementEntity).findOneBy({ studioId, id });
    if (found === null) return undefined;
    await this.database.of(MovementEntity).delete({ studioId, id });
    return found.movement;
  }

  /** What the studio chose itself; null where it plays them the usual way. */
  async ownChoices(studioId: string): Promise<MovementChoices | null> {
    return (await this.database.of(StudioEntity).findOneByOrFail({ id: studioId })).movementChoices;
  }

  async choices(studioId: string): Promise<MovementChoicesShown> {
    const { movementChoices, movementChoicesVersion } = await this.database.of(StudioEntity).findOneByOrFail({ id: studioId });
    return { ...(movementChoices === null ? usualChoices() : movementChoicesSchema.parse(movementChoices)), version: movementChoicesVersion };
  }

  /** Sets them unless a later version is there; a studio always has some. */
  async saveChoices(studioId: string, choices: MovementChoices, version: number): Promise<'saved' | 'stale'> {
    const change = { movementChoices: choices, movementChoicesVersion: version + 1 };
    const { affected } = await this.database.of(StudioEntity).update({ id: studioId, movementChoicesVersion: version }, change);
    return affected === 1 ? 'saved' : 'stale';
  }
}
