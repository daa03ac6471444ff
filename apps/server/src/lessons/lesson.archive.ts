import { archiveLessonSchema } from '@zelpit/contract';
import * as z from 'zod';
import { archivePart, dateOrNull, everything, idsOf, insertAll, isoOrNull, refused, signsIn } from '../archive/archive-part';
import { studentsFile } from '../students/student.archive';
import { LessonEntity } from './lesson.entity';

export const lessonsFile = 'lessons.json';
const orderOf = ({ repeats, on, time, id }: LessonEntity): string => `${repeats === 'weekly' ? 0 : 1} ${on} ${time} ${id}`;

export const lessonArchive = archivePart({
  file: lessonsFile,
  since: 6,
  schema: z.array(archiveLessonSchema),
  absent: [],
  // Weekly ones first, then by day and time, so that a backup of the same lessons is the same.
  load: async (database, studioId) => (await everything(database, LessonEntity, studioId)).sort((one, other) => (orderOf(one) < orderOf(other) ? -1 : 1)),
  signs: { letter: 'e', idsOf },
  pack: (rows: readonly LessonEntity[], signs) =>
    rows.map(({ id, studentId, weeklyId, on, time, minutes, repeats, until, note, plan, begunAt, endedAt }) => ({
      ...{ sign: signs.of(id), student: signs.of(studentId), weekly: weeklyId === null ? null : signs.of(weeklyId), on, time, minutes, repeats, until, note },
      plan: plan.map(({ itemId: _, ...item }) => ({ ...item, model: signs.ofModel(item.model) })),
      ...{ begun: isoOrNull(begunAt), ended: isoOrNull(endedAt) },
    })),
  prepare: (lessons, files) => {
    const [students, all] = [signsIn(files, studentsFile), new Map(lessons.map((lesson) => [lesson.sign, lesson]))];
    const held = new Set<string>();
    if (all.size < lessons.length) throw refused('This backup has two lessons under one sign.');
    for (const { student, weekly, on } of lessons) {
      if (!students.has(student)) throw refused('A lesson in this backup belongs to a student who is not in it.');
      if (weekly === null) continue;
      if (all.get(weekly)?.repeats !== 'weekly') throw refused('A lesson in this backup was one of a weekly lesson that is not in it.');
      if (held.has(`${weekly} ${on}`)) throw refused('This backup has a weekly lesson held twice on one day.');
      held.add(`${weekly} ${on}`);
    }
  },
  write: async (lessons, _, { database, studioId, idOf, modelOf }) => {
    const rows = lessons.map(({ sign, student, weekly, begun, ended, plan, ...lesson }) => ({
      ...{ ...lesson, studioId, id: idOf(sign), studentId: idOf(student), weeklyId: weekly === null ? null : idOf(weekly), version: 1 },
      plan: plan.map((item) => ({ ...item, itemId: null, model: modelOf(item.model) })),
      ...{ begunAt: dateOrNull(begun), endedAt: dateOrNull(ended) },
    }));
    // A lesson that was held names its weekly one, which comes first.
    for (const repeats of ['weekly', 'once'] as const)
      await insertAll(
        database,
        LessonEntity,
        rows.filter((row) => row.repeats === repeats),
      );
    return { count: rows.length };
  },
});
