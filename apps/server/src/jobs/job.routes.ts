import { jobRoutes, longestArchive, longestBook, longestLongTakeBytes, type Job, type LongTakeAsked } from '@zelpit/contract';
import { noteOf } from '@zelpit/core';
import type { Request } from 'express';
import { Readable } from 'node:stream';
import { keepSent } from '../blobs/keep-sent';
import { idOf, respond, type Endpoints, type Visitor } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { ModelRepository } from '../models/model.repository';
import { assertConsent } from '../students/consent';
import { asWave, assertSoundIsThere } from '../takes/wave';
import type { ThingParts } from '../things/thing';
import { fileNameOf } from '../http/file-name';
import { JobRepository, type Beginner, type NewJob } from './job.repository';

type Adding = (request: Request, visitor: Visitor, job: NewJob) => Promise<Job>;

export function serveJobs(endpoints: Endpoints, parts: ThingParts): void {
  const { database, blobs, worker } = parts;
  const [jobs, models] = [new JobRepository(database), new ModelRepository(database)];

  /** Kept with the message that tells of it; looked at as soon as both stand. */
  const add: Adding = async (request, visitor, job) => {
    const added = await jobs.add(beginnerOf(visitor), job);
    await worker.tell(visitor.studioId);
    request.res?.once('finish', () => worker.wake());
    return added;
  };
  const jobOr404 = async (visitor: Visitor, id: string): Promise<Job> => {
    const job = await jobs.get(visitor.studioId, beginnerOf(visitor).teacherId, id);
    if (job === undefined) throw notFound('work');
    return job;
  };

  endpoints.serve(jobRoutes.jobs, async ({ visitor }) => respond(200, { items: await jobs.list(visitor.studioId, beginnerOf(visitor).teacherId) }));
  endpoints.serve(jobRoutes.job, async ({ request, visitor }) => respond(200, await jobOr404(visitor, idOf(request, 'work'))));

  endpoints.servePrepared(
    jobRoutes.bringTunesLater,
    async ({ request, visitor: { studioId }, query: { instrument } }) => {
      await database.inStudio(studioId, () => models.known(studioId, instrument));
      const file = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
      return blobs.keep(studioId, Readable.from([file]), longestBook);
    },
    async ({ request, visitor, query: { instrument, name } }, { id }) =>
      respond(202, await add(request, visitor, { kind: 'bring-tunes', name, settings: { instrument }, inputId: id })),
  );

  endpoints.serve(jobRoutes.takeArchive, async ({ request, visitor, query: { takes } }) => {
    const name = `${fileNameOf(visitor.studioName, 'studio')} ${new Date().toISOString().slice(0, 10)}.zip`;
    return respond(202, await add(request, visitor, { kind: 'take-archive', name, settings: { hasTakes: takes === 'true' }, inputId: null }));
  });

  endpoints.servePrepared(
    jobRoutes.bringArchive,
    ({ request, visitor: { studioId } }) => keepSent(blobs, studioId, request, { most: longestArchive }),
    async ({ request, visitor, query: { before, name } }, { id }) =>
      respond(202, await add(request, visitor, { kind: 'bring-archive', name, settings: { before }, inputId: id })),
  );

  serveLongTakes(endpoints, parts, add);

  endpoints.serve(jobRoutes.stopJob, async ({ request, visitor }) => {
    const id = idOf(request, 'work');
    const before = await jobOr404(visitor, id);
    if (!(await jobs.stop(visitor.studioId, beginnerOf(visitor).teacherId, id)) && before.state !== 'stopped')
      throw new HttpProblem('not-possible', 'This has come to its end already.');
    return respond(200, await jobOr404(visitor, id));
  });

  endpoints.serve(jobRoutes.jobFile, async ({ request, visitor }) => {
    const job = await jobOr404(visitor, idOf(request, 'work'));
    const output = await jobs.outputOf(visitor.studioId, beginnerOf(visitor).teacherId, job.id);
    if (output === undefined) throw new HttpProblem('job-not-done', 'This has given no file, or not yet.');
    return respond(200, (await blobs.open(visitor.studioId, output)) as never, { fileName: job.name });
  });

  endpoints.serve(jobRoutes.forgetJob, async ({ request, visitor }) => {
    const job = await jobOr404(visitor, idOf(request, 'work'));
    if (!(await jobs.forget(visitor.studioId, beginnerOf(visitor).teacherId, job.id)))
      throw new HttpProblem('job-not-done', 'This is still under way. Stop it first.');
    return respond(204, undefined);
  });
}

/** What was asked for is looked at before anything is listened to; the sound came before. */
function serveLongTakes(endpoints: Endpoints, { database, blobs }: ThingParts, add: Adding): void {
  const models = new ModelRepository(database);

  endpoints.servePrepared(
    jobRoutes.addLongTakeSound,
    async ({ request, visitor: { studioId }, query: { student } }) => {
      await database.inStudio(studioId, () => assertConsent(database, studioId, student ?? null));
      return keepSent(blobs, studioId, request, { most: longestLongTakeBytes, checked: asWave });
    },
    async (_incoming, { id, bytes }) => respond(201, { id, bytes }),
  );

  endpoints.serve(jobRoutes.listenLater, async ({ request, visitor, body: { soundId, name, ...settings } }) => {
    const { studioId } = visitor;
    await assertConsent(database, studioId, settings.studentId);
    const instrument = await models.known(studioId, settings.model);
    for (const note of notesIn(settings.asked)) noteOf(instrument, note);
    await assertSoundIsThere(blobs, studioId, soundId, longestLongTakeBytes);
    return respond(202, await add(request, visitor, { kind: 'listen', name, settings, inputId: soundId, studentId: settings.studentId }));
  });
}

const notesIn = (asked: LongTakeAsked): readonly string[] =>
  asked.kind === 'changes' ? [asked.from, asked.to] : asked.notes.flatMap(({ note, graceNotes }) => [...(note === null ? [] : [note]), ...graceNotes]);

/** Only those who teach have long work done. */
function beginnerOf({ studioId, teacherId, name }: Visitor): Beginner {
  if (teacherId === undefined) throw notFound('work');
  return { studioId, teacherId, name };
}
