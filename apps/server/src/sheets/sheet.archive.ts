import { archiveSheetSchema, type Review } from '@zelpit/contract';
import { ZelpitFault, type Instrument } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { archivePart, dateOrNull, everything, idsOf, insertAll, isoOrNull, refused, signsIn } from '../archive/archive-part';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';
import { lessonsFile } from '../lessons/lesson.archive';
import { instrumentsIn } from '../models/model.archive';
import { studentsFile } from '../students/student.archive';
import { tunesFile } from '../tunes/tune.archive';
import { assertPlayable } from './playable';
import { SheetEntity, SheetLineEntity } from './sheet.entity';
import { columnsOf, lineOf, SheetRepository } from './sheet.repository';

type ArchivedSheet = z.infer<typeof archiveSheetSchema>;

interface Rows {
  readonly sheets: readonly SheetEntity[];
  /** By their sheet, in their order; those that were taken off are left out. */
  readonly lines: ReadonlyMap<string, readonly SheetLineEntity[]>;
}

export const sheetArchive = archivePart({
  file: 'sheets.json',
  since: 1,
  changed: 7,
  schema: z.array(archiveSheetSchema),
  absent: [],
  signs: { letter: 'p', idsOf: ({ sheets }: Rows) => idsOf(sheets) },
  load: async (database, studioId) => ({
    sheets: await everything(database, SheetEntity, studioId),
    lines: await new SheetRepository(database).linesBySheet(studioId),
  }),
  pack: ({ sheets, lines }, signs) =>
    sheets.map(({ id, studentId, tuneId, instrument, title, note, createdAt, updatedAt, deletedAt, ...row }) => ({
      ...{ sign: signs.of(id), student: signs.of(studentId), tune: tuneId === null ? null : signs.of(tuneId), instrument: signs.ofModel(instrument) },
      ...{ title, note, changed: updatedAt.toISOString() },
      ...{ lesson: row.lessonId === null ? null : signs.of(row.lessonId), replaces: row.replacesId === null ? null : signs.of(row.replacesId) },
      ...{ sent: isoOrNull(row.sentAt), opened: isoOrNull(row.openedAt), review: row.review === null ? null : withoutIds(row.review) },
      lines: (lines.get(id) ?? []).map(archivedLine),
      ...{ created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
    })),
  prepare: (sheets, files) => {
    const there = {
      ...{ students: signsIn(files, studentsFile), tunes: signsIn(files, tunesFile), instruments: instrumentsIn(files) },
      ...{ lessons: signsIn(files, lessonsFile), sheets: new Set(sheets.map(({ sign }) => sign)) },
    };
    for (const sheet of sheets) check(sheet, there);
    checkPlaces(sheets);
  },
  write: async (sheets, _, { database, studioId, idOf, modelOf }) => {
    const rows = sheets.map(({ sign, student, tune, instrument, title, note, created, changed, putAway, lesson, review, sent, opened }) => ({
      ...{ id: idOf(sign), studioId, studentId: idOf(student), tuneId: tune === null ? null : idOf(tune), instrument: modelOf(instrument) },
      ...{ title, note, version: 1, createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
      ...{ review, lessonId: lesson === null ? null : idOf(lesson), sentAt: dateOrNull(sent), openedAt: dateOrNull(opened), replacesId: null },
    }));
    await insertAll(database, SheetEntity, rows);
    // A version names the one before it, which may stand later in the file.
    for (const { sign, replaces } of sheets)
      if (replaces !== null) await database.of(SheetEntity).update({ studioId, id: idOf(sign) }, { replacesId: idOf(replaces), updatedAt: () => 'updated_at' });
    const lines = sheets.flatMap((sheet) =>
      sheet.lines.map(({ code, ...line }, position) => ({
        ...columnsOf(line),
        ...{ code, studioId, id: randomUUID() as string, sheetId: idOf(sheet.sign), position, removedAt: null },
      })),
    );
    const newCodes = await giveCodes(database, studioId, lines);
    await insertAll(database, SheetLineEntity, lines);
    return { count: rows.length, newCodes };
  },
});

/** An item without the id that it has here. */
function archivedLine(row: SheetLineEntity): ArchivedSheet['lines'][number] {
  const { id: _, ...line } = lineOf(row);
  return line;
}

/** Ids of items hold inside one studio only. */
const withoutIds = ({ struck, ...review }: Review): Review => ({
  ...review,
  struck: struck.map(({ item: { id: _, ...item }, reason }) => ({ item, reason })),
  proposed: [],
});

/** One review is written after a lesson, and one anew from another. */
function checkPlaces(sheets: readonly ArchivedSheet[]): void {
  const places = sheets.filter(({ putAway }) => putAway === null).flatMap(({ lesson, replaces }) => replaces ?? lesson ?? []);
  if (new Set(places).size < places.length) throw refused('This backup has two reviews of one lesson, or two new versions of one review.');
}

interface There {
  readonly students: ReadonlySet<string>;
  readonly tunes: ReadonlySet<string>;
  readonly instruments: ReadonlyMap<string, Instrument>;
  readonly lessons: ReadonlySet<string>;
  readonly sheets: ReadonlySet<string>;
}

function check({ title, student, tune, instrument, lines, lesson, replaces }: ArchivedSheet, there: There): void {
  if (lesson !== null && !there.lessons.has(lesson)) throw refused(`The review “${title}” was written after a lesson that is not in this backup.`);
  if (replaces !== null && !there.sheets.has(replaces)) throw refused(`The review “${title}” was written anew from one that is not in this backup.`);
  if (!there.students.has(student)) throw refused(`The sheet “${title}” belongs to a student who is not in this backup.`);
  if (tune !== null && !there.tunes.has(tune)) throw refused(`The sheet “${title}” comes from a tune that is not in this archive.`);
  const known = there.instruments.get(instrument);
  if (known === undefined) throw refused(`The sheet “${title}” is for an instrument that is neither in this archive nor known here.`);
  try {
    assertPlayable(known, lines);
  } catch (error) {
    if (error instanceof ZelpitFault || error instanceof HttpProblem) throw refused(`A line of the sheet “${title}” cannot be played: ${error.message}`);
    throw error;
  }
}

/** Keeps each line's code where nobody has it, and gives a new one where somebody has. */
async function giveCodes(database: Database, studioId: string, lines: { code: string }[]): Promise<number> {
  const sheets = new SheetRepository(database);
  const taken = await sheets.takenCodes(
    studioId,
    lines.map(({ code }) => code),
  );
  const clashing = lines.filter(({ code }) => {
    const isTaken = taken.has(code);
    taken.add(code);
    return isTaken;
  });
  const fresh = await sheets.freshCodes(studioId, clashing.length, taken);
  clashing.forEach((line, index) => Object.assign(line, { code: fresh[index] }));
  return clashing.length;
}
