import { HttpBackend, HttpClient, HttpErrorResponse, type HttpInterceptorFn, type HttpRequest } from '@angular/common/http';
import { inject } from '@angular/core';
import { problemCodeOf, sessionRoutes, sessionSchema, tokenHeader } from '@zelpit/contract';
import { catchError, switchMap, tap, throwError } from 'rxjs';
import { addressOf } from '../api/call';
import { problemIn } from '../api/problem-in';
import { SessionToken } from './session-token';

const sessionAddress = addressOf(sessionRoutes.session);

/**
 * Sends the token with every write. Where the session has changed behind the page's back, it takes the new token and
 * sends once more: a write that was refused for its token did nothing. Says so where nobody is signed in any more.
 */
export const tokenInterceptor: HttpInterceptorFn = (request, next) => {
  const token = inject(SessionToken);
  const backend = inject(HttpBackend);
  const send = (): ReturnType<typeof next> => next(withToken(request, token.value));
  return send().pipe(
    catchError((error: unknown) => {
      if (!isOldToken(error)) return throwError(() => error);
      return new HttpClient(backend).get(sessionAddress).pipe(
        tap((body) => (token.value = sessionSchema.parse(body).token)),
        switchMap(send),
      );
    }),
    catchError((error: unknown) => {
      if (error instanceof HttpErrorResponse && error.status === 401 && request.url !== sessionAddress) token.ended.update((count) => count + 1);
      return throwError(() => error);
    }),
  );
};

const withToken = (request: HttpRequest<unknown>, value: string): HttpRequest<unknown> =>
  request.method === 'GET' ? request : request.clone({ setHeaders: { [tokenHeader]: value } });

function isOldToken(error: unknown): boolean {
  return error instanceof HttpErrorResponse && problemCodeOf(problemIn(error.error)?.type ?? '') === 'page-too-old';
}
