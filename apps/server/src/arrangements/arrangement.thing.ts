import { arrangementRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { arrangementArchive } from './arrangement.archive';
import { ArrangementEntity } from './arrangement.entity';
import { serveArrangements } from './arrangement.routes';

export const arrangementThing: Thing = {
  kind: 'arrangement',
  routes: arrangementRoutes,
  entities: [ArrangementEntity],
  serve: serveArrangements,
  archive: arrangementArchive,
};
