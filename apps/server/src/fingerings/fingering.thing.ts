import { fingeringRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { fingeringArchive } from './fingering.archive';
import { FingeringEntity } from './fingering.entity';
import { serveFingerings } from './fingering.routes';

export const fingeringThing: Thing = {
  kind: 'fingering',
  routes: fingeringRoutes,
  entities: [FingeringEntity],
  serve: serveFingerings,
  archive: fingeringArchive,
};
