import type { OpenedLine, Page, PageQuery, SheetCreate, SheetDetail, SheetLine, SheetLineInput, SheetSave, SheetSummary } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { In, IsNull, Not } from 'typeorm';
import type { Database } from '../database/database';
import { SheetEntity, SheetLineEntity, StudentEntity, TuneEntity } from '../database/entities';
import { containing, cursorOf, cutPage, readCursor } from '../http/cursor';
import type { SaveOutcome } from '../http/save-outcome';
import { newCode } from './line-code';

interface Wanted extends PageQuery {
  readonly find?: string;
  readonly student?: string;
}

/** Whose sheets are looked at: all of a studio, or those of one student. */
export interface SheetScope {
  readonly studioId: string;
  readonly studentId?: string;
}

type SheetLineRow = Pick<SheetLineEntity, keyof SheetLineInput | 'sheetId' | 'position' | 'code' | 'removedAt'> & { readonly id: string };

export class SheetRepository {
  constructor(private readonly database: Database) {}

  /** Changed last first; `find` looks in titles. */
  async list({ studioId, studentId }: SheetScope, { limit, after, find, student }: Wanted): Promise<Page<SheetSummary>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<{ id: string; exact: string }>(
      `SELECT id, updated_at::text AS exact FROM sheet
       WHERE studio_id = $1 AND deleted_at IS NULL
         AND ($2::timestamptz IS NULL OR (updated_at, id) < ($2::timestamptz, $3::uuid))
         AND ($4::text IS NULL OR title ILIKE $4)
         AND ($5::uuid IS NULL OR student_id = $5::uuid)
         AND ($6::uuid IS NULL OR student_id = $6::uuid)
       ORDER BY updated_at DESC, id DESC LIMIT $7`,
      [studioId, at ?? null, id ?? null, containing(find), student ?? null, studentId ?? null, limit + 1],
    );
    const page = cutPage(
      rows,
      limit,
      (row) => cursorOf(row.exact, row.id),
      (row) => row.id,
    );
    if (page.items.length === 0) return { items: [], next: null };
    const sheets = await this.database.of(SheetEntity).findBy({ studioId, id: In(page.items) });
    const found = new Map((await this.summaries(sheets)).map((sheet) => [sheet.id, sheet]));
    return { ...page, items: page.items.flatMap((each) => found.get(each) ?? []) };
  }

  async get({ studioId, studentId }: SheetScope, id: string): Promise<SheetDetail | undefined> {
    return this.database.transaction(async () => {
      const sheet = await this.database.of(SheetEntity).findOneBy({ studioId, id, ...(studentId !== undefined && { studentId }) });
      if (sheet === null) return undefined;
      const [summary] = await this.summaries([sheet]);
      const lines = await this.database.of(SheetLineEntity).find({ where: { sheetId: id, removedAt: IsNull() }, order: { position: 'ASC' } });
      return { ...summary, note: sheet.note, version: sheet.version, lines: lines.map(lineOf) };
    }, 'REPEATABLE READ');
  }

  /** Undefined where there is no such sheet. */
  async instrumentOf(studioId: string, id: string): Promise<string | undefined> {
    return (await this.database.of(SheetEntity).findOne({ select: { id: true, instrument: true }, where: { studioId, id } }))?.instrument;
  }

  async add(studioId: string, sheet: SheetCreate): Promise<string> {
    const id = randomUUID();
    const { studentId, tuneId, instrument, title, note } = sheet;
    await this.database.transaction(async () => {
      await this.database.of(SheetEntity).insert({ id, studioId, studentId, tuneId, instrument, title, note, version: 1 });
      await this.writeLines(id, sheet.lines);
    });
    return id;
  }

  /** Replaces title, note and lines, unless a later version is there. Lines keep their codes, also those that were taken off and come back. */
  async save(studioId: string, id: string, { title, note, lines, version }: SheetSave): Promise<SaveOutcome> {
    return this.database.transaction(async () => {
      const where = { studioId, id, version, deletedAt: IsNull() };
      const { affected } = await this.database.of(SheetEntity).update(where, { title, note, version: version + 1 });
      if (affected !== 1) return (await this.database.of(SheetEntity).existsBy({ studioId, id })) ? 'stale' : 'missing';
      await this.writeLines(id, lines);
      return 'saved';
    });
  }

  /** Puts away, and gives the title back; undefined where there is no such sheet. */
  async remove(studioId: string, id: string): Promise<string | undefined> {
    const title = await this.titleOf(studioId, id);
    await this.database.of(SheetEntity).softDelete({ studioId, id });
    return title;
  }

  async restore(studioId: string, id: string): Promise<string | undefined> {
    await this.database.of(SheetEntity).restore({ studioId, id });
    return this.titleOf(studioId, id);
  }

  async lineByCode(scope: SheetScope, code: string): Promise<OpenedLine | undefined> {
    const line = await this.database.of(SheetLineEntity).findOneBy({ code, removedAt: IsNull() });
    const sheet = line === null ? undefined : await this.get(scope, line.sheetId);
    if (line === null || sheet === undefined) return undefined;
    return { line: lineOf(line), instrument: sheet.instrument, sheet: { id: sheet.id, title: sheet.title }, student: sheet.student.alias };
  }

  private async titleOf(studioId: string, id: string): Promise<string | undefined> {
    return (await this.database.of(SheetEntity).findOne({ select: { id: true, title: true }, where: { studioId, id } }))?.title;
  }

  /** Writes the lines in their order. A line that is not among them is taken off, and keeps its code in case it comes back. */
  private async writeLines(sheetId: string, lines: readonly SheetLineInput[]): Promise<void> {
    const lineTable = this.database.of(SheetLineEntity);
    const codes = new Map((await lineTable.findBy({ sheetId })).map((line) => [line.id, line.code]));
    const known: SheetLineRow[] = [];
    const fresh: SheetLineRow[] = [];
    const newIds = await this.newIds(lines, codes);
    const newCodes = await this.freshCodes(newIds.length);
    lines.forEach(({ id, home, other, repetitions, tempo, point, exercise = null }, position) => {
      const row = { sheetId, position, home, other, repetitions, tempo, point, exercise, removedAt: null };
      const code = id === undefined ? undefined : codes.get(id);
      if (code === undefined) fresh.push({ ...row, id: newIds[fresh.length], code: newCodes[fresh.length] });
      else known.push({ ...row, id: id as string, code });
    });
    const kept = [...known, ...fresh].map((row) => row.id);
    await lineTable.update({ sheetId, removedAt: IsNull(), ...(kept.length > 0 && { id: Not(In(kept)) }) }, { removedAt: () => 'now()' });
    if (known.length > 0) await lineTable.upsert(known, ['id']);
    if (fresh.length > 0) await lineTable.insert(fresh);
  }

  /** Ids for the lines that this sheet does not have yet: the ones they were sent with, unless another sheet has them. */
  private async newIds(lines: readonly SheetLineInput[], codes: ReadonlyMap<string, string>): Promise<string[]> {
    const unknown = lines.filter(({ id }) => id === undefined || !codes.has(id)).map(({ id }) => id ?? randomUUID());
    const sent = lines.flatMap(({ id }) => (id === undefined || codes.has(id) ? [] : [id]));
    if (sent.length === 0) return unknown;
    const taken = new Set((await this.database.of(SheetLineEntity).find({ select: { id: true }, where: { id: In(sent) } })).map(({ id }) => id));
    return unknown.map((id) => (taken.has(id) ? randomUUID() : id));
  }

  /** Codes that no line has; a collision that slips through is refused by the database's own rule. */
  async freshCodes(count: number): Promise<string[]> {
    const codes = new Set<string>();
    while (codes.size < count) {
      const candidate = newCode();
      if (!(await this.database.of(SheetLineEntity).existsBy({ code: candidate }))) codes.add(candidate);
    }
    return [...codes];
  }

  private async summaries(sheets: readonly SheetEntity[]): Promise<SheetSummary[]> {
    if (sheets.length === 0) return [];
    const { manager } = this.database;
    const students = await manager.find(StudentEntity, { where: { id: In(sheets.map((sheet) => sheet.studentId)) }, withDeleted: true });
    const tuneIds = sheets.flatMap((sheet) => (sheet.tuneId === null ? [] : [sheet.tuneId]));
    const tunes =
      tuneIds.length === 0 ? [] : await manager.find(TuneEntity, { select: { id: true, title: true }, where: { id: In(tuneIds) }, withDeleted: true });
    const counts = await manager
      .createQueryBuilder(SheetLineEntity, 'line')
      .select('line.sheet_id', 'sheetId')
      .addSelect('count(*)::int', 'count')
      .where({ sheetId: In(sheets.map((sheet) => sheet.id)), removedAt: IsNull() })
      .groupBy('line.sheet_id')
      .getRawMany<{ sheetId: string; count: number }>();
    return sheets.map((sheet) => {
      const student = students.find((each) => each.id === sheet.studentId);
      const tune = tunes.find((each) => each.id === sheet.tuneId);
      return {
        id: sheet.id,
        title: sheet.title,
        student: { id: sheet.studentId, alias: student?.alias ?? '' },
        tune: tune === undefined ? null : { id: tune.id, title: tune.title },
        instrument: sheet.instrument,
        lineCount: counts.find((each) => each.sheetId === sheet.id)?.count ?? 0,
        updatedAt: sheet.updatedAt.toISOString(),
      };
    });
  }
}

function lineOf({ id, code, home, other, repetitions, tempo, point, exercise }: SheetLineEntity): SheetLine {
  return { id, code, home, other, repetitions, tempo, point, exercise };
}
