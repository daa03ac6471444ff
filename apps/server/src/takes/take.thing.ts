import { takeRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { takeArchive } from './take.archive';
import { TakeEntity } from './take.entity';
import { serveTakes } from './take.routes';

/** In no backup unless somebody chooses so: what children play stays on the studio's server. */
export const takeThing: Thing = { kind: 'take', routes: takeRoutes, entities: [TakeEntity], serve: serveTakes, archive: takeArchive };
