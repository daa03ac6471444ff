import { ZelpitFault } from '@zelpit/core';
import { problems, problemType, type Problem, type ProblemCode } from '@zelpit/contract';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';

interface Beside {
  /** One sentence per field that was wrong. */
  readonly fields?: Problem['fields'];
  /** Where the status is another than the usual one of its code. */
  readonly status?: number;
  /** Seconds after which it may go better. */
  readonly retryAfter?: number;
}

/** An answer that is no success, thrown from anywhere below a route. */
export class HttpProblem extends Error {
  readonly status: number;
  readonly fields: Problem['fields'];
  readonly retryAfter: number | undefined;

  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
    { fields, status = problems[code].status, retryAfter }: Beside = {},
  ) {
    super(detail);
    this.name = 'HttpProblem';
    this.status = status;
    this.fields = fields;
    this.retryAfter = retryAfter;
  }
}

export const notFound = (thing: string): HttpProblem => new HttpProblem('not-found', `This studio has no such ${thing}. It may have been put away.`);

const databaseAway = new HttpProblem('database-away', 'The database is not answering. Nothing was changed. Try again in a moment.');

const uniqueViolation = '23505';

/** Codes of lost or refused connections, of Node, pg and PostgreSQL. */
const connectionCodes = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', '57P01', '57P02', '57P03', '08000', '08003', '08006', '53300']);
/** TypeORM releases a query runner whose connection was lost, under the hands of whoever uses it. */
const connectionWords =
  /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error|Driver not Connected|not queryable|query runner (was )?already released/i;

/** True where the fault is a database that cannot be reached or is just starting or stopping. */
export function isDatabaseAway(error: unknown): boolean {
  const { code, message } = (error ?? {}) as { code?: string; message?: string };
  return (code !== undefined && connectionCodes.has(code)) || connectionWords.test(message ?? '');
}

export const tooLarge = (): HttpProblem => new HttpProblem('too-large', 'That is too large to send in one piece.');

export const noRoom = (): HttpProblem =>
  new HttpProblem('no-room', 'The server has no room left on its disk. Nothing was changed. Whoever looks after the server has to make room.');

/** PostgreSQL, and Node, where a disk is full. */
const fullDiskCodes = new Set(['53100', 'ENOSPC']);

/** True where the fault is a disk that is full. */
export const isDiskFull = (error: unknown): boolean => fullDiskCodes.has((error as { code?: string } | undefined)?.code ?? '');

/** One table from faults to HTTP answers. */
export function problemFor(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof ZodError) {
    const fields = error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message }));
    // A whole sentence says itself what it is about; what the schema says of its own accord needs the field's name.
    const isSentence = (message: string): boolean => message.endsWith('.');
    const text = fields.map(({ path, message }) => (path === '' || isSentence(message) ? message : `${path}: ${message}`));
    return new HttpProblem('not-understood', text.join(' '), {
      fields,
    });
  }
  if (error instanceof ZelpitFault) return new HttpProblem('not-possible', error.message);
  const { type, status, code } = (error ?? {}) as { type?: string; status?: number; code?: string };
  if (type === 'entity.too.large') return tooLarge();
  if (type === 'entity.parse.failed') return new HttpProblem('not-understood', 'The request is no valid JSON.');
  if (code === uniqueViolation) return new HttpProblem('just-taken', 'Someone else changed this at the same moment. Reload the page, then try again.');
  if (isDiskFull(error)) return noRoom();
  if (isDatabaseAway(error)) return databaseAway;
  if (status !== undefined && status >= 400 && status < 500) return new HttpProblem('not-understood', 'The server could not read this request.', { status });
  return new HttpProblem('unforeseen', 'Something went wrong on the server. Nothing was changed. The details are in its log.');
}

/** What a log may hold of a fault: never the values that went with it, which are people's words. */
function withoutData(error: unknown): { type: string; code?: string; message: string; stack?: string } {
  const { name, code, message, stack } = (error ?? {}) as Partial<Error> & { code?: string };
  return { type: name ?? 'unknown', code, message: message ?? '', stack };
}

export const unknownRoute: RequestHandler = () => {
  throw new HttpProblem('not-found', 'The server has nothing at this address.');
};

export function problemHandler(logger: Logger): ErrorRequestHandler {
  return (error, _request, response, _next) => {
    const problem = problemFor(error);
    if (problem.status >= 500) logger.error({ fault: withoutData(error), status: problem.status }, 'request failed');
    if (response.headersSent) {
      // Too late for an answer: half of one is cut off, a whole one stands.
      if (!response.writableEnded) response.destroy();
      return;
    }
    const body: Problem = {
      type: problemType(problem.code),
      title: problems[problem.code].title,
      status: problem.status,
      detail: problem.detail,
      ...(problem.fields && { fields: [...problem.fields] }),
    };
    if (problem.retryAfter !== undefined) response.set('retry-after', String(problem.retryAfter));
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(body));
  };
}
