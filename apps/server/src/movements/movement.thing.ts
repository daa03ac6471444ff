import { movementRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { movementArchive } from './movement.archive';
import { MovementEntity } from './movement.entity';
import { serveMovements } from './movement.routes';

export const movementThing: Thing = {
  kind: 'movement',
  routes: movementRoutes,
  entities: [MovementEntity],
  serve: serveMovements,
  archive: movementArchive,
};
