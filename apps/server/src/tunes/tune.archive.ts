import { archiveTuneSchema } from '@zelpit/contract';
import { readBook, ZelpitFault, type BookReading, type Instrument } from '@zelpit/core';
import * as z from 'zod';
import { archivePart, dateOrNull, everything, idsOf, insertAll, isoOrNull, refused } from '../archive/archive-part';
import { instrumentsIn } from '../models/model.archive';
import { keptTuneOf, type KeptTune } from './kept-tune';
import { TuneEntity } from './tune.entity';

export const tunesFile = 'tunes.json';

export const tuneArchive = archivePart({
  file: tunesFile,
  since: 1,
  schema: z.array(archiveTuneSchema),
  absent: [],
  signs: { letter: 't', idsOf },
  load: (database, studioId) => everything(database, TuneEntity, studioId),
  pack: (rows, signs) =>
    rows.map(({ id, instrument, abc, pins, createdAt, updatedAt, deletedAt }) => ({
      ...{ sign: signs.of(id), instrument: signs.ofModel(instrument), abc, pins },
      ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
    })),
  /** Every tune, read as if it were brought in alone. */
  prepare: (tunes, files): ReadonlyMap<string, KeptTune> => {
    const known = instrumentsIn(files);
    return new Map(
      tunes.map(({ sign, instrument, abc }) => {
        const [reading, ...others] = readings(known.get(instrument), abc);
        if (reading?.kind !== 'read' || others.length > 0) throw refused(`A tune in this backup (${sign}) cannot be read.`);
        return [sign, { ...keptTuneOf(reading.entry), abc }];
      }),
    );
  },
  write: async (tunes, kept, { database, studioId, idOf, modelOf }) => {
    const rows = tunes.map(({ sign, instrument, pins, created, changed, putAway }) => ({
      ...(kept.get(sign) as KeptTune),
      ...{ id: idOf(sign), studioId, instrument: modelOf(instrument), pins, version: 1, pinsVersion: 1 },
      ...{ createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    }));
    await insertAll(database, TuneEntity, rows);
    return { count: rows.length };
  },
});

function readings(instrument: Instrument | undefined, abc: string): readonly BookReading[] {
  if (instrument === undefined) return [];
  try {
    return [...readBook(instrument, abc, (wanted) => wanted)];
  } catch (error) {
    if (error instanceof ZelpitFault) return [];
    throw error;
  }
}
