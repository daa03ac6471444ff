import { longestTakeBytes, takeRoutes, type Take } from '@zelpit/contract';
import { noteOf } from '@zelpit/core';
import { keepSent } from '../blobs/keep-sent';
import { idOf, respond, type Endpoints, type Visitor } from '../http/endpoints';
import { fileNameOf } from '../http/file-name';
import { HttpProblem, notFound } from '../http/problem';
import { ModelRepository } from '../models/model.repository';
import { assertConsent } from '../students/consent';
import { StudentRepository } from '../students/student.repository';
import type { ThingParts } from '../things/thing';
import { TuneRepository } from '../tunes/tune.repository';
import { TakeRepository } from './take.repository';
import { asWave, assertSoundIsThere } from './wave';

export function serveTakes(endpoints: Endpoints, { database, blobs }: ThingParts): void {
  const [takes, students] = [new TakeRepository(database), new StudentRepository(database)];
  const access = new TakeAccess(takes);
  const [models, tunes] = [new ModelRepository(database), new TuneRepository(database)];

  endpoints.serve(takeRoutes.takes, async ({ visitor: { studioId, studentId }, query }) => {
    const { of, ...page } = query;
    if (of === 'teachers')
      return respond(200, await takes.list(studioId, { ...page, student: undefined, whose: studentId === undefined ? 'teachers' : 'shown' }));
    if (studentId === undefined) return respond(200, await takes.list(studioId, page));
    if (query.student !== undefined && query.student !== studentId) return respond(200, { items: [], next: null });
    return respond(200, await takes.list(studioId, { ...page, student: studentId }));
  });

  endpoints.serve(takeRoutes.take, async ({ request, visitor }) => respond(200, await access.heardOr404(visitor, idOf(request, 'take'))));

  endpoints.servePrepared(
    takeRoutes.addTakeSound,
    async ({ request, visitor, query: { student } }) => {
      await database.inStudio(visitor.studioId, () => assertConsent(database, visitor.studioId, whoseOf(visitor, student ?? null)));
      return keepSent(blobs, visitor.studioId, request, { most: longestTakeBytes, checked: asWave });
    },
    async (_incoming, { id, bytes }) => respond(201, { id, bytes }),
  );

  endpoints.serve(takeRoutes.addTake, async ({ visitor, body }) => {
    const { studioId, studentId: own } = visitor;
    const studentId = whoseOf(visitor, body.studentId);
    await assertConsent(database, studioId, studentId);
    const instrument = await models.known(studioId, body.model);
    if (body.asked.kind === 'changes') for (const note of [body.asked.from, body.asked.to]) noteOf(instrument, note);
    // A line may go from its sheet: its take outlives it.
    else if (body.asked.kind === 'tune' && !(await tunes.has(studioId, body.asked.tuneId))) throw notFound('tune');
    await assertSoundIsThere(blobs, studioId, body.soundId, longestTakeBytes);
    return respond(201, await takes.add(studioId, { ...body, studentId }, own === undefined ? 'teacher' : 'student'));
  });

  endpoints.serve(takeRoutes.saveTake, async ({ request, visitor, body }) => {
    const { id, studentId } = await access.takeOr404(visitor, idOf(request, 'take'));
    if (body.isShown === true && studentId !== null)
      throw new HttpProblem('not-possible', 'Only a teacher’s own take can be shown to students: a student’s stays theirs.');
    if (!(await takes.save(visitor.studioId, id, body)))
      throw new HttpProblem('changed-elsewhere', 'Someone else has changed this take meanwhile. Open it again.');
    return respond(200, await access.takeOr404(visitor, id));
  });

  endpoints.serve(takeRoutes.takeSound, async ({ request, visitor }) => {
    const { id, studentId, title } = await access.heardOr404(visitor, idOf(request, 'take'));
    await assertConsent(database, visitor.studioId, studentId);
    const sound = await takes.soundOf(visitor.studioId, id);
    if (sound === undefined) throw notFound('take');
    return respond(200, (await blobs.open(visitor.studioId, sound)) as never, { fileName: `${fileNameOf(title, 'take')}.wav` });
  });

  endpoints.serve(takeRoutes.dropTake, async ({ request, visitor }) => {
    const { id } = await access.takeOr404(visitor, idOf(request, 'take'));
    await takes.drop(visitor.studioId, id);
    return respond(204, undefined);
  });

  endpoints.serve(takeRoutes.dropTakesOf, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, 'student');
    if (!(await students.has(studioId, id))) throw notFound('student');
    return respond(200, { deleted: await takes.dropOf(studioId, id) });
  });
}

/** Who may have which take. */
class TakeAccess {
  constructor(private readonly takes: TakeRepository) {}

  /** One's own for a student and a parent, any for those who teach. */
  async takeOr404({ studioId, studentId }: Visitor, id: string): Promise<Take> {
    const take = await this.takes.get(studioId, id);
    if (take === undefined || (studentId !== undefined && take.studentId !== studentId)) throw notFound('take');
    return take;
  }

  /** Students hear what a teacher shows them, too. */
  async heardOr404(visitor: Visitor, id: string): Promise<Take> {
    const take = await this.takes.get(visitor.studioId, id);
    return take?.studentId === null && take.isShown ? take : this.takeOr404(visitor, id);
  }
}

/** Whose a take is to be: a student's own is always the student's. */
function whoseOf({ studentId: own }: Visitor, wanted: string | null): string | null {
  if (own !== undefined && wanted !== null && wanted !== own) throw new HttpProblem('not-allowed', 'A student’s takes can only be kept for that student.');
  return own ?? wanted;
}
