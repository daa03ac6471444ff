import { arrangementSchema, noArrangement, type Arrangement, type KeptArrangement, type TuneOfStudent } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import type { SaveOutcome } from '../http/save-outcome';
import { ArrangementEntity } from './arrangement.entity';

/** Tunes of one student that are listed. */
const mostTunes = 200;

export class ArrangementRepository {
  constructor(private readonly database: Database) {}

  async get(studioId: string, studentId: string, tuneId: string): Promise<KeptArrangement> {
    const found = await this.database.of(ArrangementEntity).findOneBy({ studioId, studentId, tuneId });
    if (found === null) return { arrangement: noArrangement, version: 0 };
    // What a later version of the program keeps beside is filled in.
    return { arrangement: arrangementSchema.parse(found.arrangement), version: found.version };
  }

  /** Tunes that are not put away, the last changed first. */
  async ofStudent(studioId: string, studentId: string): Promise<TuneOfStudent[]> {
    const rows = await this.database.query<{ tune: string; title: string; arrangement: unknown }>(
      `SELECT tune.id AS tune, tune.title, arrangement.arrangement FROM arrangement
       JOIN tune ON tune.studio_id = arrangement.studio_id AND tune.id = arrangement.tune_id
       WHERE arrangement.studio_id = $1 AND arrangement.student_id = $2 AND tune.deleted_at IS NULL
       ORDER BY arrangement.updated_at DESC, tune.title LIMIT ${mostTunes}`,
      [studioId, studentId],
    );
    return rows.map(({ tune, title, arrangement }) => ({ tune, title, arrangement: arrangementSchema.parse(arrangement) }));
  }

  /** Replaces it unless a later version is there; version 0 says that none is there. */
  async save(studioId: string, studentId: string, tuneId: string, version: number, arrangement: Arrangement): Promise<SaveOutcome> {
    const table = this.database.of(ArrangementEntity);
    if (version > 0) {
      const { affected } = await table.update({ studioId, studentId, tuneId, version }, { arrangement, version: version + 1 });
      return affected === 1 ? 'saved' : 'stale';
    }
    const rows = await this.database.query<{ id: string }>(
      `INSERT INTO arrangement (studio_id, id, student_id, tune_id, arrangement, version) VALUES ($1, $2, $3, $4, $5::jsonb, 1)
       ON CONFLICT (studio_id, student_id, tune_id) DO NOTHING RETURNING id`,
      [studioId, randomUUID(), studentId, tuneId, JSON.stringify(arrangement)],
    );
    return rows.length === 1 ? 'saved' : 'stale';
  }
}
