import { archiveTuneSchema, tuneNotesSchema } from '@zelpit/contract';
import { readKept, splitBook } from '@zelpit/core';
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
    rows.map(({ id, instrument, abc, voice, chordNote, pins, about, createdAt, updatedAt, deletedAt }) => ({
      ...{ sign: signs.of(id), instrument: signs.ofModel(instrument), abc, voice, chordNote, pins, about: tuneNotesSchema.parse(about) },
      ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
    })),
  /** Every tune read again. A text that was kept is taken whatever today's reader makes of it. */
  prepare: (tunes, files): ReadonlyMap<string, KeptTune> => {
    const known = instrumentsIn(files);
    return new Map(
      tunes.map(({ sign, instrument: id, abc, voice, chordNote }) => {
        const instrument = known.get(id);
        if (instrument === undefined || !/^K:/m.test(abc) || splitBook(abc).length !== 1) throw refused(`A tune in this backup (${sign}) cannot be read.`);
        return [sign, { ...keptTuneOf(instrument, readKept(instrument, abc, { voice, chordNote }), chordNote), abc }];
      }),
    );
  },
  write: async (tunes, kept, { database, studioId, idOf, modelOf }) => {
    const rows = tunes.map(({ sign, instrument, pins, about, created, changed, putAway }) => ({
      ...(kept.get(sign) as KeptTune),
      ...{ id: idOf(sign), studioId, instrument: modelOf(instrument), pins, about, version: 1, pinsVersion: 1 },
      ...{ createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    }));
    await insertAll(database, TuneEntity, rows);
    return { count: rows.length };
  },
});
