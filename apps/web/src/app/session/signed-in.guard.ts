import { inject } from '@angular/core';
import { Router, type CanActivateChildFn } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { StudioState } from '../state/studio-state.service';
import { SessionService } from './session.service';

/** Who may see a page: everyone who is signed in where nothing is said. Students see only what says so. */
export interface PageData {
  readonly forStudents?: true;
  readonly forOwners?: true;
  /** It is not opened before students and instruments are here: what is in hand would change under the hand. */
  readonly needsStudio?: true;
}

/** A page is not kept waiting longer than this for students and instruments. */
const patienceMs = 5000;
let lastStudio: string | undefined;

const ready = (state: StudioState): Promise<unknown> =>
  Promise.race([firstValueFrom(state.ready()).catch(() => undefined), new Promise((resolve) => setTimeout(resolve, patienceMs))]);

/** Leads to the sign-in, and from there back to where one wanted to go; to a first studio where there is none. */
export const signedIn: CanActivateChildFn = async (route, state) => {
  const router = inject(Router);
  const session = inject(SessionService);
  const studioState = inject(StudioState);
  const loaded = await session.load().catch(() => undefined);
  if (loaded?.isNew === true) return router.createUrlTree(['/new-studio']);
  const studio = loaded?.signedIn?.studio.id;
  // Another studio than before in this window: nothing of the first may stay on the page.
  if (studio !== undefined && lastStudio !== undefined && studio !== lastStudio) location.assign(state.url);
  lastStudio = studio ?? lastStudio;
  const data = route.data as PageData;
  const fetched = studio === undefined ? undefined : ready(studioState);
  if (data.needsStudio === true) await fetched;
  switch (loaded?.signedIn?.role) {
    case undefined:
      return router.createUrlTree(['/sign-in'], { queryParams: state.url === '/' ? {} : { to: state.url } });
    case 'student':
      return data.forStudents === true ? true : router.createUrlTree(['/mine']);
    case 'teacher':
      return data.forOwners === true ? router.createUrlTree(['/places']) : true;
    default:
      return true;
  }
};
