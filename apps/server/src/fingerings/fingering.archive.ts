import { archiveFingeringSchema } from '@zelpit/contract';
import { withKeptFingerings } from '@zelpit/core';
import * as z from 'zod';
import { archivePart, everything } from '../archive/archive-part';
import { checkOf, instrumentsIn } from '../models/model.archive';
import { FingeringEntity } from './fingering.entity';
import { FingeringRepository } from './fingering.repository';

export const fingeringArchive = archivePart({
  file: 'fingerings.json',
  since: 2,
  schema: z.array(archiveFingeringSchema),
  absent: [],
  load: (database, studioId) => everything(database, FingeringEntity, studioId),
  pack: (rows: readonly FingeringEntity[], signs) =>
    rows.map(({ model, kept, confirmedBy, confirmedOn }) => ({ ...kept, model: signs.ofModel(model), by: confirmedBy, on: confirmedOn })),
  prepare: (fingerings, files) => {
    const known = instrumentsIn(files);
    for (const each of fingerings) checkOf(known, each.note, each.model, (instrument) => withKeptFingerings(instrument, [each]));
  },
  write: async (fingerings, _, { database, studioId, modelOf }) => {
    const repository = new FingeringRepository(database);
    for (const { model, by, on, ...kept } of fingerings) await repository.keep(studioId, by, on, { ...kept, model: modelOf(model) });
    return { count: fingerings.length };
  },
});
