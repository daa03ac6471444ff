import { modelRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { modelArchive } from './model.archive';
import { ModelEntity } from './model.entity';
import { serveModels } from './model.routes';

export const modelThing: Thing = {
  kind: 'model',
  routes: modelRoutes,
  entities: [ModelEntity],
  serve: serveModels,
  putAway: { table: 'model', name: 'name' },
  archive: modelArchive,
};
