import { accountRoutes } from '@zelpit/contract';
import { respond, type Endpoints } from '../http/endpoints';
import { notFound } from '../http/problem';
import type { AccountRepository } from './account.repository';
import { teacherIdOf } from './account.routes';
import { signInAs } from './session';

/** Somebody who teaches in several studios has one of them open at a time. */
export function serveOwnStudios(endpoints: Endpoints, accounts: AccountRepository): void {
  endpoints.serve(accountRoutes.ownStudios, async ({ visitor }) =>
    respond(
      200,
      (await accounts.studiosOf(teacherIdOf(visitor))).map(({ id, name, role }) => ({ id, name, role })),
    ),
  );

  endpoints.serve(accountRoutes.keepInHand, async ({ visitor, body }) => {
    await accounts.keepInHand(visitor.studioId, teacherIdOf(visitor), body);
    return respond(204, undefined);
  });

  endpoints.serve(accountRoutes.openStudio, async ({ request, visitor, body: { id } }) => {
    const teacherId = teacherIdOf(visitor);
    if (!(await accounts.studiosOf(teacherId)).some((studio) => studio.id === id)) throw notFound('studio');
    await signInAs(request, { studioId: id, teacherId });
    return respond(204, undefined);
  });
}
