import { provideHttpClient, withFetch, withInterceptors } from '@angular/common/http';
import { provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { provideRouter, withComponentInputBinding, withInMemoryScrolling } from '@angular/router';
import { tokenInterceptor } from './kernel/session/token.interceptor';
import { routes } from './app.routes';
import { provideDocumentKind } from './kernel/saving/document-kinds';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideRouter(routes, withComponentInputBinding(), withInMemoryScrolling({ scrollPositionRestoration: 'enabled' })),
    provideDocumentKind('sheet', async (injector) => {
      const [{ sheetKind }, { SheetsService }] = await Promise.all([import('./documents/sheet/sheet-kind'), import('./documents/sheet/sheets.service')]);
      return sheetKind(injector.get(SheetsService));
    }),
    provideDocumentKind('tune', async (injector) => {
      const [{ tuneKind }, { TunesService }] = await Promise.all([import('./documents/tune/tune-kind'), import('./documents/tune/tunes.service')]);
      return tuneKind(injector.get(TunesService));
    }),
    provideDocumentKind('model', async (injector) => {
      const [{ modelKind }, { InstrumentShelf }] = await Promise.all([
        import('./documents/model/model-kind'),
        import('./studio/shelf/instrument-shelf.service'),
      ]);
      return modelKind(injector.get(InstrumentShelf));
    }),
    provideHttpClient(withFetch(), withInterceptors([tokenInterceptor])),
  ],
};
