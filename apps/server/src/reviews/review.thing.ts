import { reviewRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { serveReviews } from './review.routes';

/** A review is a sheet: what is its own are its proposal and its sending. */
export const reviewThing: Thing = { kind: 'review', routes: reviewRoutes, entities: [], serve: serveReviews };
