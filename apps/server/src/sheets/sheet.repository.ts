import {
  hasMusic,
  takeBackSeconds,
  type OpenedLine,
  type Page,
  type PageQuery,
  type Review,
  type SheetCreate,
  type SheetDetail,
  type SheetLine,
  type SheetLineInput,
  type SheetSave,
  type SheetSummary,
} from '@zelpit/contract';
import { withTempos } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { In, IsNull, Not } from 'typeorm';
import type { Database } from '../database/database';
import { SheetEntity, SheetLineEntity } from './sheet.entity';
import { containing, cursorOf, cutPage, readCursor } from '../http/cursor';
import type { SaveOutcome } from '../http/save-outcome';
import { HttpProblem } from '../http/problem';
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

/** What makes a sheet a review. */
export interface AsReview {
  readonly review?: Review;
  readonly lessonId?: string | null;
  readonly replacesId?: string;
}

const wasSent = (): HttpProblem =>
  new HttpProblem('not-possible', 'This review was sent, so it does not change any more. Write it anew: the student sees the new version when it is sent.');

const codesAtOnce = 200;
/** Draws for codes that are still free, before it is said that there are none: at half of all taken, one in a million million fails. */
const drawsForEach = 40;

interface SummaryRow {
  readonly id: string;
  readonly title: string;
  readonly instrument: string;
  readonly studentId: string;
  readonly alias: string;
  readonly tuneId: string | null;
  readonly tuneTitle: string | null;
  readonly updatedAt: Date;
  readonly isReview: boolean;
  readonly sentAt: Date | null;
  /** To the microsecond, as the database orders. */
  readonly exact: string;
  readonly lineCount: number;
}

const summaryColumns = `s.id, s.title, s.instrument, s.student_id AS "studentId", st.alias, s.tune_id AS "tuneId", t.title AS "tuneTitle",
  s.updated_at AS "updatedAt", s.updated_at::text AS exact, s.review IS NOT NULL AS "isReview", s.sent_at AS "sentAt"`;
const summaryTables = `FROM sheet s JOIN student st ON st.studio_id = s.studio_id AND st.id = s.student_id
  LEFT JOIN tune t ON t.studio_id = s.studio_id AND t.id = s.tune_id`;

const summaryOf = ({ id, title, instrument, studentId, alias, tuneId, tuneTitle, updatedAt, lineCount, isReview, sentAt }: SummaryRow): SheetSummary => ({
  ...{ id, title, instrument, lineCount },
  student: { id: studentId, alias },
  tune: tuneId === null ? null : { id: tuneId, title: tuneTitle ?? '' },
  ...{ updatedAt: updatedAt.toISOString(), isReview, sentAt: sentAt?.toISOString() ?? null },
});

/** A student sees what was sent of reviews, and of several versions the last that was. */
const seenByStudent = `(s.review IS NULL OR s.sent_at IS NOT NULL)`;
const lastSent = `NOT EXISTS (SELECT 1 FROM sheet n WHERE n.studio_id = s.studio_id AND n.replaces_id = s.id AND n.sent_at IS NOT NULL AND n.deleted_at IS NULL)`;

export class SheetRepository {
  constructor(private readonly database: Database) {}

  /** Changed last first; `find` looks in titles. */
  async list({ studioId, studentId }: SheetScope, { limit, after, find, student }: Wanted): Promise<Page<SheetSummary>> {
    const [at, id] = readCursor(after, 'moment');
    const rows = await this.database.query<SummaryRow>(
      `SELECT ${summaryColumns}, (SELECT count(*)::int FROM sheet_line l WHERE l.studio_id = s.studio_id AND l.sheet_id = s.id AND l.removed_at IS NULL) AS "lineCount"
       ${summaryTables}
       WHERE s.studio_id = $1 AND s.deleted_at IS NULL
         AND ($2::timestamptz IS NULL OR (s.updated_at, s.id) < ($2::timestamptz, $3::uuid))
         AND ($4::text IS NULL OR s.title ILIKE $4)
         AND ($5::uuid IS NULL OR s.student_id = $5::uuid)
         AND ($6::uuid IS NULL OR s.student_id = $6::uuid AND ${seenByStudent} AND ${lastSent})
       ORDER BY s.updated_at DESC, s.id DESC LIMIT $7`,
      [studioId, at ?? null, id ?? null, containing(find), student ?? null, studentId ?? null, limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.exact, row.id), summaryOf);
  }

