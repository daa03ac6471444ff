import { inject } from '@angular/core';
import { Router, type CanActivateChildFn } from '@angular/router';
import { firstValueFrom, forkJoin, switchMap, type Observable } from 'rxjs';
import { MovementBook } from './studio/movement-book/movement-book.service';
import { StudioState } from './studio/state/studio-state.service';
import { SessionService } from './kernel/session/session.service';

/** Who may see a page: everyone who is signed in where nothing is said. Students see only what says so. */
export interface PageData {
  readonly forStudents?: true;
  /** A parent sees what was asked and done. */
  readonly forParents?: true;
  readonly forOwners?: true;
  /** It is not opened before students, instruments and movements are here: what is in hand would change under the hand. */
  readonly needsStudio?: true;
}

/** A page is not kept waiting longer than this for them. */
const patienceMs = 5000;
let lastStudio: string | undefined;

const ready = (wanted: Observable<unknown>): Promise<unknown> =>
  Promise.race([firstValueFrom(wanted).catch(() => undefined), new Promise((resolve) => setTimeout(resolve, patienceMs))]);

/** Leads to the sign-in, and from there back to where one wanted to go; to a first studio where there is none. */
export const signedIn: CanActivateChildFn = async (route, state) => {
  const router = inject(Router);
  const session = inject(SessionService);
  const studioState = inject(StudioState);
  const book = inject(MovementBook);
  const loaded = await session.load().catch(() => undefined);
  if (loaded?.isNew === true) return router.createUrlTree(['/new-studio']);
  const studio = loaded?.signedIn?.studio.id;
  // Another studio than before in this window: nothing of the first may stay on the page.
  if (studio !== undefined && lastStudio !== undefined && studio !== lastStudio) location.assign(state.url);
  lastStudio = studio ?? lastStudio;
  const data = route.data as PageData;
  if (studio !== undefined && data.needsStudio === true) await ready(forkJoin([studioState.ready(), book.ready()]));
  // A browser asks for six things at once: what a page can do without for a moment comes after the rest.
  else if (studio !== undefined) void ready(studioState.ready().pipe(switchMap(() => book.ready())));
  switch (loaded?.signedIn?.role) {
    case undefined:
      return router.createUrlTree(['/sign-in'], { queryParams: state.url === '/' ? {} : { to: state.url } });
    case 'parent':
      return data.forParents === true ? true : router.createUrlTree(['/mine']);
    case 'student':
      return data.forStudents === true ? true : router.createUrlTree(['/mine']);
    case 'teacher':
    case 'substitute':
      return data.forOwners === true ? router.createUrlTree(['/places']) : true;
    default:
      return true;
  }
};
