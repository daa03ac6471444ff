import { hasMusic, lessonRoutes, mostLessonDays, type Lesson, type LessonInput, type PlanItem } from '@zelpit/contract';
import { describedLine, longestTitle } from '@zelpit/core';
import type { Database } from '../database/database';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { ModelRepository } from '../models/model.repository';
import { SheetRepository } from '../sheets/sheet.repository';
import { StudentRepository } from '../students/student.repository';
import type { ThingParts } from '../things/thing';
import { LessonRepository } from './lesson.repository';

const dayMs = 86_400_000;

const daysBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / dayMs + 1;

function assertDays({ on, until, repeats }: Pick<LessonInput, 'on' | 'until' | 'repeats'>): void {
  if (until !== null && repeats === 'once') throw new HttpProblem('not-understood', 'Only a weekly lesson has a last day.');
  if (until !== null && until < on) throw new HttpProblem('not-understood', 'The last day of a weekly lesson comes before its first.');
}

/** What stands on the student's last sheet. */
async function proposedPlan(database: Database, studioId: string, student: string): Promise<readonly PlanItem[]> {
  const [sheets, models] = [new SheetRepository(database), new ModelRepository(database)];
  const [last] = (await sheets.list({ studioId }, { limit: 1, student })).items;
  const sheet = last === undefined ? undefined : await sheets.get({ studioId }, last.id);
  if (sheet === undefined) return [];
  const instrument = await models.known(studioId, sheet.instrument);
  return sheet.lines.slice(0, 50).map((line): PlanItem => {
    const title = hasMusic(line) ? describedLine(instrument, line).title : line.text;
    return {
      ...{ itemId: line.id, title: title.slice(0, longestTitle), kind: line.kind, model: sheet.instrument, times: Math.min(100, line.repetitions) },
      tempo: hasMusic(line) ? line.tempo : null,
    };
  });
}

export function serveLessons(endpoints: Endpoints, { database }: ThingParts): void {
  const [lessons, students] = [new LessonRepository(database), new StudentRepository(database)];

  const lessonOr404 = async (studioId: string, id: string): Promise<Lesson> => {
    const lesson = await lessons.get(studioId, id);
    if (lesson === undefined) throw notFound('lesson');
    return lesson;
  };

  endpoints.serve(lessonRoutes.lessons, async ({ visitor: { studioId }, query }) => {
    const from = query.from ?? new Date().toISOString().slice(0, 10);
    const to = query.to ?? new Date(Date.parse(from) + 6 * dayMs).toISOString().slice(0, 10);
    const days = daysBetween(from, to);
    if (days < 1 || days > mostLessonDays) throw new HttpProblem('not-understood', `Ask for 1 to ${mostLessonDays} days of lessons.`);
    return respond(200, await lessons.between(studioId, from, to, query.student));
  });

  endpoints.serve(lessonRoutes.lesson, async ({ request, visitor: { studioId } }) => respond(200, await lessonOr404(studioId, idOf(request, 'lesson'))));

  endpoints.serve(lessonRoutes.addLesson, async ({ visitor: { studioId }, body }) => {
    const student = await students.get(studioId, body.studentId);
    if (student === undefined) throw notFound('student');
    assertDays(body);
    const lesson = await lessonOr404(studioId, await lessons.add(studioId, body));
    return respond(201, lesson, { audit: { did: 'added', kind: 'lesson', id: lesson.id, name: `${student.alias}, ${body.on} ${body.time}` } });
  });

  endpoints.serve(lessonRoutes.saveLesson, async ({ request, visitor: { studioId }, body: { version, ...lesson } }) => {
    const id = idOf(request, 'lesson');
    await lessonOr404(studioId, id);
    assertDays(lesson);
    assertSaved(await lessons.save(studioId, id, version, lesson), 'lesson');
    return respond(200, await lessonOr404(studioId, id));
  });

  endpoints.serve(lessonRoutes.dropLesson, async ({ request, visitor: { studioId } }) => {
    const lesson = await lessonOr404(studioId, idOf(request, 'lesson'));
    await lessons.drop(studioId, lesson.id);
    return respond(204, undefined, { audit: { did: 'removed', kind: 'lesson', id: lesson.id, name: `${lesson.student}, ${lesson.on} ${lesson.time}` } });
  });

  endpoints.serve(lessonRoutes.beginLesson, async ({ request, visitor: { studioId }, body: { on } }) => {
    const lesson = await lessonOr404(studioId, idOf(request, 'lesson'));
    const isOn = lesson.repeats === 'once' ? lesson.on === on : isDayOf(lesson, on);
    if (!isOn) throw new HttpProblem('not-possible', `This lesson is not on ${on}.`);
    const plan = lesson.plan.length > 0 ? lesson.plan : await proposedPlan(database, studioId, lesson.studentId);
    const id = lesson.repeats === 'once' ? lesson.id : await heldFrom(studioId, lesson, on);
    await lessons.begin(studioId, id, plan);
    return respond(200, await lessonOr404(studioId, id));
  });

  /** The lesson of a weekly one on a day: the same one, whoever begins it first. */
  const heldFrom = async (studioId: string, { id: weeklyId, studentId, time, minutes, note }: Lesson, on: string): Promise<string> => {
    const before = await lessons.heldOn(studioId, weeklyId, on);
    if (before !== undefined) return before;
    await lessons.add(studioId, { studentId, on, time, minutes, repeats: 'once', until: null, note }, { weeklyId });
    const held = await lessons.heldOn(studioId, weeklyId, on);
    if (held === undefined) throw notFound('lesson');
    return held;
  };

  endpoints.serve(lessonRoutes.endLesson, async ({ request, visitor: { studioId } }) => {
    const { id } = await lessonOr404(studioId, idOf(request, 'lesson'));
    if (!(await lessons.end(studioId, id))) throw new HttpProblem('not-possible', 'This lesson has not begun yet.');
    return respond(200, await lessonOr404(studioId, id));
  });
}

const isDayOf = ({ on, until }: Lesson, day: string): boolean => day >= on && (until === null || day <= until) && (daysBetween(on, day) - 1) % 7 === 0;
