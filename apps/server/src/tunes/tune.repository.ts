import type { Page, PageQuery, TuneDetail, TunePin, TuneSummary } from '@zelpit/contract';
import type { ReadEntry } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { IsNull } from 'typeorm';
import type { Database } from '../database/database';
import { TuneEntity } from './tune.entity';
import { containing, cursorOf, cutPage, readCursor } from '../http/cursor';
import type { SaveOutcome } from '../http/save-outcome';

type TuneFields = Pick<TuneEntity, 'title' | 'rhythm' | 'meter' | 'musicKey' | 'bars' | 'outside' | 'abc'>;

/** What is kept of a tune beside its text, for lists. */
export function fieldsOf({ title, abc, tune }: ReadEntry): TuneFields {
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

type SummaryRow = TuneFields & { readonly id: string; readonly instrument: string };

function summary(entity: SummaryRow): TuneSummary {
  const { id, title, rhythm, meter, musicKey, bars, outside, instrument } = entity;
  return { id, title, rhythm, meter, key: musicKey, bars, outside, instrument };
}

const insertBatch = 200;

interface Wanted extends PageQuery {
  readonly find?: string;
  readonly rhythm?: string;
  readonly instrument?: string;
}

export class TuneRepository {
  constructor(private readonly database: Database) {}

  /** By title; `find` looks in titles and kinds. */
  async list(studioId: string, { limit, after, find, rhythm, instrument }: Wanted): Promise<Page<TuneSummary>> {
    const [title, id] = readCursor(after, 'name');
    const rows = await this.database.query<SummaryRow>(
      `SELECT id, title, rhythm, meter, music_key AS "musicKey", bars, outside, instrument FROM tune
       WHERE studio_id = $1 AND deleted_at IS NULL
         AND ($2::text IS NULL OR (title, id) > ($2, $3::uuid))
         AND ($4::text IS NULL OR title ILIKE $4 OR rhythm ILIKE $4)
         AND ($5::text IS NULL OR lower(rhythm) = lower($5))
         AND ($7::text IS NULL OR instrument = $7)
       ORDER BY title, id LIMIT $6`,
      [studioId, title ?? null, id ?? null, containing(find), rhythm ?? null, limit + 1, instrument ?? null],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.title, row.id), summary);
  }

  async get(studioId: string, id: string): Promise<TuneDetail | undefined> {
    const found = await this.database.of(TuneEntity).findOneBy({ studioId, id });
    return found === null ? undefined : { ...summary(found), abc: found.abc, version: found.version, pins: found.pins, pinsVersion: found.pinsVersion };
  }

  async has(studioId: string, id: string): Promise<boolean> {
    return this.database.of(TuneEntity).existsBy({ studioId, id });
  }

  /** Adds all tunes or none. */
  async addAll(studioId: string, entries: readonly ReadEntry[]): Promise<TuneSummary[]> {
    const rows = entries.map((entry) => ({ ...fieldsOf(entry), id: randomUUID(), studioId, instrument: entry.instrument }));
    await this.database.transaction(async () => {
      for (let start = 0; start < rows.length; start += insertBatch) await this.database.of(TuneEntity).insert(rows.slice(start, start + insertBatch));
    });
    return rows.map(summary);
  }

  /** Replaces the text unless a later version is there. */
  async replace(studioId: string, id: string, version: number, entry: ReadEntry): Promise<SaveOutcome> {
    const change = { ...fieldsOf(entry), instrument: entry.instrument, version: version + 1 };
    if ((await this.database.of(TuneEntity).update({ studioId, id, version, deletedAt: IsNull() }, change)).affected === 1) return 'saved';
    return (await this.has(studioId, id)) ? 'stale' : 'missing';
  }

  /** Replaces the fixed fingerings unless a later version of them is there. */
  async pin(studioId: string, id: string, version: number, pins: readonly TunePin[]): Promise<SaveOutcome> {
    const where = { studioId, id, pinsVersion: version, deletedAt: IsNull() };
    const { affected } = await this.database.of(TuneEntity).update(where, { pins: [...pins], pinsVersion: version + 1 });
    if (affected === 1) return 'saved';
    return (await this.has(studioId, id)) ? 'stale' : 'missing';
  }

  /** Puts away, and gives the title back; undefined where there is no such tune. */
  async remove(studioId: string, id: string): Promise<string | undefined> {
    const title = await this.titleOf(studioId, id);
    await this.database.of(TuneEntity).softDelete({ studioId, id });
    return title;
  }

  async restore(studioId: string, id: string): Promise<string | undefined> {
    await this.database.of(TuneEntity).restore({ studioId, id });
    return this.titleOf(studioId, id);
  }

  private async titleOf(studioId: string, id: string): Promise<string | undefined> {
    return (await this.database.of(TuneEntity).findOne({ select: { id: true, title: true }, where: { studioId, id } }))?.title;
  }
}
