import { archiveStudioSchema, type ArchiveResult, type ArchiveStudio } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { StudioEntity } from '../accounts/account.entities';
import type { Database } from '../database/database';
import { archivePartsOf, putAwayPartsOf, type Thing } from '../things/thing';
import { Signs, signsOf, type AnyArchivePart, type ArchiveFiles } from './archive-part';

/** The file that every archive has beside those of the things. */
export const studioFile = 'studio.json';
export const studioFileSchema = archiveStudioSchema;

/** A file of an archive with what its part read out of it. */
export interface PreparedFile {
  readonly kind: string;
  readonly part: AnyArchivePart;
  readonly content: unknown;
  readonly prepared: unknown;
}

/** A whole studio out of the tables and into them, one kind of thing after the other. */
export class ArchiveRepository {
  constructor(
    private readonly database: Database,
    private readonly things: readonly Thing[],
  ) {}

  /** Everything of the studio as it was at one moment, what is put away too. Teachers, their passwords and the list of changes stay here. */
  async read(studioId: string): Promise<ArchiveFiles> {
    return this.database.transaction(async () => {
      const { name } = await this.database.of(StudioEntity).findOneByOrFail({ id: studioId });
      const studio: ArchiveStudio = { name };
      const loaded: { readonly part: AnyArchivePart; readonly rows: unknown }[] = [];
      for (const { part } of archivePartsOf(this.things)) loaded.push({ part, rows: await part.load(this.database, studioId) });
      const signs = new Signs();
      for (const { part, rows } of loaded) if (part.signs !== undefined) signs.give(part.signs.letter, part.signs.idsOf(rows));
      return new Map<string, unknown>([[studioFile, studio], ...loaded.map(({ part, rows }) => [part.file, part.pack(rows, signs)] as const)]);
    }, 'REPEATABLE READ');
  }

  /** True where the studio holds nothing, what is put away left aside. */
  async isEmpty(studioId: string): Promise<boolean> {
    for (const { table } of putAwayPartsOf(this.things)) {
      const found = await this.database.query(`SELECT 1 FROM ${table} WHERE studio_id = $1 AND deleted_at IS NULL LIMIT 1`, [studioId]);
      if (found.length > 0) return false;
    }
    return true;
  }

  /** Puts everything of the studio away, to be found again for as long as things are kept. */
  async putAllAway(studioId: string): Promise<number> {
    let count = 0;
    for (const { table } of putAwayPartsOf(this.things)) {
      const [row] = await this.database.query<{ count: string }>(
        `WITH away AS (UPDATE ${table} SET deleted_at = now() WHERE studio_id = $1 AND deleted_at IS NULL RETURNING 1) SELECT count(*) FROM away`,
        [studioId],
      );
      count += Number(row.count);
    }
    return count;
  }

  /** Writes all of an archive into the studio. Belongs into a transaction. */
  async write(studioId: string, files: readonly PreparedFile[]): Promise<Omit<ArchiveResult, 'putAway'>> {
    const ids = new Map(files.flatMap(({ part, content }) => signsOf(part, content).map((sign) => [sign, randomUUID() as string])));
    const target = {
      database: this.database,
      studioId,
      idOf: (sign: string) => ids.get(sign) as string,
      modelOf: (model: string) => ids.get(model) ?? model,
    };
    const counts: Record<string, number> = {};
    let newCodes = 0;
    for (const { kind, part, content, prepared } of files) {
      const brought = await part.write(content, prepared, target);
      counts[kind] = brought.count;
      newCodes += brought.newCodes ?? 0;
    }
    return { counts, newCodes };
  }
}
