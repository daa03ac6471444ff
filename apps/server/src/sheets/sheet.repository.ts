import type { OpenedLine, SheetCreate, SheetDetail, SheetLine, SheetLineInput, SheetSave, SheetSummary } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { In, type DataSource, type EntityManager } from 'typeorm';
import { SheetEntity, SheetLineEntity, StudentEntity, TuneEntity } from '../database/entities';
import { newCode } from './line-code';

export type SaveOutcome = 'saved' | 'stale' | 'missing';

export class SheetRepository {
  constructor(private readonly dataSource: DataSource) {}

  async list(studioId: string): Promise<SheetSummary[]> {
    const sheets = await this.dataSource.getRepository(SheetEntity).find({ where: { studioId }, order: { updatedAt: 'DESC', id: 'ASC' } });
    return this.summaries(this.dataSource.manager, sheets);
  }

  async get(studioId: string, id: string): Promise<SheetDetail | undefined> {
    return this.dataSource.transaction('REPEATABLE READ', async (manager) => {
      const sheet = await manager.findOneBy(SheetEntity, { studioId, id });
      if (sheet === null) return undefined;
      const [summary] = await this.summaries(manager, [sheet]);
      const lines = await manager.find(SheetLineEntity, { where: { sheetId: id }, order: { position: 'ASC' } });
      return { ...summary, note: sheet.note, version: sheet.version, lines: lines.map(lineOf) };
    });
  }

  async add(studioId: string, sheet: SheetCreate): Promise<string> {
    const id = randomUUID();
    const { studentId, tuneId, instrument, title, note } = sheet;
    await this.dataSource.transaction(async (manager) => {
      await manager.insert(SheetEntity, { id, studioId, studentId, tuneId, instrument, title, note, version: 1 });
      await this.writeLines(manager, id, sheet.lines, new Map());
    });
    return id;
  }

  /** Replaces title, note and lines, unless a later version is there. Lines keep their codes. */
  async save(studioId: string, id: string, { title, note, lines, version }: SheetSave): Promise<SaveOutcome> {
    return this.dataSource.transaction(async (manager) => {
      const { affected } = await manager.update(SheetEntity, { studioId, id, version }, { title, note, version: version + 1 });
      if (affected !== 1) return (await manager.existsBy(SheetEntity, { studioId, id })) ? 'stale' : 'missing';
      const before = await manager.findBy(SheetLineEntity, { sheetId: id });
      await manager.delete(SheetLineEntity, { sheetId: id });
      await this.writeLines(manager, id, lines, new Map(before.map((line) => [line.id, line.code])));
      return 'saved';
    });
  }

  async remove(studioId: string, id: string): Promise<boolean> {
    return (await this.dataSource.getRepository(SheetEntity).softDelete({ studioId, id })).affected === 1;
  }

  async restore(studioId: string, id: string): Promise<boolean> {
    return (await this.dataSource.getRepository(SheetEntity).restore({ studioId, id })).affected === 1;
  }

  async lineByCode(studioId: string, code: string): Promise<OpenedLine | undefined> {
    const line = await this.dataSource.getRepository(SheetLineEntity).findOneBy({ code });
    const sheet = line === null ? undefined : await this.get(studioId, line.sheetId);
    if (line === null || sheet === undefined) return undefined;
    return { line: lineOf(line), instrument: sheet.instrument, sheet: { id: sheet.id, title: sheet.title }, student: sheet.student.alias };
  }

  private async writeLines(manager: EntityManager, sheetId: string, lines: readonly SheetLineInput[], codes: ReadonlyMap<string, string>): Promise<void> {
    const fresh = await this.freshCodes(manager, lines.filter((line) => line.id === undefined || !codes.has(line.id)).length);
    const rows = lines.map((line, position) => {
      const known = line.id === undefined ? undefined : codes.get(line.id);
      const { home, other, repetitions, tempo, point } = line;
      return {
        id: known === undefined ? randomUUID() : (line.id as string),
        sheetId,
        position,
        code: known ?? (fresh.pop() as string),
        home,
        other,
        repetitions,
        tempo,
        point,
      };
    });
    if (rows.length > 0) await manager.insert(SheetLineEntity, rows);
  }

  /** Codes that no line has; a collision that slips through is refused by the database's own rule. */
  private async freshCodes(manager: EntityManager, count: number): Promise<string[]> {
    const codes = new Set<string>();
    while (codes.size < count) {
      const candidate = newCode();
      if (!(await manager.existsBy(SheetLineEntity, { code: candidate }))) codes.add(candidate);
    }
    return [...codes];
  }

  private async summaries(manager: EntityManager, sheets: readonly SheetEntity[]): Promise<SheetSummary[]> {
    if (sheets.length === 0) return [];
    const students = await manager.find(StudentEntity, { where: { id: In(sheets.map((sheet) => sheet.studentId)) }, withDeleted: true });
    const tuneIds = sheets.flatMap((sheet) => (sheet.tuneId === null ? [] : [sheet.tuneId]));
    const tunes =
      tuneIds.length === 0 ? [] : await manager.find(TuneEntity, { select: { id: true, title: true }, where: { id: In(tuneIds) }, withDeleted: true });
    const counts = await manager
      .createQueryBuilder(SheetLineEntity, 'line')
      .select('line.sheet_id', 'sheetId')
      .addSelect('count(*)::int', 'count')
      .where({ sheetId: In(sheets.map((sheet) => sheet.id)) })
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

function lineOf({ id, code, home, other, repetitions, tempo, point }: SheetLineEntity): SheetLine {
  return { id, code, home, other, repetitions, tempo, point };
}
