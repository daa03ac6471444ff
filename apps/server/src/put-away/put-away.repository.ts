import { putAwayDays, type PutAway } from '@zelpit/contract';
import { IsNull, LessThan, Not, type DataSource } from 'typeorm';
import { SheetEntity, StudentEntity, TuneEntity } from '../database/entities';

const day = 24 * 3600 * 1000;

/** What was put away: listed while it can be brought back, gone afterwards. */
export class PutAwayRepository {
  constructor(private readonly dataSource: DataSource) {}

  /** Newest first. */
  async list(studioId: string): Promise<PutAway[]> {
    const where = { studioId, deletedAt: Not(IsNull()) };
    const [tunes, students, sheets] = await Promise.all([
      this.dataSource.getRepository(TuneEntity).find({ select: { id: true, title: true, deletedAt: true }, where, withDeleted: true }),
      this.dataSource.getRepository(StudentEntity).find({ select: { id: true, alias: true, deletedAt: true }, where, withDeleted: true }),
      this.dataSource.getRepository(SheetEntity).find({ select: { id: true, title: true, deletedAt: true }, where, withDeleted: true }),
    ]);
    const entry = (kind: PutAway['kind'], id: string, name: string, at: Date | null): PutAway => {
      const since = at ?? new Date(0);
      return { kind, id, name, since: since.toISOString(), until: new Date(since.getTime() + putAwayDays * day).toISOString() };
    };
    return [
      ...tunes.map(({ id, title, deletedAt }) => entry('tune', id, title, deletedAt)),
      ...students.map(({ id, alias, deletedAt }) => entry('student', id, alias, deletedAt)),
      ...sheets.map(({ id, title, deletedAt }) => entry('sheet', id, title, deletedAt)),
    ].sort((one, other) => other.since.localeCompare(one.since));
  }

  /** Deletes for good what was put away longer ago than it is kept. Sheets go with their student. */
  async clear(now: Date): Promise<number> {
    const old = { deletedAt: LessThan(new Date(now.getTime() - putAwayDays * day)) };
    return this.dataSource.transaction(async (manager) => {
      let gone = 0;
      for (const entity of [SheetEntity, TuneEntity, StudentEntity]) gone += (await manager.delete(entity, old)).affected ?? 0;
      return gone;
    });
  }

  /** Deletes a student and every sheet of theirs from the database, put away or not. False where there is no such student here. */
  async forget(studioId: string, id: string): Promise<boolean> {
    return (await this.dataSource.getRepository(StudentEntity).delete({ studioId, id })).affected === 1;
  }
}
