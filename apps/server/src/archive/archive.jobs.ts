import { longestArchive, type archiveQuerySchema } from '@zelpit/contract';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type * as z from 'zod';
import type { BlobRepository } from '../blobs/blob.repository';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';
import { jobWork, type JobSteps, type JobWork } from '../jobs/job-kind';
import type { Thing } from '../things/thing';
import type { ArchiveReader } from './archive-reader';
import { ArchiveRepository } from './archive.repository';
import { studioSource, writeArchive } from './write-archive';

export interface ArchiveWorkParts {
  readonly database: Database;
  readonly things: readonly Thing[];
  readonly blobs: BlobRepository;
  readonly archives: ArchiveReader;
}

/** As they lie in the job; a job of an older version has no choice in it. */
export interface TakeArchiveSettings {
  readonly hasTakes?: boolean;
}
/** As it lies in the job. */
export type BringArchiveSettings = z.infer<typeof archiveQuerySchema>;

/** The whole studio out and in. */
export const archiveWorks = (parts: ArchiveWorkParts): readonly JobWork[] => [takeArchive(parts), bringArchive(parts)];

/** A folder that nobody else can read, for what is too long to stand in memory. */
async function inFolder<T>(use: (folder: string, tidy: () => Promise<void>) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'zelpit-work-'));
  const tidy = (): Promise<void> => rm(folder, { recursive: true, force: true });
  try {
    return await use(folder, tidy);
  } catch (error) {
    await tidy();
    throw error;
  }
}

const takeArchive = ({ database, things, blobs }: ArchiveWorkParts): JobWork =>
  jobWork<'take-archive'>({
    kind: 'take-archive',
    prepare: ({ studioId, settings }, steps) =>
      inFolder(async (folder, tidy) => {
        const { hasTakes } = settings as TakeArchiveSettings;
        const path = join(folder, 'studio.zip');
        // One moment for all of it, and nobody's line is waited for while it is held.
        const write = async (): Promise<void> => writeArchive(things, await studioSource(database, things, studioId, hasTakes), new Date(), path, steps);
        await database.inStudio(studioId, write, 'REPEATABLE READ', 'READ ONLY');
        // What could not be brought back is no backup.
        if ((await stat(path)).size > longestArchive) throw tooLargeWith(hasTakes);
        const { id, bytes } = await blobs.keep(studioId, createReadStream(path), Infinity);
        return { write: async () => ({ bytes }), outputId: id, tidy };
      }),
  });

const tooLargeWith = (hasTakes: boolean | undefined): HttpProblem =>
  new HttpProblem(
    'too-large',
    `This backup is larger than ${longestArchive / 1_000_000} MB, and could not be restored. ${hasTakes === true ? 'Write it without the takes, or delete old takes first.' : 'Delete for good what is put away, then write it again.'}`,
  );

const bringArchive = ({ database, things, blobs, archives }: ArchiveWorkParts): JobWork => {
  const repository = new ArchiveRepository(database, things);
  const notEmpty = (): HttpProblem =>
    new HttpProblem(
      'studio-not-empty',
      'This studio already has students, tunes, sheets or instruments. Choose to put them away first, or start from an empty studio. Nothing was changed.',
    );
  return jobWork<'bring-archive'>({
    kind: 'bring-archive',
    prepare: ({ studioId, inputId, settings }, steps) =>
      inFolder(async (folder, tidy) => {
        const { before } = settings as BringArchiveSettings;
        // Known before anything is read; what comes in meanwhile is looked for again below.
        if (before === 'empty' && !(await database.inStudio(studioId, () => repository.isEmpty(studioId)))) throw notEmpty();
        const path = join(folder, 'brought.zip');
        await pipeline(Readable.from(inputId === null ? [] : blobs.read(studioId, inputId)), createWriteStream(path, { flags: 'wx', mode: 0o600 }));
        const checked = await archives.check(studioId, path, folder, halfOf(steps, 0));
        return {
          write: async () => {
            if (before === 'empty' && !(await repository.isEmpty(studioId))) throw notEmpty();
            const putAway = before === 'put-away' ? await repository.putAllAway(studioId) : 0;
            return { ...(await repository.write(studioId, folder, checked, halfOf(steps, 1))), putAway };
          },
          audit: () => ({ did: 'brought in', kind: 'archive', name: checked.studio.name }),
          tidy,
        };
      }),
  });
};

/** Checking is one half of the work, writing the other. */
const halfOf = ({ progress, signal }: JobSteps, half: 0 | 1): JobSteps => ({
  signal,
  progress: (done, of) => progress(Math.floor((done + half * (of ?? 0)) / 2), of),
});
