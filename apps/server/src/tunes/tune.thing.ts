import { tuneRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { tuneArchive } from './tune.archive';
import { TuneEntity } from './tune.entity';
import { serveTunes } from './tune.routes';

export const tuneThing: Thing = {
  kind: 'tune',
  routes: tuneRoutes,
  entities: [TuneEntity],
  serve: serveTunes,
  putAway: { table: 'tune', name: 'title' },
  archive: tuneArchive,
};
