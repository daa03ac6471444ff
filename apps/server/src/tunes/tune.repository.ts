import { tuneNotesSchema, type Page, type PageQuery, type TuneDetail, type TuneNotes, type TunePin, type TuneSummary } from '@zelpit/contract';
import { readerVersion, type TuneFacts } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { IsNull } from 'typeorm';
import type { Database } from '../database/database';
import type { KeptTune } from './kept-tune';
import { TuneEntity } from './tune.entity';
import { containing, cursorOf, cutPage, readCursor } from '../http/cursor';
import type { SaveOutcome } from '../http/save-outcome';

/** A tune that an old reader read has no facts yet. */
type SummaryRow = Omit<KeptTune, 'facts'> & { readonly id: string; readonly facts: Partial<TuneFacts> };

function summary(entity: SummaryRow): TuneSummary {
  const { id, title, rhythm, meter, musicKey, bars, outside, instrument, facts } = entity;
  const { notes = [], movements = [], findings = [] } = facts;
  return { id, title, rhythm, meter, key: musicKey, bars, outside, instrument, notes: [...notes], movements: [...movements], findings: findings.length };
}

const insertBatch = 200;

export type OldTune = Pick<TuneEntity, 'id' | 'abc' | 'voice' | 'chordNote' | 'instrument' | 'version'>;

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
      `SELECT id, title, rhythm, meter, music_key AS "musicKey", bars, outside, instrument, facts FROM tune
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

  /** The texts of all tunes, or of those for one instrument, by title. */
  async texts(studioId: string, instrument: string | undefined): Promise<readonly string[]> {
    const rows = await this.database.query<{ abc: string }>(
      'SELECT abc FROM tune WHERE studio_id = $1 AND deleted_at IS NULL AND ($2::text IS NULL OR instrument = $2) ORDER BY title, id',
      [studioId, instrument ?? null],
    );
    return rows.map(({ abc }) => abc);
  }

  async get(studioId: string, id: string): Promise<TuneDetail | undefined> {
    const found = await this.database.of(TuneEntity).findOneBy({ studioId, id });
    return found === null
      ? undefined
      : {
          ...summary(found),
          abc: found.abc,
          voice: found.voice,
          chordNote: found.chordNote,
          version: found.version,
          pins: found.pins,
          pinsVersion: found.pinsVersion,
          about: tuneNotesSchema.parse(found.about),
          aboutVersion: found.aboutVersion,
        };
  }

  async has(studioId: string, id: string): Promise<boolean> {
    return this.database.of(TuneEntity).existsBy({ studioId, id });
  }

  /** Adds all tunes or none. */
  async addAll(studioId: string, kept: readonly KeptTune[]): Promise<TuneSummary[]> {
    const rows = kept.map((tune) => ({ ...tune, id: randomUUID() as string }));
    await this.database.transaction(async () => {
      for (let start = 0; start < rows.length; start += insertBatch) await this.insert(studioId, rows.slice(start, start + insertBatch));
    });
    return rows.map(summary);
  }

  /** By columns, which costs the server a tenth of what rows of parameters do: a book can have thousands of tunes. */
  private async insert(studioId: string, rows: readonly (KeptTune & { readonly id: string })[]): Promise<void> {
    const column = <K extends keyof (typeof rows)[number]>(name: K): (typeof rows)[number][K][] => rows.map((row) => row[name]);
    await this.database.query(
      `INSERT INTO tune (studio_id, id, title, rhythm, meter, music_key, bars, outside, instrument, abc, voice, chord_note, reader, facts)
       SELECT $1, * FROM unnest($2::uuid[], $3::text[], $4::text[], $5::text[], $6::text[], $7::int[], $8::int[], $9::text[], $10::text[], $11::text[], $12::text[], $13::int[], $14::jsonb[])`,
      [
        studioId,
        ...[column('id'), column('title'), column('rhythm'), column('meter'), column('musicKey')],
        ...[column('bars'), column('outside'), column('instrument'), column('abc'), column('voice'), column('chordNote'), column('reader')],
        column('facts').map((facts) => JSON.stringify(facts)),
      ],
    );
  }

  /** Replaces the text unless a later version is there. */
  async replace(studioId: string, id: string, version: number, tune: KeptTune): Promise<SaveOutcome> {
    const change = { ...tune, version: version + 1 };
    if ((await this.database.of(TuneEntity).update({ studioId, id, version, deletedAt: IsNull() }, change)).affected === 1) return 'saved';
    return (await this.has(studioId, id)) ? 'stale' : 'missing';
  }

  /** Tunes that an older reader read, put away ones too. */
  async readByOlder(studioId: string, limit: number): Promise<readonly OldTune[]> {
    return this.database.query<OldTune>(
      'SELECT id, abc, voice, chord_note AS "chordNote", instrument, version FROM tune WHERE studio_id = $1 AND reader < $2 ORDER BY id LIMIT $3',
      [...[studioId, readerVersion, limit]],
    );
  }

  /** Sets what was worked out again, unless the text was changed meanwhile. The version stays: nobody changed the tune. */
  async setFacts(studioId: string, { id, version }: OldTune, tune: KeptTune | undefined): Promise<void> {
    const { title, rhythm, meter, musicKey, bars, outside, facts } = tune ?? {};
    await this.database.query(
      `UPDATE tune SET reader = $4, title = coalesce($5, title), rhythm = coalesce($6, rhythm), meter = coalesce($7, meter), music_key = coalesce($8, music_key),
         bars = coalesce($9, bars), outside = coalesce($10, outside), facts = coalesce($11::jsonb, facts)
       WHERE studio_id = $1 AND id = $2 AND version = $3`,
      [
        ...[studioId, id, version, readerVersion, title ?? null, rhythm ?? null, meter ?? null, musicKey ?? null, bars ?? null, outside ?? null],
        facts === undefined ? null : JSON.stringify(facts),
      ],
    );
  }

  /** Replaces the fixed fingerings unless a later version of them is there. */
  async pin(studioId: string, id: string, version: number, pins: readonly TunePin[]): Promise<SaveOutcome> {
    const where = { studioId, id, pinsVersion: version, deletedAt: IsNull() };
    const { affected } = await this.database.of(TuneEntity).update(where, { pins: [...pins], pinsVersion: version + 1 });
    if (affected === 1) return 'saved';
    return (await this.has(studioId, id)) ? 'stale' : 'missing';
  }

  /** Replaces what is said of a tune unless a later version of it is there. */
  async setAbout(studioId: string, id: string, version: number, about: TuneNotes): Promise<SaveOutcome> {
    const where = { studioId, id, aboutVersion: version, deletedAt: IsNull() };
    const { affected } = await this.database.of(TuneEntity).update(where, { about, aboutVersion: version + 1 });
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
