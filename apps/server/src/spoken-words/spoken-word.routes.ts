import { longestWordBytes, mostWords, spokenWordRoutes, type Lesson } from '@zelpit/contract';
import { keepSent } from '../blobs/keep-sent';
import { idOf, respond, type Endpoints } from '../http/endpoints';
import { fileNameOf } from '../http/file-name';
import { HttpProblem, notFound } from '../http/problem';
import { LessonRepository } from '../lessons/lesson.repository';
import { assertConsent } from '../students/consent';
import { asWave } from '../takes/wave';
import type { ThingParts } from '../things/thing';
import { SpokenWordRepository, type KeptWord } from './spoken-word.repository';

export function serveSpokenWords(endpoints: Endpoints, { database, blobs }: ThingParts): void {
  const [words, lessons] = [new SpokenWordRepository(database), new LessonRepository(database)];

  const lessonOr404 = async (studioId: string, id: string): Promise<Lesson> => {
    const lesson = await lessons.get(studioId, id);
    if (lesson === undefined) throw notFound('lesson');
    return lesson;
  };
  const wordOr404 = async (studioId: string, id: string): Promise<KeptWord> => {
    const word = await words.get(studioId, id);
    if (word === undefined) throw notFound('spoken word');
    return word;
  };
  /** Who has no time any more, or did not agree, is told so before the sound is sent. */
  const assertPossible = async (studioId: string, id: string): Promise<void> => {
    const { studentId, begunAt } = await lessonOr404(studioId, id);
    await assertConsent(database, studioId, studentId);
    if (begunAt === null) throw new HttpProblem('not-possible', 'This lesson has not begun yet: begin it, then say what is to be kept.');
    if ((await words.ofLesson(studioId, id)).length >= mostWords)
      throw new HttpProblem('not-possible', `A lesson holds at most ${mostWords} spoken words. Delete one first.`);
  };

  endpoints.serve(spokenWordRoutes.spokenWords, async ({ request, visitor: { studioId } }) => {
    const { id } = await lessonOr404(studioId, idOf(request, 'lesson'));
    return respond(200, await words.ofLesson(studioId, id));
  });

  endpoints.servePrepared(
    spokenWordRoutes.addSpokenWord,
    async ({ request, visitor: { studioId } }) => {
      await database.inStudio(studioId, () => assertPossible(studioId, idOf(request, 'lesson')));
      return keepSent(blobs, studioId, request, { most: longestWordBytes, checked: asWave });
    },
    async ({ request, visitor: { studioId }, query }, { id: blobId }) => {
      const { id: lessonId } = await lessonOr404(studioId, idOf(request, 'lesson'));
      return respond(201, await words.add(studioId, { lessonId, blobId, ...query }));
    },
  );

  endpoints.serve(spokenWordRoutes.spokenWordSound, async ({ request, visitor: { studioId } }) => {
    const { lessonId, title, blobId } = await wordOr404(studioId, idOf(request, 'spoken word'));
    await assertConsent(database, studioId, (await lessonOr404(studioId, lessonId)).studentId);
    return respond(200, (await blobs.open(studioId, blobId)) as never, { fileName: `${fileNameOf(title, 'word')}.wav` });
  });

  endpoints.serve(spokenWordRoutes.dropSpokenWord, async ({ request, visitor: { studioId } }) => {
    await words.drop(studioId, await wordOr404(studioId, idOf(request, 'spoken word')));
    return respond(204, undefined);
  });
}
