import { inject } from '@angular/core';
import { Router, type CanActivateChildFn } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { InstrumentShelf } from '../instruments/instrument-shelf.service';
import { SessionService } from './session.service';

/** Who may see a page: everyone who is signed in where nothing is said. Students see only what says so. */
export interface PageData {
  readonly forStudents?: true;
  readonly forOwners?: true;
  /** It is not opened before the studio's instruments are here. */
  readonly needsInstruments?: true;
}

/** A page is not kept waiting longer than this for the instruments. */
const patienceMs = 1500;
let lastStudio: string | undefined;

const ready = (shelf: InstrumentShelf): Promise<unknown> =>
  Promise.race([firstValueFrom(shelf.ready()).catch(() => undefined), new Promise((resolve) => setTimeout(resolve, patienceMs))]);

/** Leads to the sign-in, and from there back to where one wanted to go; to a first studio where there is none. */
export const signedIn: CanActivateChildFn = async (route, state) => {
  const router = inject(Router);
  const session = inject(SessionService);
  const shelf = inject(InstrumentShelf);
  const loaded = await session.load().catch(() => undefined);
  if (loaded?.isNew === true) return router.createUrlTree(['/new-studio']);
  const studio = loaded?.signedIn?.studio.id;
  // Another studio than before in this window: nothing of the first may stay on the page.
  if (studio !== undefined && lastStudio !== undefined && studio !== lastStudio) location.assign(state.url);
  lastStudio = studio ?? lastStudio;
  const data = route.data as PageData;
  const fetched = studio === undefined ? undefined : ready(shelf);
  if (data.needsInstruments === true) await fetched;
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
