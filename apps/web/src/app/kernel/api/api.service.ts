import { HttpClient, HttpErrorResponse, type HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { onceHeader, problemCodeOf, type FileKind, type Problem, type ProblemCode, type Route } from '@zelpit/contract';
import { catchError, EMPTY, expand, from, map, reduce, retry, switchMap, throwError, timeout, timer, type Observable } from 'rxjs';
import type * as z from 'zod';
import { addressOf, type ItemOf, type ListRoute, type RequestOf, type ResponseOf } from './call';
import { problemIn } from './problem-in';

/** An answer that was no success; its message is a sentence for people. */
export class ApiFault extends Error {
  constructor(
    /** HTTP status; 0 where the server did not answer at all. */
    readonly status: number,
    message: string,
    /** What went wrong, for code; undefined where the server gave no code. */
    readonly code?: ProblemCode,
  ) {
    super(message);
    this.name = 'ApiFault';
  }

  /** True where nothing is wrong with what was asked: the server or its database is away, or the way to it. */
  get isAway(): boolean {
    return this.status === 0 || (this.status >= 502 && this.status <= 504);
  }
}

/** The sentence in whatever was thrown. */
export function messageOf(error: unknown): string {
  return error instanceof ApiFault ? error.message : 'Something went wrong on this page. Reload it; everything that was saved is safe.';
}

const away = 'The server is not answering. Your last change may not be saved. Try again in a moment.';
/** Waits before an answer is asked for again, where the server is away. */
const pauses: readonly number[] = [400, 1200, 3000];
const patienceMs = 30_000;
const filePatienceMs = 180_000;

/** How one write is sent. */
export interface Sending {
  /** The write's own key; the same key again is the same write. Each write gets one where none is given. */
  readonly key?: string;
  /** False where the caller tries again itself. */
  readonly triesAgain?: boolean;
}

/**
 * Talks to the server through the contract's routes; every answer is checked against its schema on the way in. Where the server is away, a
 * request is tried again some times: a read is harmless, and a write carries a key by which the server knows it again and does it once.
 */
@Injectable({ providedIn: 'root' })
export class ApiService {
  private readonly http = inject(HttpClient);

  /**
   * One request to one route.
   * @example call(sheetRoutes.saveSheet, { id, body: { title, note, lines, version } })
   */
  call<R extends Route>(route: R, request: RequestOf<R>, sending?: Sending): Observable<ResponseOf<R>> {
    const { body } = request as { readonly body?: unknown };
    return this.request(route, addressOf(route, request), body, sending).pipe(map((response) => received(route, response) as ResponseOf<R>));
  }

  /** Every item of a list, page after page. */
  all<R extends ListRoute>(route: R, request: RequestOf<R>): Observable<ItemOf<R>[]> {
    const page = (after?: string): Observable<{ items: ItemOf<R>[]; next: string | null }> =>
      this.call(route, {
        ...request,
        query: { ...(request as { query?: object }).query, ...(after !== undefined && { after }) },
      } as RequestOf<R>) as Observable<{
        items: ItemOf<R>[];
        next: string | null;
      }>;
    return page().pipe(
      expand(({ next }) => (next === null ? EMPTY : page(next))),
      reduce((items: ItemOf<R>[], { items: more }) => [...items, ...more], []),
    );
  }

  /** A write to an address that was kept from before; what it answers is nobody's business any more. */
  resend(address: string, body: unknown, key: string): Observable<unknown> {
    return this.request({ method: 'post', answers: {} }, address, body, { key });
  }

  private request(
    { method, answers }: Pick<Route, 'method' | 'answers'>,
    address: string,
    body: unknown,
    { key = crypto.randomUUID(), triesAgain = true }: Sending = {},
  ): Observable<HttpResponse<unknown>> {
    const headers: Record<string, string> = {};
    if (method !== 'get') headers[onceHeader] = key;
    if (body instanceof Blob) headers['content-type'] = 'application/octet-stream';
    const file = Object.values(answers).find((content): content is FileKind => typeof content === 'string');
    const responseType = responseTypeOf(file);
    const patience = body instanceof Blob || responseType === 'blob' ? filePatienceMs : patienceMs;
    // Angular's own types tell the response types apart by overload; here it is only known at run time.
    const options = { body, headers, observe: 'response', responseType: responseType as 'json' } as const;
    return this.http.request(method.toUpperCase(), address, options).pipe(catchError(toFault), withPatience(triesAgain, patience));
  }
}

function responseTypeOf(file: FileKind | undefined): 'json' | 'text' | 'blob' {
  if (file === undefined) return 'json';
  return file === 'abc' ? 'text' : 'blob';
}

/** The body of an answer as its schema gives it. @throws ZodError where it is of another shape */
function received(route: Route, { status, body }: HttpResponse<unknown>): unknown {
  const content = route.answers[status] ?? Object.values(route.answers)[0];
  if (content === null) return undefined;
  return typeof content === 'string' ? body : (content as z.ZodType).parse(body);
}

/** Waits only so long for an answer, and asks again where the server is away. */
function withPatience<T>(triesAgain: boolean, patience: number): (response: Observable<T>) => Observable<T> {
  return (response) =>
    response.pipe(
      timeout({ first: patience, with: () => throwError(() => new ApiFault(0, away)) }),
      retry({
        count: triesAgain ? pauses.length : 0,
        delay: (error: unknown, attempt) => (error instanceof ApiFault && error.isAway ? timer(pauses[attempt - 1]) : throwError(() => error)),
      }),
    );
}

function toFault(error: unknown): Observable<never> {
  if (!(error instanceof HttpErrorResponse)) return throwError(() => error);
  // Where a file was asked for, the problem comes as a file too, which can only be read in a while.
  const body: unknown = error.error;
  return body instanceof Blob ? from(body.text()).pipe(switchMap((text) => thrown(error.status, problemIn(text)))) : thrown(error.status, problemIn(body));
}

function thrown(status: number, problem: Problem | undefined): Observable<never> {
  return throwError(() => new ApiFault(status, problem?.detail ?? away, problem === undefined ? undefined : problemCodeOf(problem.type)));
}
