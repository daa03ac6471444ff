import type { Route } from '@zelpit/contract';
import type { AuditEvent } from '../audit/audit.repository';
import { respond, idOf, type Answer, type Endpoints } from '../http/endpoints';
import { notFound } from '../http/problem';

type SilentRoute = Route & { readonly answers: { readonly 204: null } };

/** What can be put away and brought back; both give its name, undefined where there is no such thing. */
export interface AwayAndBack {
  readonly remove: (studioId: string, id: string) => Promise<string | undefined>;
  readonly restore: (studioId: string, id: string) => Promise<string | undefined>;
}

interface Ways {
  readonly away: SilentRoute;
  readonly back: SilentRoute;
  readonly kind: AuditEvent['kind'];
  /** What a missing one is called. */
  readonly thing: string;
  /** May refuse it. */
  readonly before?: (studioId: string, id: string) => Promise<void>;
  readonly after?: (id: string) => Promise<void>;
}

/** Serves putting a thing away and bringing it back, each with its entry in the list of changes. */
export function serveAwayAndBack(endpoints: Endpoints, repository: AwayAndBack, { away, back, kind, thing, before, after }: Ways): void {
  const done = (did: AuditEvent['did'], id: string, name: string | undefined): Answer<SilentRoute> => {
    if (name === undefined) throw notFound(thing);
    return respond(204, undefined, { audit: { did, kind, id, name } });
  };

  endpoints.serve(away, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, thing);
    await before?.(studioId, id);
    const answer = done('put away', id, await repository.remove(studioId, id));
    await after?.(id);
    return answer;
  });

  endpoints.serve(back, async ({ request, visitor: { studioId } }) => {
    const id = idOf(request, thing);
    return done('brought back', id, await repository.restore(studioId, id));
  });
}
