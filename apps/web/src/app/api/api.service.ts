import { HttpClient, HttpErrorResponse, type HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { problemSchema } from '@zelpit/contract';
import { catchError, map, throwError, type Observable } from 'rxjs';
import type * as z from 'zod';

/** An answer that was no success, as a sentence for people. */
export class ApiFault extends Error {
  constructor(
    /** HTTP status; 0 where the server did not answer at all. */
    readonly status: number,
    readonly said: string,
  ) {
    super(said);
    this.name = 'ApiFault';
  }
}

/** The sentence in whatever was thrown. */
export function saidBy(error: unknown): string {
  return error instanceof ApiFault ? error.said : 'Something unexpected happened here. Reload the page; what was saved is safe.';
}

const away = 'The server does not answer. What you did last may not be saved; try again in a moment.';

/** Talks to the server; every answer is checked against its schema on the way in. */
@Injectable({ providedIn: 'root' })
export class ApiService {
  private readonly http = inject(HttpClient);

  get<T>(path: string, schema: z.ZodType<T>): Observable<T> {
    return this.checked(this.http.get(path), schema);
  }

  post<T>(path: string, body: unknown, schema: z.ZodType<T>): Observable<T> {
    return this.checked(this.http.post(path, body), schema);
  }

  put<T>(path: string, body: unknown, schema: z.ZodType<T>): Observable<T> {
    return this.checked(this.http.put(path, body), schema);
  }

  remove<T>(path: string, schema: z.ZodType<T>): Observable<T> {
    return this.checked(this.http.delete(path), schema);
  }

  /** A write whose answer has no body. */
  send(method: 'POST' | 'DELETE', path: string): Observable<void> {
    return this.sendBody(method, path, undefined);
  }

  /** The same with a body. */
  sendBody(method: 'POST' | 'PUT' | 'DELETE', path: string, body: unknown): Observable<void> {
    return this.http.request(method, path, { body, observe: 'response' }).pipe(
      catchError(toFault),
      map((_: HttpResponse<object>) => undefined),
    );
  }

  /** A file as it is. */
  upload<T>(path: string, file: Blob, schema: z.ZodType<T>): Observable<T> {
    return this.checked(this.http.post(path, file, { headers: { 'content-type': 'application/octet-stream' } }), schema);
  }

  text(path: string): Observable<string> {
    return this.http.get(path, { responseType: 'text' }).pipe(catchError(toFault));
  }

  private checked<T>(answer: Observable<unknown>, schema: z.ZodType<T>): Observable<T> {
    return answer.pipe(
      catchError(toFault),
      map((body) => schema.parse(body)),
    );
  }
}

function toFault(error: unknown): Observable<never> {
  if (!(error instanceof HttpErrorResponse)) return throwError(() => error);
  const body: unknown = typeof error.error === 'string' ? parseJson(error.error) : error.error;
  const problem = problemSchema.safeParse(body);
  return throwError(() => new ApiFault(error.status, problem.success ? problem.data.detail : away));
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
