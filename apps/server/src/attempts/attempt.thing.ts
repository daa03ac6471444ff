import { attemptRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { attemptArchive } from './attempt.archive';
import { AttemptCorrectionEntity, AttemptEntity } from './attempt.entity';
import { serveAttempts } from './attempt.routes';

export const attemptThing: Thing = {
  kind: 'attempt',
  routes: attemptRoutes,
  entities: [AttemptEntity, AttemptCorrectionEntity],
  serve: serveAttempts,
  archive: attemptArchive,
};
