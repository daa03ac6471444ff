import {
  tuneNotesSchema,
  type Page,
  type PageQuery,
  type TuneDetail,
  type TuneNotes,
  type TuneOpenings,
  type TunePin,
  type TuneSummary,
} from '@zelpit/contract';
import { melodyText, readerVersion, type TuneFacts } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { IsNull } from 'typeorm';
import type { Database } from '../database/database';
import type { KeptTune } from './kept-tune';
import { TuneEntity } from './tune.entity';
import { containing, cursorOf, cutPage, readCursor } from '../http/cursor';
import type { SaveOutcome } from '../http/save-outcome';

/** A tune that an old reader read has no facts yet. */
type SummaryRow = Omit<KeptTune, 'facts'> & { readonly id: string; readonly facts: Partial<TuneFacts>; readonly about?: Partial<TuneNotes> };

function summary(entity: SummaryRow): TuneSummary {
  const { id, title, rhythm, meter, musicKey, bars, outside, instrument, facts, about } = entity;
  const { notes = [], movements = [], findings = [], theme = [], form = '', hard = 'some' } = facts;
  return {
    ...{ id, title, rhythm, meter, key: musicKey, bars, outside, instrument, form, hard },
    ...{ notes: [...notes], theme: [...theme], movements: [...movements], findings: findings.length, uses: [...(about?.uses ?? [])] },
    ...{ before: about?.before ?? '', after: about?.after ?? '' },
  };
}

const insertBatch = 200;

export type OldTune = Pick<TuneEntity, 'id' | 'abc' | 'voice' | 'chordNote' | 'instrument' | 'version'>;

interface Filter {
  readonly rhythm?: string;
  readonly instrument?: string;
  readonly known?: readonly string[];
  readonly missing?: number;
  readonly movements?: string;
  readonly meter?: string;
  readonly use?: string;
  readonly hard?: string;
  readonly phrase?: readonly string[];
  readonly within?: readonly string[];
  readonly beside?: string;
}

interface Wanted extends PageQuery, Filter {
  readonly find?: string;
}

const list = (values: readonly string[] | undefined): readonly string[] | null => (values === undefined || values.length === 0 ? null : values);
const pieces = (text: string | undefined, between: string): readonly string[] | null => list(text?.split(between).filter((piece) => piece !== ''));
const escapedLike = (text: string): string => text.replaceAll(/[\\%_]/g, (sign) => `\\${sign}`);

/** What a filter lets through, as conditions whose values are numbered from a place on; the first value of the query is the studio. */
function conditionsOf(
  { rhythm, instrument, known, missing, movements, meter, use, hard, phrase, within, beside }: Filter,
  from: number,
): { readonly sql: string; readonly values: readonly unknown[] } {
  const at = (place: number): string => `$${from + place}`;
  return {
    sql: `(${at(0)}::text IS NULL OR lower(rhythm) = lower(${at(0)}))
         AND (${at(1)}::text[] IS NULL OR instrument = ANY(${at(1)}))
         AND (${at(2)}::text[] IS NULL OR ${at(3)}::int IS NULL OR outside = 0 AND (SELECT count(*) FROM jsonb_array_elements_text(facts->'theme') n WHERE n <> ALL(${at(2)})) <= ${at(3)})
         AND (${at(4)}::text[] IS NULL OR NOT EXISTS (SELECT 1 FROM jsonb_array_elements_text(facts->'movements') m WHERE m <> ALL(${at(4)})))
         AND (${at(5)}::text IS NULL OR meter = ${at(5)})
         AND (${at(6)}::text IS NULL OR about->'uses' ? ${at(6)})
         AND (${at(7)}::text IS NULL OR facts->>'hard' = ${at(7)})
         AND (${at(8)}::text IS NULL OR facts->>'melody' LIKE ${at(8)})
         AND (${at(9)}::text[] IS NULL OR outside = 0 AND NOT EXISTS (SELECT 1 FROM jsonb_array_elements_text(facts->'theme') n WHERE n <> ALL(${at(9)})))
         AND (${at(10)}::text IS NULL OR lower(${at(10)}) IN (lower(about->>'before'), lower(about->>'after'))
              OR lower(title) IN (SELECT lower(beside) FROM tune neighbour, unnest(ARRAY[neighbour.about->>'before', neighbour.about->>'after']) beside
                                  WHERE neighbour.studio_id = $1 AND neighbour.deleted_at IS NULL AND lower(neighbour.title) = lower(${at(10)}) AND beside <> ''))`,
    values: [
      ...[rhythm ?? null, pieces(instrument, ','), list(known), missing ?? null, movements === undefined ? null : (pieces(movements, '|') ?? [])],
      ...[meter ?? null, use ?? null, hard ?? null, list(phrase) === null ? null : `%${escapedLike(melodyText(phrase ?? []))}%`],
      ...[list(within), beside ?? null],
    ],
  };
}

export class TuneRepository {
  constructor(private readonly database: Database) {}

  /** By title; `find` looks in titles, kinds and the titles of neighbours in a set. */
  async list(studioId: string, { limit, after, find, ...filter }: Wanted): Promise<Page<TuneSummary>> {
    const [title, id] = readCursor(after, 'name');
    const { sql, values } = conditionsOf(filter, 6);
    const rows = await this.database.query<SummaryRow>(
      `SELECT id, title, rhythm, meter, music_key AS "musicKey", bars, outside, instrument, facts - 'melody' AS facts, about FROM tune
       WHERE studio_id = $1 AND deleted_at IS NULL
         AND ($2::text IS NULL OR (title, id) > ($2, $3::uuid))
         AND ($4::text IS NULL OR title ILIKE $4 OR rhythm ILIKE $4 OR about->>'before' ILIKE $4 OR about->>'after' ILIKE $4)
         AND ${sql}
       ORDER BY title, id LIMIT $5`,
      [studioId, title ?? null, id ?? null, containing(find), limit + 1, ...values],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.title, row.id), summary);
  }

  /** How many tunes can be played with some notes, and how many one note more opens, the most first. */
  async openings(studioId: string, { known = [], ...filter }: Filter): Promise<TuneOpenings> {
    const { sql, values } = conditionsOf(filter, 3);
    const rows = await this.database.query<{ missing: number; note: string | null; tunes: number }>(
      `SELECT least(missing, 2)::int AS missing, CASE WHEN missing = 1 THEN note END AS note, count(*)::int AS tunes
       FROM (SELECT (SELECT count(*) FROM jsonb_array_elements_text(facts->'theme') n WHERE n <> ALL($2::text[])) AS missing,
                    (SELECT min(n) FROM jsonb_array_elements_text(facts->'theme') n WHERE n <> ALL($2::text[])) AS note
             FROM tune WHERE studio_id = $1 AND deleted_at IS NULL AND outside = 0 AND ${sql}) counted
       GROUP BY 1, 2 ORDER BY tunes DESC, note`,
      [studioId, [...known], ...values],
    );
    const sum = (missing: number): number => rows.filter((row) => row.missing === missing).reduce((all, { tunes }) => all + tunes, 0);
    return { playable: sum(0), opens: rows.flatMap(({ missing, note, tunes }) => (missing === 1 && note !== null ? [{ note, tunes }] : [])), more: sum(2) };
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
