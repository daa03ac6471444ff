import { inject } from '@angular/core';
import { Router, type CanActivateChildFn } from '@angular/router';
import { SessionService } from './session.service';

/** Leads to the sign-in, and from there back to where one wanted to go. */
export const signedIn: CanActivateChildFn = async (_route, state) => {
  const router = inject(Router);
  const session = inject(SessionService);
  const isSignedIn = await session.isSignedIn().catch(() => false);
  return isSignedIn ? true : router.createUrlTree(['/sign-in'], { queryParams: state.url === '/' ? {} : { to: state.url } });
};
