import { HttpClient, HttpErrorResponse, type HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { onceHeader, pageOf, problemSchema } from '@zelpit/contract';
import { catchError, EMPTY, expand, map, reduce, retry, throwError, timeout, timer, type Observable } from 'rxjs';
import type * as z from 'zod';

/** An answer that was no success, as a sentence for people. */
export class ApiFault extends Error {
  constructor(
    /** HTTP status; 0 where the server did not answer at all. */
    readonly status: number,
    readonly said: string,
    readonly title = '',
  ) {
    super(said);
    this.name = 'ApiFault';
  }

  /** True where nothing is wrong with what was asked: the server or its database is away, or the way to it. */
  get isAway(): boolean {
    return this.status === 0 || (this.status >= 502 && this.status <= 504);
  }
}

/** The sentence in whatever was thrown. */
export function saidBy(error: unknown): string {
  return error instanceof ApiFault ? error.said : 'Something unexpected happened here. Reload the page; what was saved is safe.';
}

const away = 'The server does not answer. What you did last may not be saved; try again in a moment.';
/** Waits before an answer is asked for again, where the server is away. */
const pauses: readonly number[] = [400, 1200, 3000];
const patienceMs = 30_000;
const uploadPatienceMs = 180_000;

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** How one write is sent. */
export interface Sending {
  /** The write's own key; the same key again is the same write. Each write gets one where none is given. */
  readonly key?: string;
  /** False where the caller tries again itself. */
  readonly triesAgain?: boolean;
}

/**
 * Talks to the server; every answer is checked against its schema on the way in. Where the server is away, a request is
 * tried again some times: a read is harmless, and a write carries a key by which the server knows it again and does it once.
 */
@Injectable({ providedIn: 'root' })
export class ApiService {
  private readonly http = inject(HttpClient);

  get<T>(path: string, schema: z.ZodType<T>): Observable<T> {
    return this.ask('GET', path, undefined).pipe(map((body) => schema.parse(body)));
  }

  /** Every item of a list, page after page. */
  all<T>(path: string, item: z.ZodType<T>): Observable<T[]> {
    const schema = pageOf(item);
    const page = (after: string | null): Observable<z.infer<typeof schema>> => {
      const sign = after === null ? '' : `${path.includes('?') ? '&' : '?'}after=${encodeURIComponent(after)}`;
      return this.get(`${path}${sign}`, schema);
    };
    return page(null).pipe(
      expand(({ next }) => (next === null ? EMPTY : page(next))),
      reduce((items: T[], { items: more }) => [...items, ...more], []),
    );
  }

  post<T>(path: string, body: unknown, schema: z.ZodType<T>, sending?: Sending): Observable<T> {
    return this.ask('POST', path, body, sending).pipe(map((answer) => schema.parse(answer)));
  }

  put<T>(path: string, body: unknown, schema: z.ZodType<T>, sending?: Sending): Observable<T> {
    return this.ask('PUT', path, body, sending).pipe(map((answer) => schema.parse(answer)));
  }

  remove<T>(path: string, schema: z.ZodType<T>): Observable<T> {
    return this.ask('DELETE', path, undefined).pipe(map((answer) => schema.parse(answer)));
  }

  /** A write whose answer has no body. */
  send(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Observable<void> {
    return this.ask(method, path, body).pipe(map(() => undefined));
  }

  /** A file as it is. */
  upload<T>(path: string, file: Blob, schema: z.ZodType<T>, sending?: Sending): Observable<T> {
    return this.ask('POST', path, file, sending, uploadPatienceMs).pipe(map((answer) => schema.parse(answer)));
  }

  text(path: string): Observable<string> {
    return this.http.get(path, { responseType: 'text' }).pipe(catchError(toFault), withPatience(true, patienceMs));
  }

  /** A file that the server makes. */
  file(path: string): Observable<Blob> {
    return this.http.get(path, { responseType: 'blob' }).pipe(catchError(toFault), withPatience(true, uploadPatienceMs));
  }

  private ask(
    method: Method,
    path: string,
    body: unknown,
    { key = crypto.randomUUID(), triesAgain = true }: Sending = {},
    patience = patienceMs,
  ): Observable<unknown> {
    const headers: Record<string, string> = {};
    if (method !== 'GET') headers[onceHeader] = key;
    if (body instanceof Blob) headers['content-type'] = 'application/octet-stream';
    return this.http.request(method, path, { body, headers, observe: 'response' }).pipe(
      catchError(toFault),
      map((answer: HttpResponse<unknown>) => answer.body),
      withPatience(triesAgain, patience),
    );
  }
}

/** Waits only so long for an answer, and asks again where the server is away. */
function withPatience<T>(triesAgain: boolean, patience: number): (answer: Observable<T>) => Observable<T> {
  return (answer) =>
    answer.pipe(
      timeout({ first: patience, with: () => throwError(() => new ApiFault(0, away)) }),
      retry({
        count: triesAgain ? pauses.length : 0,
        delay: (error: unknown, attempt) => (error instanceof ApiFault && error.isAway ? timer(pauses[attempt - 1]) : throwError(() => error)),
      }),
    );
}

function toFault(error: unknown): Observable<never> {
  if (!(error instanceof HttpErrorResponse)) return throwError(() => error);
  const problem = problemSchema.safeParse(bodyOf(error));
  return throwError(() => (problem.success ? new ApiFault(error.status, problem.data.detail, problem.data.title) : new ApiFault(error.status, away)));
}

function bodyOf({ error }: HttpErrorResponse): unknown {
  return typeof error === 'string' ? parseJson(error) : (error as unknown);
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
