import { instrumentRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { instrumentArchive } from './instrument.archive';
import { InstrumentEntity } from './instrument.entity';
import { serveInstruments } from './instrument.routes';

export const instrumentThing: Thing = {
  kind: 'instrument',
  routes: instrumentRoutes,
  entities: [InstrumentEntity],
  serve: serveInstruments,
  putAway: { table: 'instrument', name: 'name', isOfStudent: true },
  archive: instrumentArchive,
};
