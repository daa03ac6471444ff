import type { Routes } from '@angular/router';
import { signedIn } from './session/signed-in.guard';

export const routes: Routes = [
  { path: 'sign-in', title: 'Sign in · Zelpit', loadComponent: () => import('./session/sign-in.page').then((file) => file.SignInPage) },
  {
    path: '',
    canActivateChild: [signedIn],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'tunes' },
      { path: 'places', title: 'Places · Zelpit', loadComponent: () => import('./places/places.page').then((file) => file.PlacesPage) },
      { path: 'tunes', title: 'Tunes · Zelpit', loadComponent: () => import('./tunes/tune-list.page').then((file) => file.TuneListPage) },
      { path: 'tunes/:id', title: 'Tune · Zelpit', loadComponent: () => import('./tune/tune.page').then((file) => file.TunePage) },
      { path: 'tunes/:id/text', title: 'Text of a tune · Zelpit', loadComponent: () => import('./tunes/tune-text.page').then((file) => file.TuneTextPage) },
      { path: 'students', title: 'Students · Zelpit', loadComponent: () => import('./students/students.page').then((file) => file.StudentsPage) },
      { path: 'studio', title: 'Studio · Zelpit', loadComponent: () => import('./studio/studio.page').then((file) => file.StudioPage) },
    ],
  },
  { path: '**', title: 'Not here · Zelpit', loadComponent: () => import('./places/not-here.page').then((file) => file.NotHerePage) },
];
