import { archiveSheetSchema, type Review } from '@zelpit/contract';
import { ZelpitFault, type Instrument } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type * as z from 'zod';
import { archivePart, dateOrNull, insertAll, isoOrNull, pagesOf, refused, type ArchiveTarget, type Signs } from '../archive/archive-part';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';
import { lessonsFile } from '../lessons/lesson.archive';
import { studentsFile } from '../students/student.archive';
import { tunesFile } from '../tunes/tune.archive';
import { assertPlayable } from './playable';
import { SheetEntity, SheetLineEntity } from './sheet.entity';
import { columnsOf, lineOf, SheetRepository } from './sheet.repository';

type ArchivedSheet = z.infer<typeof archiveSheetSchema>;

const sheetsFile = 'sheets.json';

export const sheetArchive = archivePart({
  file: sheetsFile,
  since: 1,
  changed: 7,
  schema: archiveSheetSchema,
  signs: { letter: 'p', table: 'sheet' },
  read: async function* (database, studioId, signs) {
    const repository = new SheetRepository(database);
    for await (const sheets of pagesOf(database, SheetEntity, studioId)) {
      // Those that were taken off are left out.
      const lines = await repository.linesOf(
        studioId,
        sheets.map(({ id }) => id),
      );
      yield sheets.map((sheet) => archivedSheet(sheet, lines.get(sheet.id) ?? [], signs));
    }
  },
  check: ({ signsIn, instruments }) => {
    const there = { students: signsIn(studentsFile), tunes: signsIn(tunesFile), lessons: signsIn(lessonsFile), sheets: signsIn(sheetsFile), instruments };
    const places = new Set<string>();
    return {
      each: (sheet) => {
        check(sheet, there);
        const place = sheet.putAway === null ? (sheet.replaces ?? sheet.lesson) : null;
        if (place === null) return;
        // One review is written after a lesson, and one anew from another.
        if (places.has(place)) throw refused('This backup has two reviews of one lesson, or two new versions of one review.');
        places.add(place);
      },
    };
  },
  write: (target) => {
    const { database, studioId, idOf } = target;
    // A version names the one before it, which may stand later in the file.
    const versions: (readonly [sign: string, replaces: string])[] = [];
    let [count, newCodes] = [0, 0];
    return {
      some: async (checked) => {
        const sheets = checked.map(({ item }) => item);
        await insertAll(
          database,
          SheetEntity,
          sheets.map((sheet) => rowOf(sheet, target)),
        );
        for (const { sign, replaces } of sheets) if (replaces !== null) versions.push([sign, replaces]);
        const lines = sheets.flatMap((sheet) =>
          sheet.lines.map(({ code, ...line }, position) => ({
            ...columnsOf(line),
            ...{ code, studioId, id: randomUUID() as string, sheetId: idOf(sheet.sign), position, removedAt: null },
          })),
        );
        newCodes += await giveCodes(database, studioId, lines);
        await insertAll(database, SheetLineEntity, lines);
        count += sheets.length;
      },
      end: async () => {
        for (const [sign, replaces] of versions)
          await database.of(SheetEntity).update({ studioId, id: idOf(sign) }, { replacesId: idOf(replaces), updatedAt: () => 'updated_at' });
      },
      brought: () => ({ count, newCodes }),
    };
  },
});

function archivedSheet(
  { id, studentId, tuneId, instrument, title, note, createdAt, updatedAt, deletedAt, ...row }: SheetEntity,
  lines: readonly SheetLineEntity[],
  signs: Signs,
): ArchivedSheet {
  return {
    ...{ sign: signs.of(id), student: signs.of(studentId), tune: tuneId === null ? null : signs.of(tuneId), instrument: signs.ofModel(instrument) },
    ...{ title, note, changed: updatedAt.toISOString() },
    ...{ lesson: row.lessonId === null ? null : signs.of(row.lessonId), replaces: row.replacesId === null ? null : signs.of(row.replacesId) },
    ...{ sent: isoOrNull(row.sentAt), opened: isoOrNull(row.openedAt), review: row.review === null ? null : withoutIds(row.review) },
    lines: lines.map(archivedLine),
    ...{ created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
  };
}

function rowOf(sheet: ArchivedSheet, { studioId, idOf, modelOf }: ArchiveTarget): object {
  const { sign, student, tune, instrument, title, note, created, changed, putAway, lesson, review, sent, opened } = sheet;
  return {
    ...{ id: idOf(sign), studioId, studentId: idOf(student), tuneId: tune === null ? null : idOf(tune), instrument: modelOf(instrument) },
    ...{ title, note, version: 1, createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    ...{ review, lessonId: lesson === null ? null : idOf(lesson), sentAt: dateOrNull(sent), openedAt: dateOrNull(opened), replacesId: null },
  };
}

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
