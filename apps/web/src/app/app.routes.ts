import type { Routes } from '@angular/router';
import { signedIn } from './session/signed-in.guard';
import { TunePage } from './tune/tune.page';

export const routes: Routes = [
  { path: 'sign-in', title: 'Sign in · Zelpit', loadComponent: () => import('./session/sign-in.page').then((file) => file.SignInPage) },
  {
    path: '',
    canActivateChild: [signedIn],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'tunes' },
      { path: 'places', title: 'Places · Zelpit', loadComponent: () => import('./places/places.page').then((file) => file.PlacesPage) },
      { path: 'tunes', title: 'Tunes · Zelpit', loadComponent: () => import('./tunes/tune-list.page').then((file) => file.TuneListPage) },
      // The page that is opened most comes with the application; all others are fetched when they are wanted.
      { path: 'tunes/:id', title: 'Tune · Zelpit', component: TunePage },
      { path: 'tunes/:id/text', title: 'Text of a tune · Zelpit', loadComponent: () => import('./tunes/tune-text.page').then((file) => file.TuneTextPage) },
      { path: 'tunes/:id/lines', title: 'Lines · Zelpit', loadComponent: () => import('./lines/lines.page').then((file) => file.LinesPage) },
      { path: 'students', title: 'Students · Zelpit', loadComponent: () => import('./students/students.page').then((file) => file.StudentsPage) },
      { path: 'sheets', title: 'Sheets · Zelpit', loadComponent: () => import('./sheets/sheet-list.page').then((file) => file.SheetListPage) },
      { path: 'sheets/:id', title: 'Sheet · Zelpit', loadComponent: () => import('./sheets/sheet.page').then((file) => file.SheetPage) },
      {
        path: 'sheets/:id/paper',
        title: 'Sheet on paper · Zelpit',
        loadComponent: () => import('./sheets/sheet-paper.page').then((file) => file.SheetPaperPage),
      },
      { path: 'practice', title: 'Practice · Zelpit', loadComponent: () => import('./practice/practice.page').then((file) => file.PracticePage) },
      { path: 'c/:code', title: 'Practice · Zelpit', loadComponent: () => import('./practice/runner.page').then((file) => file.RunnerPage) },
      { path: 'put-away', title: 'Put away · Zelpit', loadComponent: () => import('./put-away/put-away.page').then((file) => file.PutAwayPage) },
      { path: 'studio', title: 'Studio · Zelpit', loadComponent: () => import('./studio/studio.page').then((file) => file.StudioPage) },
    ],
  },
  { path: '**', title: 'Not here · Zelpit', loadComponent: () => import('./places/not-here.page').then((file) => file.NotHerePage) },
];
