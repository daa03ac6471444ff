import type { HttpInterceptorFn } from '@angular/common/http';
import { inject } from '@angular/core';
import { tokenHeader } from '@zelpit/contract';
import { SessionToken } from './session-token';

export const tokenInterceptor: HttpInterceptorFn = (request, next) => {
  if (request.method === 'GET') return next(request);
  return next(request.clone({ setHeaders: { [tokenHeader]: inject(SessionToken).value } }));
};
