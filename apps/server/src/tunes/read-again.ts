import type { Database } from '../database/database';
import { ModelRepository } from '../models/model.repository';
import type { Readers } from './readers';
import { TuneRepository } from './tune.repository';

/** Tunes read again in one step. */
const atOnce = 50;

/** Works out again what is kept of tunes that an older reader read. The texts stay as they are. */
export async function readAgain(database: Database, readers: Readers, studioId: string): Promise<number> {
  const [tunes, models] = [new TuneRepository(database), new ModelRepository(database)];
  let count = 0;
  for (;;) {
    const old = await database.inStudio(studioId, () => tunes.readByOlder(studioId, atOnce));
    if (old.length === 0) return count;
    for (const tune of old) {
      const instrument = await database.inStudio(studioId, () => models.known(studioId, tune.instrument));
      const read = await readers.readKept(studioId, instrument, tune);
      await database.inStudio(studioId, () => tunes.setFacts(studioId, tune, read));
    }
    count += old.length;
  }
}