  /** One statement, so that the lines are those of the version. */
  async get({ studioId, studentId }: SheetScope, id: string): Promise<SheetDetail | undefined> {
    const [row] = await this.database.query<
      Omit<SummaryRow, 'lineCount'> &
        Pick<SheetDetail, 'note' | 'version' | 'review' | 'lessonId' | 'replaces' | 'replacedBy'> & {
          readonly lines: readonly SheetLineEntity[];
          readonly openedAt: Date | null;
        }
    >(
      `SELECT ${summaryColumns}, s.note, s.version, s.review, s.lesson_id AS "lessonId", s.opened_at AS "openedAt", s.replaces_id AS replaces,
         (SELECT n.id FROM sheet n WHERE n.studio_id = s.studio_id AND n.replaces_id = s.id AND n.deleted_at IS NULL AND ($3::uuid IS NULL OR n.sent_at IS NOT NULL)) AS "replacedBy",
         COALESCE((SELECT json_agg(json_build_object('id', l.id, 'code', l.code, 'kind', l.kind, 'home', l.home, 'other', l.other, 'words', l.words,
           'repetitions', l.repetitions, 'tempo', l.tempo, 'speeds', l.speeds, 'point', l.point, 'exercise', l.exercise, 'excerpt', l.excerpt,
           'fingering', l.fingering, 'details', l.details) ORDER BY l.position)
           FROM sheet_line l WHERE l.studio_id = s.studio_id AND l.sheet_id = s.id AND l.removed_at IS NULL), '[]') AS lines
       ${summaryTables}
       WHERE s.studio_id = $1 AND s.id = $2 AND s.deleted_at IS NULL AND ($3::uuid IS NULL OR s.student_id = $3::uuid AND ${seenByStudent})`,
      [studioId, id, studentId ?? null],
    );
    if (row === undefined) return undefined;
    const { note, version, lines, review, lessonId, openedAt, replaces, replacedBy } = row;
    return {
      ...summaryOf({ ...row, lineCount: lines.length }),
      ...{ note, version, lessonId, replaces, replacedBy, openedAt: openedAt?.toISOString() ?? null },
      lines: lines.map(lineOf),
      // What was struck out is the teacher's own business.
      review: review === null || studentId === undefined ? review : { ...review, struck: [], proposed: [] },
    };
  }

  /** Its instrument, and whether it is a review; undefined where there is no such sheet. */
  async kindOf(studioId: string, id: string): Promise<{ readonly instrument: string; readonly isReview: boolean } | undefined> {
    const [row] = await this.database.query<{ instrument: string; isReview: boolean }>(
      'SELECT instrument, review IS NOT NULL AS "isReview" FROM sheet WHERE studio_id = $1 AND id = $2 AND deleted_at IS NULL',
      [studioId, id],
    );
    return row;
  }

  async add(studioId: string, sheet: SheetCreate, beside: AsReview = {}): Promise<string> {
    const id = randomUUID();
    const { studentId, tuneId, instrument, title, note } = sheet;
    await this.database.transaction(async () => {
      await this.database.of(SheetEntity).insert({ id, studioId, studentId, tuneId, instrument, title, note, version: 1, ...beside } as never);
      await this.writeLines(studioId, id, sheet.lines);
    });
    return id;
  }

  /**
   * Replaces title, note, lines and what makes it a review, unless a later version is there. Lines keep their codes, also those that were taken off and come back.
   * @throws HttpProblem for one that was sent
   */
  async save(studioId: string, id: string, { title, note, lines, version, review }: SheetSave): Promise<SaveOutcome> {
    return this.database.transaction(async () => {
      const where = { studioId, id, version, deletedAt: IsNull(), sentAt: IsNull() };
      const change = { title, note, version: version + 1, ...(review !== undefined && { review }) };
      const { affected } = await this.database.of(SheetEntity).update(where, change as never);
      if (affected !== 1 && (await this.isSent(studioId, id))) throw wasSent();
      if (affected !== 1) return (await this.database.of(SheetEntity).existsBy({ studioId, id })) ? 'stale' : 'missing';
      await this.writeLines(studioId, id, lines);
      return 'saved';
    });
  }

  /** Puts away, and gives the title back; undefined where there is no such sheet. */
  async remove(studioId: string, id: string): Promise<string | undefined> {
    const title = await this.titleOf(studioId, id);
    await this.database.of(SheetEntity).softDelete({ studioId, id });
    return title;
  }

  /** What was written since in its place keeps that place. */
  async restore(studioId: string, id: string): Promise<string | undefined> {
    const other = (condition: string): string =>
      `EXISTS (SELECT 1 FROM sheet o WHERE o.studio_id = sheet.studio_id AND o.id <> sheet.id AND o.deleted_at IS NULL AND ${condition})`;
    await this.database.query(
      `UPDATE sheet SET deleted_at = NULL,
         lesson_id = CASE WHEN replaces_id IS NULL AND ${other('o.lesson_id = sheet.lesson_id AND o.replaces_id IS NULL')} THEN NULL ELSE lesson_id END,
         replaces_id = CASE WHEN ${other('o.replaces_id = sheet.replaces_id')} THEN NULL ELSE replaces_id END
       WHERE studio_id = $1 AND id = $2`,
      [studioId, id],
    );
    return this.titleOf(studioId, id);
  }

