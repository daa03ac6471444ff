import type { ArchiveResult, Job } from '@zelpit/contract';
import { ended, fileOf, sendFile } from './jobs';
import type { Visitor } from './test-server';

/** A studio's backup, as its bytes. @param query "?takes=true" where takes go with it */
export async function take(visitor: Visitor, query = ''): Promise<Buffer> {
  const { id } = (await visitor.post(`/api/jobs/backup${query}`).expect(202)).body as Job;
  await ended(visitor, id);
  return fileOf(visitor, id);
}

/** Restores a backup, and tells how that ended. */
export async function restore(visitor: Visitor, archive: Uint8Array, before = 'empty'): Promise<Job> {
  const { id } = (await sendFile(visitor, `/api/jobs/restore?before=${before}`, archive).expect(202)).body as Job;
  return ended(visitor, id);
}

/** Restores a backup, and gives what came in. @throws Error where it was refused */
export async function bring(visitor: Visitor, archive: Uint8Array, before = 'empty'): Promise<ArchiveResult> {
  const { state, problem, result } = await restore(visitor, archive, before);
  if (state !== 'done') throw new Error(`The backup ${state}: ${problem}`);
  return result as ArchiveResult;
}
