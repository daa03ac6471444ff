import type { Routes } from '@angular/router';
import { signedIn, type PageData } from './signed-in.guard';
import { TunePage } from './pages/tune/tune.page';

const forStudents: PageData = { forStudents: true };
const forFamily: PageData = { ...forStudents, forParents: true };
const forOwners: PageData = { forOwners: true };
const withStudio: PageData = { needsStudio: true };
const forStudentsWithStudio: PageData = { ...forStudents, ...withStudio };

export const routes: Routes = [
  { path: 'sign-in', title: 'Sign in · Zelpit', loadComponent: () => import('./pages/front/sign-in.page').then((file) => file.SignInPage) },
  { path: 'new-studio', title: 'New studio · Zelpit', loadComponent: () => import('./pages/front/new-studio.page').then((file) => file.NewStudioPage) },
  { path: 'new-password', title: 'New password · Zelpit', loadComponent: () => import('./pages/front/new-password.page').then((file) => file.NewPasswordPage) },
  { path: 'link', title: 'Link · Zelpit', loadComponent: () => import('./pages/front/link.page').then((file) => file.LinkPage) },
  { path: 'outbox', title: 'Outbox · Zelpit', loadComponent: () => import('./pages/front/outbox.page').then((file) => file.OutboxPage) },
  {
    path: '',
    canActivateChild: [signedIn],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'today' },
      { path: 'places', title: 'All pages · Zelpit', loadComponent: () => import('./pages/places/places.page').then((file) => file.PlacesPage) },
      {
        path: 'tunes',
        title: 'Tunes · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/tunes/tune-list.page').then((file) => file.TuneListPage),
      },
      {
        path: 'tunes/next',
        title: 'Next tunes · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/tunes/next-tunes.page').then((file) => file.NextTunesPage),
      },
      // The page that is opened most comes with the application; all others are fetched when they are wanted.
      { path: 'tunes/:id', title: 'Tune · Zelpit', component: TunePage },
      {
        path: 'tunes/:id/text',
        title: 'Tune text · Zelpit',
        loadComponent: () => import('./pages/tune/tune-text.page').then((file) => file.TuneTextPage),
      },
      {
        path: 'tunes/:id/new',
        title: 'New notes · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/tune/new-notes.page').then((file) => file.NewNotesPage),
      },
      {
        path: 'tunes/:id/along',
        title: 'Play along · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/along/along.page').then((file) => file.AlongPage),
      },
      {
        path: 'tunes/:id/take',
        title: 'Listen to a take · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/listening/piece-take.page').then((file) => file.PieceTakePage),
      },
      {
        path: 'tunes/:id/paper',
        title: 'A tune on paper · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/tune/tune-paper.page').then((file) => file.TunePaperPage),
      },
      {
        path: 'tunes/:id/arrange',
        title: 'Arrange a tune · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/arrange/arrange.page').then((file) => file.ArrangePage),
      },
      {
        path: 'tunes/:id/about',
        title: 'About a tune · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/tune/tune-about.page').then((file) => file.TuneAboutPage),
      },
      {
        path: 'tunes/:id/bars/:stretch/paper',
        title: 'A bar on paper · Zelpit',
        loadComponent: () => import('./pages/chunk/chunk-paper.page').then((file) => file.ChunkPaperPage),
      },
      {
        path: 'tunes/:id/bars/:stretch',
        title: 'A bar of a tune · Zelpit',
        loadComponent: () => import('./pages/chunk/chunk.page').then((file) => file.ChunkPage),
      },
      {
        path: 'tunes/:id/movements',
        title: 'Movements in a tune · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/tune/tune-movements.page').then((file) => file.TuneMovementsPage),
      },
      {
        path: 'tunes/:id/file',
        title: 'Save a tune as a file · Zelpit',
        loadComponent: () => import('./pages/tune/tune-files.page').then((file) => file.TuneFilesPage),
      },
      { path: 'tunes/:id/lines', title: 'Lines · Zelpit', loadComponent: () => import('./pages/lines/lines.page').then((file) => file.LinesPage) },
      {
        path: 'charts',
        title: 'Chart · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/charts/charts.page').then((file) => file.ChartsPage),
      },
      {
        path: 'charts/finder',
        title: 'Find fingerings · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/charts/finder.page').then((file) => file.FinderPage),
      },
      {
        path: 'charts/proof',
        title: 'Proofread a handout · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/charts/proof.page').then((file) => file.ProofPage),
      },
      {
        path: 'changes',
        title: 'Changes · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/changes/changes.page').then((file) => file.ChangesPage),
      },
      {
        path: 'movements',
        title: 'Movements · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/movements/movements.page').then((file) => file.MovementsPage),
      },
      {
        path: 'movements/make',
        title: 'Make a movement · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/movements/make.page').then((file) => file.MakeMovementPage),
      },
      {
        path: 'movements/ways',
        title: 'How we play · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/movements/ways.page').then((file) => file.WaysPage),
      },
      {
        path: 'changes/lines',
        title: 'Lines · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/lines/change-lines.page').then((file) => file.ChangeLinesPage),
      },
      {
        path: 'changes/ear',
        title: 'Ear test · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/changes/ear.page').then((file) => file.EarPage),
      },
      {
        path: 'changes/take',
        title: 'Listen to a take · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/changes/take.page').then((file) => file.TakePage),
      },
      {
        path: 'changes/held',
        title: 'Held notes · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/changes/held.page').then((file) => file.HeldPage),
      },
      {
        path: 'changes/keys',
        title: 'Play on keys · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/changes/keys.page').then((file) => file.KeysPage),
      },
      {
        path: 'changes/hunt',
        title: 'Find the faults · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/changes/hunt.page').then((file) => file.HuntPage),
      },
      {
        path: 'charts/handout',
        title: 'Chart on paper · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/charts/handout.page').then((file) => file.HandoutPage),
      },
      {
        path: 'charts/compare',
        title: 'Two charts · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/charts/compare.page').then((file) => file.ComparePage),
      },
      {
        path: 'charts/calibrate',
        title: 'Fit to pitches · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/charts/calibrate.page').then((file) => file.CalibratePage),
      },
      {
        path: 'instruments',
        title: 'Who plays what · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/instruments/instruments.page').then((file) => file.InstrumentsPage),
      },
      { path: 'workshop', title: 'Workshop · Zelpit', loadComponent: () => import('./pages/workshop/workshop.page').then((file) => file.WorkshopPage) },
      { path: 'workshop/:id', title: 'Workshop · Zelpit', loadComponent: () => import('./pages/workshop/model.page').then((file) => file.ModelPage) },
      { path: 'today', title: 'Today · Zelpit', data: withStudio, loadComponent: () => import('./pages/lessons/today.page').then((file) => file.TodayPage) },
      {
        path: 'lessons/:id',
        title: 'Lesson · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/lessons/lesson.page').then((file) => file.LessonPage),
      },
      {
        path: 'mine/logbook',
        title: 'My logbook · Zelpit',
        data: forFamily,
        loadComponent: () => import('./pages/students/logbook.page').then((file) => file.LogbookPage),
      },
      {
        path: 'takes',
        title: 'Kept takes · Zelpit',
        data: forFamily,
        loadComponent: () => import('./pages/students/takes.page').then((file) => file.TakesPage),
      },
      {
        path: 'students/:id/logbook',
        title: 'Logbook · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/students/logbook.page').then((file) => file.LogbookPage),
      },
      { path: 'students', title: 'Students · Zelpit', loadComponent: () => import('./pages/students/students.page').then((file) => file.StudentsPage) },
      { path: 'sheets', title: 'Sheets · Zelpit', loadComponent: () => import('./pages/sheets/sheet-list.page').then((file) => file.SheetListPage) },
      {
        path: 'sheets/:id',
        title: 'Sheet · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/sheets/sheet.page').then((file) => file.SheetPage),
      },
      {
        path: 'sheets/:id/paper',
        title: 'Sheet on paper · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/sheets/sheet-paper.page').then((file) => file.SheetPaperPage),
      },
      {
        path: 'reviews/:id',
        title: 'Review · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/review/review.page').then((file) => file.ReviewPage),
      },
      {
        path: 'reviews/:id/paper',
        title: 'Review on paper · Zelpit',
        data: withStudio,
        loadComponent: () => import('./pages/review/review-paper.page').then((file) => file.ReviewPaperPage),
      },
      { path: 'practice', title: 'Practice · Zelpit', loadComponent: () => import('./pages/practice/practice.page').then((file) => file.PracticePage) },
      {
        path: 'c/:code/take',
        title: 'Listen to a take · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/listening/line-take.page').then((file) => file.LineTakePage),
      },
      {
        path: 'c/:code',
        title: 'Practice · Zelpit',
        data: forStudentsWithStudio,
        loadComponent: () => import('./pages/practice/runner.page').then((file) => file.RunnerPage),
      },
      { path: 'put-away', title: 'What was put away · Zelpit', loadComponent: () => import('./pages/put-away/put-away.page').then((file) => file.PutAwayPage) },
      {
        path: 'mine',
        title: 'Practice · Zelpit',
        data: { ...forFamily, ...withStudio },
        loadComponent: () => import('./pages/mine/mine.page').then((file) => file.MinePage),
      },
      { path: 'teachers', title: 'Teachers · Zelpit', loadComponent: () => import('./pages/studio/teachers.page').then((file) => file.TeachersPage) },
      {
        path: 'deeds',
        title: 'Who changed what · Zelpit',
        data: forOwners,
        loadComponent: () => import('./pages/studio/deeds.page').then((file) => file.DeedsPage),
      },
      {
        path: 'archive',
        title: 'Backup · Zelpit',
        data: forOwners,
        loadComponent: () => import('./pages/studio/archive.page').then((file) => file.ArchivePage),
      },
      { path: 'studio', title: 'Studio · Zelpit', loadComponent: () => import('./pages/studio/studio.page').then((file) => file.StudioPage) },
    ],
  },
  { path: '**', title: 'Page not found · Zelpit', loadComponent: () => import('./pages/places/not-here.page').then((file) => file.NotHerePage) },
];
