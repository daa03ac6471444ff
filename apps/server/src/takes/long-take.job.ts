import type { LongTakeInput } from '@zelpit/contract';
import type { BlobRepository } from '../blobs/blob.repository';
import type { Database } from '../database/database';
import { jobWork } from '../jobs/job-kind';
import { ModelRepository } from '../models/model.repository';
import { assertConsent } from '../students/consent';
import type { LongTakes } from './long-takes';

/** As it lies in the job. */
export type ListenSettings = Pick<LongTakeInput, 'model' | 'asked' | 'studentId'>;

/** A long take, listened to apart; its sound goes with the end of the job, whatever came of it. */
export const listenWork = (database: Database, blobs: BlobRepository, takes: LongTakes) =>
  jobWork<'listen'>({
    kind: 'listen',
    prepare: async ({ studioId, inputId, settings }, steps) => {
      const { model, asked, studentId } = settings as ListenSettings;
      const instrument = await database.inStudio(studioId, async () => {
        // It may have waited, and a guardian may have changed their mind.
        await assertConsent(database, studioId, studentId);
        return new ModelRepository(database).known(studioId, model);
      });
      if (inputId === null) throw new Error('A take that is listened to has a sound.');
      const result = await takes.listen(studioId, { instrument, asked }, blobs.read(studioId, inputId), steps);
      return { write: () => Promise.resolve(result) };
    },
  });