  /** The review that was begun after a lesson; undefined where there is none. */
  async ofLesson(studioId: string, lessonId: string): Promise<string | undefined> {
    return (await this.database.of(SheetEntity).findOne({ select: { id: true }, where: { studioId, lessonId, replacesId: IsNull() } }))?.id;
  }

  /** Marks a review as sent: what was read is what is sent. */
  async send(studioId: string, id: string, version: number): Promise<SaveOutcome> {
    const rows = await this.database.query<{ id: string }>(
      `WITH sent AS (UPDATE sheet SET sent_at = now(), updated_at = now(), version = version + 1
         WHERE studio_id = $1 AND id = $2 AND version = $3 AND sent_at IS NULL AND review IS NOT NULL AND deleted_at IS NULL RETURNING id) SELECT id FROM sent`,
      [studioId, id, version],
    );
    if (rows.length === 1) return 'saved';
    if (await this.isSent(studioId, id)) throw wasSent();
    return (await this.database.of(SheetEntity).existsBy({ studioId, id })) ? 'stale' : 'missing';
  }

  /** Takes a review back that was sent a moment ago and that nobody has opened; false where it is too late. */
  async takeBack(studioId: string, id: string): Promise<boolean> {
    const rows = await this.database.query<{ id: string }>(
      `WITH back AS (UPDATE sheet SET sent_at = NULL, version = version + 1
         WHERE studio_id = $1 AND id = $2 AND sent_at > now() - make_interval(secs => $3) AND opened_at IS NULL AND deleted_at IS NULL RETURNING id) SELECT id FROM back`,
      [studioId, id, takeBackSeconds],
    );
    return rows.length === 1;
  }

  /** Notes when its student opened it first. */
  async open({ studioId, studentId }: SheetScope, id: string): Promise<void> {
    await this.database.query(
      'UPDATE sheet SET opened_at = now() WHERE studio_id = $1 AND id = $2 AND student_id = $3 AND sent_at IS NOT NULL AND opened_at IS NULL',
      [studioId, id, studentId ?? null],
    );
  }

  /** What the newest review of a student says first, drafts too; null for none. */
  async lastPriority(studioId: string, studentId: string): Promise<Review['priority']> {
    const [row] = await this.database.query<{ priority: Review['priority'] }>(
      `SELECT review->'priority' AS priority FROM sheet
       WHERE studio_id = $1 AND student_id = $2 AND review IS NOT NULL AND deleted_at IS NULL ORDER BY review->>'on' DESC, updated_at DESC LIMIT 1`,
      [studioId, studentId],
    );
    return row?.priority ?? null;
  }

  /** The version that was written anew from a sent one; undefined where there is none. */
  async anewOf(studioId: string, id: string): Promise<string | undefined> {
    return (await this.database.of(SheetEntity).findOne({ select: { id: true }, where: { studioId, replacesId: id } }))?.id;
  }

  private async isSent(studioId: string, id: string): Promise<boolean> {
    return this.database.of(SheetEntity).existsBy({ studioId, id, sentAt: Not(IsNull()) });
  }

  async lineByCode(scope: SheetScope, code: string): Promise<OpenedLine | undefined> {
    const line = await this.database.of(SheetLineEntity).findOneBy({ studioId: scope.studioId, code, removedAt: IsNull() });
    const sheet = line === null ? undefined : await this.get(scope, line.sheetId);
    if (line === null || sheet === undefined) return undefined;
    return { line: lineOf(line), instrument: sheet.instrument, sheet: { id: sheet.id, title: sheet.title }, student: sheet.student };
  }

  private async titleOf(studioId: string, id: string): Promise<string | undefined> {
    return (await this.database.of(SheetEntity).findOne({ select: { id: true, title: true }, where: { studioId, id } }))?.title;
  }

  /** Writes the lines in their order, each at its own tempo. A line that is not among them is taken off, and keeps its code in case it comes back. */
  private async writeLines(studioId: string, sheetId: string, said: readonly SheetLineInput[]): Promise<void> {
    const lines = withTempos(said);
    const lineTable = this.database.of(SheetLineEntity);
    const codes = new Map((await lineTable.findBy({ studioId, sheetId })).map((line) => [line.id, line.code]));
    const known: SheetLineEntity[] = [];
    const fresh: SheetLineEntity[] = [];
    const newIds = await this.newIds(studioId, lines, codes);
    const newCodes = await this.freshCodes(studioId, newIds.length);
    lines.forEach((line, position) => {
      const { id } = line;
      const row = { ...columnsOf(line), studioId, sheetId, position, removedAt: null };
      const code = id === undefined ? undefined : codes.get(id);
      if (code === undefined) fresh.push({ ...row, id: newIds[fresh.length], code: newCodes[fresh.length] });
      else known.push({ ...row, id: id as string, code });
    });
    const kept = [...known, ...fresh].map((row) => row.id);
    await lineTable.update({ studioId, sheetId, removedAt: IsNull(), ...(kept.length > 0 && { id: Not(In(kept)) }) }, { removedAt: () => 'now()' });
    if (known.length > 0) await lineTable.upsert(known, ['studioId', 'id']);
    if (fresh.length > 0) await lineTable.insert(fresh);
  }

