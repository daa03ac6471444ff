import type { tuneImportQuerySchema } from '@zelpit/contract';
import type * as z from 'zod';
import type { BlobRepository } from '../blobs/blob.repository';
import type { Database } from '../database/database';
import { jobWork } from '../jobs/job-kind';
import { ModelRepository } from '../models/model.repository';
import { auditOfTunes, writeReadings } from './bring-tunes';
import type { Readers } from './readers';
import { TuneRepository } from './tune.repository';

/** As it lies in the job. */
export type BringTunesSettings = z.infer<typeof tuneImportQuerySchema>;

/** A long book of tunes, read apart and written at once. */
export const bringTunesWork = (database: Database, blobs: BlobRepository, readers: Readers) =>
  jobWork<'bring-tunes'>({
    kind: 'bring-tunes',
    prepare: async ({ studioId, inputId, settings }, steps) => {
      const { instrument: id } = settings as BringTunesSettings;
      const pieces: Buffer[] = [];
      // A book is never longer than what may stand in memory.
      if (inputId !== null) for await (const piece of blobs.read(studioId, inputId)) pieces.push(piece);
      const instrument = await database.inStudio(studioId, () => new ModelRepository(database).known(studioId, id));
      const readings = await readers.read(studioId, instrument, Buffer.concat(pieces), { steps });
      return { write: () => writeReadings(new TuneRepository(database), studioId, readings), audit: auditOfTunes };
    },
  });
