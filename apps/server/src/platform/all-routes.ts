import { accountRoutes, auditRoutes, putAwayRoutes, sessionRoutes, watchRoutes, type Route } from '@zelpit/contract';
import { things } from '../things/things';

/** Every address of the API by its operation id. */
export const allRoutes: Readonly<Record<string, Route>> = Object.assign(
  {},
  watchRoutes,
  sessionRoutes,
  accountRoutes,
  auditRoutes,
  putAwayRoutes,
  ...things.map(({ routes }) => routes),
) as Readonly<Record<string, Route>>;