  /** Ids for the lines that this sheet does not have yet: the ones they were sent with, unless another sheet has them. */
  private async newIds(studioId: string, lines: readonly SheetLineInput[], codes: ReadonlyMap<string, string>): Promise<string[]> {
    const unknown = lines.filter(({ id }) => id === undefined || !codes.has(id)).map(({ id }) => id ?? randomUUID());
    const sent = lines.flatMap(({ id }) => (id === undefined || codes.has(id) ? [] : [id]));
    if (sent.length === 0) return unknown;
    const taken = new Set((await this.database.of(SheetLineEntity).find({ select: { id: true }, where: { studioId, id: In(sent) } })).map(({ id }) => id));
    return unknown.map((id) => (taken.has(id) ? randomUUID() : id));
  }

  /**
   * Codes that no line of the studio has; a collision that slips through is refused by the database's own rule.
   * @throws HttpProblem where so many are taken that none is found in a bounded number of draws
   */
  async freshCodes(studioId: string, count: number, alsoTaken: ReadonlySet<string> = new Set()): Promise<string[]> {
    const codes = new Set<string>();
    for (let draw = 0; codes.size < count; draw += 1) {
      if (draw === drawsForEach)
        throw new HttpProblem('not-possible', 'There is no practice code left for another line. Delete sheets that nobody needs any more.');
      const drawn = new Set(Array.from({ length: count - codes.size }, () => newCode()));
      const taken = await this.takenCodes(studioId, [...drawn]);
      for (const code of drawn) if (!taken.has(code) && !alsoTaken.has(code)) codes.add(code);
    }
    return [...codes];
  }

  /** Lines of some sheets by their sheet, in their order, but those that were taken off. */
  async linesOf(studioId: string, sheets: readonly string[]): Promise<ReadonlyMap<string, readonly SheetLineEntity[]>> {
    const lines = await this.database.query<SheetLineEntity>(
      `SELECT l.sheet_id AS "sheetId", l.kind, l.home, l.other, l.words, l.repetitions, l.tempo, l.speeds, l.point, l.exercise, l.excerpt, l.fingering, l.details, l.code
       FROM sheet_line l WHERE l.studio_id = $1 AND l.sheet_id = ANY ($2) AND l.removed_at IS NULL ORDER BY l.sheet_id, l.position`,
      [studioId, sheets],
    );
    const groups = new Map<string, SheetLineEntity[]>();
    for (const line of lines) {
      const group = groups.get(line.sheetId);
      if (group === undefined) groups.set(line.sheetId, [line]);
      else group.push(line);
    }
    return groups;
  }

  /** Which of these codes some line of the studio has already. */
  async takenCodes(studioId: string, codes: readonly string[]): Promise<Set<string>> {
    const taken = new Set<string>();
    for (let start = 0; start < codes.length; start += codesAtOnce) {
      const found = await this.database
        .of(SheetLineEntity)
        .find({ select: { code: true }, where: { studioId, code: In(codes.slice(start, start + codesAtOnce)) } });
      for (const { code } of found) taken.add(code);
    }
    return taken;
  }
}

/** An item as its row has it: what its kind does not have is null. */
export function columnsOf(item: SheetLineInput): Omit<SheetLineEntity, 'studioId' | 'sheetId' | 'id' | 'position' | 'code' | 'removedAt'> {
  const { kind, repetitions, tempo, speeds = null, point, details = null } = item;
  const common = { kind, repetitions, tempo, speeds, point, details: details === null || Object.keys(details).length === 0 ? null : details };
  if (!hasMusic(item)) return { ...common, words: item.text, home: null, other: null, exercise: null, excerpt: null, fingering: null };
  const { home, other, exercise = null, excerpt = null, fingering = null } = item;
  return { ...common, home, other, exercise, excerpt, fingering, words: null };
}

/** The other way round. */
export function lineOf(row: SheetLineEntity): SheetLine {
  const { id, code, kind, home, other, words, repetitions, tempo, speeds, point, exercise, excerpt, fingering, details } = row;
  const common = { id, code, repetitions, tempo, speeds, point, details };
  if (kind === 'words') return { ...common, kind, text: words ?? '' };
  return { ...common, kind, home: home ?? '', other: other ?? '', exercise, excerpt, fingering };
}
