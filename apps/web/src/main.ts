import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app/app.config';
import { AppComponent } from './app/app.component';

// A tune needs the engraver: it is fetched while the application starts, not after it.
if (/^\/tunes\/[^/]+$/.test(location.pathname)) void import('abcjs');

bootstrapApplication(AppComponent, appConfig).catch((error: unknown) => console.error(error));
