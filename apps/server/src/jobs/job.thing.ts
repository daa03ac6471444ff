import { jobRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { serveJobs } from './job.routes';

/** Long work is of the studio where it was begun, and in no archive. */
export const jobThing: Thing = { kind: 'job', routes: jobRoutes, entities: [], serve: serveJobs };
