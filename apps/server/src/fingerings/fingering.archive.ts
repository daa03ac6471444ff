import { archiveFingeringSchema } from '@zelpit/contract';
import { withKeptFingerings } from '@zelpit/core';
import { archivePart, pagesOf } from '../archive/archive-part';
import { checkOf } from '../models/model.archive';
import { FingeringEntity } from './fingering.entity';
import { FingeringRepository } from './fingering.repository';

export const fingeringArchive = archivePart({
  file: 'fingerings.json',
  since: 2,
  schema: archiveFingeringSchema,
  read: async function* (database, studioId, signs) {
    for await (const rows of pagesOf(database, FingeringEntity, studioId))
      yield rows.map(({ model, kept, confirmedBy, confirmedOn }) => ({ ...kept, model: signs.ofModel(model), by: confirmedBy, on: confirmedOn }));
  },
  check: ({ instruments }) => ({
    each: (kept) => checkOf(instruments, kept.note, kept.model, (instrument) => withKeptFingerings(instrument, [kept])),
  }),
  write: ({ database, studioId, modelOf }) => {
    const repository = new FingeringRepository(database);
    let count = 0;
    return {
      some: async (checked) => {
        for (const { item } of checked) {
          const { model, by, on, ...kept } = item;
          await repository.keep(studioId, by, on, { ...kept, model: modelOf(model) });
          count += 1;
        }
      },
      brought: () => ({ count }),
    };
  },
});
