import {
  invitationDays,
  reviewRoutes,
  sheetLimits,
  takeBackSeconds,
  type Lesson,
  type Review,
  type SheetCreate,
  type SheetDetail,
  type SheetLineInput,
} from '@zelpit/contract';
import { proposeReview, type ReviewItem } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { LinkRepository } from '../accounts/link.repository';
import { MailRepository } from '../accounts/mail.repository';
import { linkAddress } from '../accounts/this-computer';
import type { Database } from '../database/database';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { LessonRepository } from '../lessons/lesson.repository';
import { SheetRepository } from '../sheets/sheet.repository';
import { StudentRepository } from '../students/student.repository';
import type { ThingParts } from '../things/thing';
import { factsForReview, type ReviewWish } from './review-facts';
import { reviewMail } from './review-mail';

const dayMs = 86_400_000;
/** So far ahead the next lesson is looked for, and what is reckoned with where there is none, in days. */
const [longestUntil, usualUntil] = [30, 7];
const dayAfter = (day: string, days: number): string => new Date(Date.parse(day) + days * dayMs).toISOString().slice(0, 10);

/** "Review of 1 December" */
function titleOf(day: string): string {
  const name = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));
  return `Review of ${name}`;
}

/** An item with an id of its own, by which a change of it is known. */
const withId = (item: ReviewItem): SheetLineInput => ({ ...(item as SheetLineInput), id: randomUUID() });

export function serveReviews(endpoints: Endpoints, { database, address, sealer }: ThingParts): void {
  const [sheets, students, lessons] = [new SheetRepository(database), new StudentRepository(database), new LessonRepository(database)];
  const [links, mail] = [new LinkRepository(database), new MailRepository(database, sealer)];

  const sheetOr404 = async (studioId: string, id: string): Promise<SheetDetail> => {
    const sheet = await sheets.get({ studioId }, id);
    if (sheet === undefined) throw notFound('sheet');
    return sheet;
  };

  endpoints.serve(reviewRoutes.proposeReview, async ({ visitor: { studioId }, body: { studentId, lessonId, on } }) => {
    const student = await students.get(studioId, studentId);
    if (student === undefined) throw notFound('student');
    const lesson = lessonId === null ? undefined : await heldLesson(lessons, studioId, lessonId, studentId);
    // One at a time after one lesson: who comes second gets what the first began.
    if (lesson !== undefined) await lessons.hold(studioId, lesson.id);
    const there = lesson === undefined ? undefined : await sheets.ofLesson(studioId, lesson.id);
    if (there !== undefined) return respond(200, await sheetOr404(studioId, there));
    const until = (await lessons.between(studioId, dayAfter(on, 1), dayAfter(on, longestUntil), student.id)).at(0)?.on ?? dayAfter(on, usualUntil);
    const { sheet, review } = await proposed(database, studioId, { student, lesson, on }, until);
    const id = await sheets.add(studioId, sheet, { review, lessonId: lesson?.id ?? null });
    return respond(201, await sheetOr404(studioId, id), { audit: { did: 'added', kind: 'sheet', id, name: sheet.title } });
  });

  endpoints.serve(reviewRoutes.sendReview, async ({ request, visitor, body: { version, mailTo } }) => {
    const { studioId } = visitor;
    const before = await sheetOr404(studioId, idOf(request, 'sheet'));
    if (before.review === null) throw new HttpProblem('not-possible', 'Only a review can be sent. A sheet is there for its student as it is.');
    if (before.lines.length === 0) throw new HttpProblem('not-possible', 'Nothing is on this review. Add what is to be practised, then send it.');
    assertSaved(await sheets.send(studioId, before.id, version), 'sheet');
    const { id: studentId, alias } = before.student;
    const { token, until } = await links.add({ studioId, purpose: 'student', name: alias, email: '', studentId, hours: invitationDays * 24 });
    const link = linkAddress(request, address, token);
    if (mailTo !== null) {
      const { subject, body } = reviewMail(alias, visitor.name, before.title, link);
      await mail.add(studioId, mailTo, subject, body, studentId);
    }
    const sheet = await sheetOr404(studioId, before.id);
    const audit = { did: 'sent', kind: 'sheet', id: sheet.id, name: `${sheet.title}, ${alias}` } as const;
    return respond(200, { sheet, link: { address: link, until: until.toISOString() } }, { audit });
  });

  endpoints.serve(reviewRoutes.takeReviewBack, async ({ request, visitor: { studioId } }) => {
    const before = await sheetOr404(studioId, idOf(request, 'sheet'));
    if (before.sentAt === null) throw new HttpProblem('not-possible', 'This review has not been sent.');
    if (!(await sheets.takeBack(studioId, before.id)))
      throw new HttpProblem('not-possible', `A review can be taken back for ${takeBackSeconds} seconds, and only until it is opened. Write it anew instead.`);
    return respond(200, await sheetOr404(studioId, before.id), { audit: { did: 'took back', kind: 'sheet', id: before.id, name: before.title } });
  });

  endpoints.serve(reviewRoutes.writeReviewAnew, async ({ request, visitor: { studioId } }) => {
    const before = await sheetOr404(studioId, idOf(request, 'sheet'));
    if (before.sentAt === null || before.review === null) throw new HttpProblem('not-possible', 'This review was not sent yet: change it as it is.');
    const there = await sheets.anewOf(studioId, before.id);
    if (there !== undefined) return respond(200, await sheetOr404(studioId, there));
    const { title, note, instrument, student, tune, review, lessonId } = before;
    const lines = before.lines.map(({ id: _, code: __, ...line }) => line);
    const sheet: SheetCreate = { studentId: student.id, tuneId: tune?.id ?? null, instrument, title, note, lines };
    const id = await sheets.add(studioId, sheet, { review, lessonId, replacesId: before.id });
    return respond(201, await sheetOr404(studioId, id), { audit: { did: 'added', kind: 'sheet', id, name: title } });
  });

  endpoints.serve(reviewRoutes.openReview, async ({ request, visitor: { studioId, studentId } }) => {
    const scope = { studioId, studentId };
    const id = idOf(request, 'sheet');
    if ((await sheets.get(scope, id)) === undefined) throw notFound('sheet');
    await sheets.open(scope, id);
    return respond(204, undefined);
  });
}

async function heldLesson(lessons: LessonRepository, studioId: string, id: string, studentId: string): Promise<Lesson> {
  const lesson = await lessons.get(studioId, id);
  if (lesson === undefined) throw notFound('lesson');
  if (lesson.studentId !== studentId) throw new HttpProblem('not-possible', `This lesson was with ${lesson.student}.`);
  if (lesson.begunAt === null) throw new HttpProblem('not-possible', 'This lesson has not begun yet.');
  return lesson;
}

async function proposed(
  database: Database,
  studioId: string,
  wanted: ReviewWish,
  until: string,
): Promise<{ readonly sheet: SheetCreate; readonly review: Review }> {
  const { facts, model } = await factsForReview(database, studioId, wanted);
  const { priority, items, leftOut } = proposeReview(facts);
  const lines = items.slice(0, sheetLimits.lines).map(withId);
  const sheet: SheetCreate = { studentId: wanted.student.id, tuneId: null, instrument: model, title: titleOf(wanted.on), note: '', lines };
  const struck = leftOut.slice(0, sheetLimits.lines).map(({ item, reason }) => ({ item: withId(item), reason }));
  return { sheet, review: { on: wanted.on, until, priority, minutes: facts.dayMinutes, struck, proposed: lines } };
}
