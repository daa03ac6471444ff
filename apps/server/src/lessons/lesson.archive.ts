import { archiveLessonSchema } from '@zelpit/contract';
import type * as z from 'zod';
import { archivePart, dateOrNull, insertAll, isoOrNull, pagesOf, refused, type ArchiveTarget } from '../archive/archive-part';
import { studentsFile } from '../students/student.archive';
import { LessonEntity } from './lesson.entity';

export const lessonsFile = 'lessons.json';
/** Weekly ones first, then by day and time, so that a backup of the same lessons is the same. */
const inOrder = `repeats <> 'weekly', day, time, id`;

export const lessonArchive = archivePart({
  file: lessonsFile,
  since: 6,
  schema: archiveLessonSchema,
  signs: { letter: 'e', table: 'lesson', order: inOrder },
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, LessonEntity, studioId, inOrder))
      yield rows.map(({ id, studentId, weeklyId, on, time, minutes, repeats, until, note, plan, begunAt, endedAt }) => ({
        ...{ sign: signs.of(id), student: signs.of(studentId), weekly: weeklyId === null ? null : signs.of(weeklyId), on, time, minutes, repeats, until, note },
        plan: plan.map(({ itemId: _, ...item }) => ({ ...item, model: signs.ofModel(item.model) })),
        ...{ begun: isoOrNull(begunAt), ended: isoOrNull(endedAt) },
      }));
  },
  check: ({ signsIn }) => {
    const students = signsIn(studentsFile);
    const [weeklies, wanted, held] = [new Set<string>(), new Set<string>(), new Set<string>()];
    return {
      each: ({ sign, student, weekly, on, repeats }) => {
        if (!students.has(student)) throw refused('A lesson in this backup belongs to a student who is not in it.');
        if (repeats === 'weekly') weeklies.add(sign);
        if (weekly === null) return;
        wanted.add(weekly);
        if (held.has(`${weekly} ${on}`)) throw refused('This backup has a weekly lesson held twice on one day.');
        held.add(`${weekly} ${on}`);
      },
      end: () => {
        if ([...wanted].some((sign) => !weeklies.has(sign))) throw refused('A lesson in this backup was one of a weekly lesson that is not in it.');
      },
    };
  },
  write: (target) => {
    const there = new Set<string>();
    // A lesson that was held names its weekly one; where that one comes later, it waits.
    let early: ArchivedLesson[] = [];
    let count = 0;
    const insert = async (lessons: readonly ArchivedLesson[]): Promise<void> => {
      await insertAll(
        target.database,
        LessonEntity,
        lessons.map((lesson) => rowOf(lesson, target)),
      );
      for (const { sign } of lessons) there.add(sign);
      count += lessons.length;
    };
    return {
      some: async (checked) => {
        const lessons = checked.map(({ item }) => item);
        await insert(lessons.filter(({ weekly }) => weekly === null));
        await insert(lessons.filter(({ weekly }) => weekly !== null && there.has(weekly)));
        early = [...early, ...lessons.filter(({ weekly }) => weekly !== null && !there.has(weekly))];
      },
      end: () => insert(early),
      brought: () => ({ count }),
    };
  },
});

type ArchivedLesson = z.infer<typeof archiveLessonSchema>;

function rowOf({ sign, student, weekly, begun, ended, plan, ...lesson }: ArchivedLesson, { studioId, idOf, modelOf }: ArchiveTarget): object {
  return {
    ...{ ...lesson, studioId, id: idOf(sign), studentId: idOf(student), weeklyId: weekly === null ? null : idOf(weekly), version: 1 },
    plan: plan.map((item) => ({ ...item, itemId: null, model: modelOf(item.model) })),
    ...{ begunAt: dateOrNull(begun), endedAt: dateOrNull(ended) },
  };
}
