import type { TuneDetail, TuneSummary } from '@zelpit/contract';
import type { ReadEntry } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type { DataSource, Repository } from 'typeorm';
import { TuneEntity } from '../database/entities';

type TuneFields = Pick<TuneEntity, 'title' | 'rhythm' | 'meter' | 'musicKey' | 'bars' | 'outside' | 'abc'>;

/** What is kept of a tune beside its text, for lists. */
function fieldsOf({ title, abc, tune }: ReadEntry): TuneFields {
  return {
    title: title.slice(0, 300),
    rhythm: tune.rhythm.slice(0, 60),
    meter: tune.meter.text,
    musicKey: tune.key,
    bars: new Set(tune.bars.map((bar) => bar.number).filter((number) => number > 0)).size,
    outside: tune.notes.filter((note) => note.written.kind === 'outside').length,
    abc,
  };
}

function summary(entity: TuneFields & { id: string }): TuneSummary {
  const { id, title, rhythm, meter, musicKey, bars, outside } = entity;
  return { id, title, rhythm, meter, key: musicKey, bars, outside };
}

const insertBatch = 200;

export class TuneRepository {
  private readonly tunes: Repository<TuneEntity>;

  constructor(private readonly dataSource: DataSource) {
    this.tunes = dataSource.getRepository(TuneEntity);
  }

  async list(studioId: string): Promise<TuneSummary[]> {
    const found = await this.tunes.find({
      select: { id: true, title: true, rhythm: true, meter: true, musicKey: true, bars: true, outside: true },
      where: { studioId },
      order: { title: 'ASC', id: 'ASC' },
    });
    return found.map(summary);
  }

  async get(studioId: string, id: string): Promise<TuneDetail | undefined> {
    const found = await this.tunes.findOneBy({ studioId, id });
    return found === null ? undefined : { ...summary(found), abc: found.abc, instrument: found.instrument };
  }

  async has(studioId: string, id: string): Promise<boolean> {
    return this.tunes.existsBy({ studioId, id });
  }

  /** Adds all tunes or none. */
  async addAll(studioId: string, instrument: string, entries: readonly ReadEntry[]): Promise<TuneSummary[]> {
    const rows = entries.map((entry) => ({ ...fieldsOf(entry), id: randomUUID(), studioId, instrument }));
    await this.dataSource.transaction(async (manager) => {
      for (let start = 0; start < rows.length; start += insertBatch) await manager.insert(TuneEntity, rows.slice(start, start + insertBatch));
    });
    return rows.map(summary);
  }

  async replace(studioId: string, id: string, entry: ReadEntry): Promise<boolean> {
    return (await this.tunes.update({ studioId, id }, fieldsOf(entry))).affected === 1;
  }

  async remove(studioId: string, id: string): Promise<boolean> {
    return (await this.tunes.softDelete({ studioId, id })).affected === 1;
  }

  async restore(studioId: string, id: string): Promise<boolean> {
    return (await this.tunes.restore({ studioId, id })).affected === 1;
  }
}
