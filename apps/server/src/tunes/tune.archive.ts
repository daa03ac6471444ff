import { archiveTuneSchema, tuneNotesSchema } from '@zelpit/contract';
import { readKept, splitBook } from '@zelpit/core';
import { archivePart, dateOrNull, isoOrNull, pagesOf, refused, rowWriter } from '../archive/archive-part';
import { keptTuneOf, type KeptTune } from './kept-tune';
import { TuneEntity } from './tune.entity';

export const tunesFile = 'tunes.json';

export const tuneArchive = archivePart({
  file: tunesFile,
  since: 1,
  schema: archiveTuneSchema,
  signs: { letter: 't', table: 'tune' },
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, TuneEntity, studioId))
      yield rows.map(({ id, instrument, abc, voice, chordNote, pins, about, createdAt, updatedAt, deletedAt }) => ({
        ...{ sign: signs.of(id), instrument: signs.ofModel(instrument), abc, voice, chordNote, pins, about: tuneNotesSchema.parse(about) },
        ...{ changed: updatedAt.toISOString(), created: createdAt.toISOString(), putAway: isoOrNull(deletedAt) },
      }));
  },
  /** Every tune read again. A text that was kept is taken whatever today's reader makes of it. */
  check: ({ instruments }) => ({
    each: ({ sign, instrument: id, abc, voice, chordNote }): KeptTune => {
      const instrument = instruments.get(id);
      if (instrument === undefined || !/^K:/m.test(abc) || splitBook(abc).length !== 1) throw refused(`A tune in this backup (${sign}) cannot be read.`);
      return { ...keptTuneOf(instrument, readKept(instrument, abc, { voice, chordNote }), chordNote), abc };
    },
  }),
  write: (target) =>
    rowWriter(target, TuneEntity, ({ sign, instrument, pins, about, created, changed, putAway }, kept) => ({
      ...kept,
      ...{ id: target.idOf(sign), studioId: target.studioId, instrument: target.modelOf(instrument), pins, about, version: 1, pinsVersion: 1 },
      ...{ createdAt: new Date(created), updatedAt: new Date(changed), deletedAt: dateOrNull(putAway) },
    })),
});
