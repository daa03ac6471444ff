import { trialRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { trialArchive } from './trial.archive';
import { TrialEntity } from './trial.entity';
import { serveTrials } from './trial.routes';

export const trialThing: Thing = { kind: 'trial', routes: trialRoutes, entities: [TrialEntity], serve: serveTrials, archive: trialArchive };
