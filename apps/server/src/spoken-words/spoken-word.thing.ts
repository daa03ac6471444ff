import { spokenWordRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { SpokenWordEntity } from './spoken-word.entity';
import { serveSpokenWords } from './spoken-word.routes';

/** In no backup: they are a help for the review that comes after the lesson, and go by themselves. */
export const spokenWordThing: Thing = { kind: 'spoken-word', routes: spokenWordRoutes, entities: [SpokenWordEntity], serve: serveSpokenWords };
