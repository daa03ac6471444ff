import { idSchema, type AnswerOf, type BodyOf, type FileKind, type QueryOf, type Role, type Route } from '@zelpit/contract';
import express, { Router, type Request, type RequestHandler, type Response } from 'express';
import { pipeline, Readable } from 'node:stream';
import type * as z from 'zod';
import type { AuditRepository, AuditEvent } from '../audit/audit.repository';
import type { Database, Isolation } from '../database/database';
import type { StudioRoom } from '../platform/studio-room';
import type { KeptAnswers } from './kept-answers';
import { HttpProblem, notFound, tooLarge } from './problem';

/** Who is signed in. A teacher or owner has a `teacherId`, a student a `studentId`. */
export interface Visitor {
  readonly role: Role;
  readonly studioId: string;
  readonly studioName: string;
  readonly name: string;
  readonly teacherId?: string;
  readonly studentId?: string;
}

/** A request to one route, read by its schemas. */
export interface RequestTo<R extends Route> {
  readonly request: Request;
  readonly query: QueryOf<R>;
  readonly body: BodyOf<R>;
}

/** The same behind the sign-in. */
export interface RequestBy<R extends Route> extends RequestTo<R> {
  readonly visitor: Visitor;
}

/** An answer of the route's own, with what it did for the list of changes. */
export type Answer<R extends Route> = AnswerOf<R> & Beside;

interface Beside {
  readonly audit?: AuditEvent;
  readonly headers?: Readonly<Record<string, string>>;
  /** Under which name a browser keeps it. */
  readonly fileName?: string;
}

/** An answer, with its status as the contract spells it. */
export const respond = <const S extends number, B>(status: S, body: B, beside: Beside = {}): { readonly status: S; readonly body: B } & Beside => ({
  status,
  body,
  ...beside,
});

/** How a route behind the sign-in is served. */
export interface HowServed {
  /** What may refuse before the body is read. */
  readonly before?: readonly RequestHandler[];
  /** What its transaction needs; each statement its own moment where it is absent. */
  readonly isolation?: Isolation;
}

export interface EndpointParts {
  readonly database: Database;
  readonly keptAnswers: KeptAnswers;
  readonly audit: AuditRepository;
  /** Whether a studio has room for what comes. */
  readonly room: StudioRoom;
  /** Who is signed in, or undefined. */
  readonly visitorOf: (request: Request) => Promise<Visitor | undefined>;
  /** Largest JSON, in bytes. */
  readonly jsonLimit: number;
  /** Largest file, in bytes. */
  readonly fileLimit: (kind: FileKind) => number;
}

/** Serves routes of the contract: reads by its schemas, lets in whom it names, keeps each write whole. */
export class Endpoints {
  readonly router = Router();

  constructor(private readonly parts: EndpointParts) {}

  /** An address that needs no sign-in. It opens its own transactions. */
  serveAnyone<R extends Route>(route: R, handle: (incoming: RequestTo<R>) => Promise<Answer<R>>, ...before: readonly RequestHandler[]): void {
    this.add(route, before, async (request, response) => send(response, route, await handle(read(route, request))));
  }

  /**
   * An address behind the sign-in. It runs in one transaction that sees its studio only; a write with its entry in the list of changes and its kept answer.
   */
  serve<R extends Route>(route: R, handle: (incoming: RequestBy<R>) => Promise<Answer<R>>, how: HowServed = {}): void {
    this.servePrepared(route, async () => undefined, handle, how);
  }

  /** The same for what has to be read at length first: `prepare` runs before the transaction begins, so that none is held while something is parsed. */
  servePrepared<R extends Route, P>(
    route: R,
    prepare: (incoming: RequestBy<R>) => Promise<P>,
    handle: (incoming: RequestBy<R>, prepared: P) => Promise<Answer<R>>,
    { before = [], isolation }: HowServed = {},
  ): void {
    const letIn: RequestHandler = async (request, response, next) => {
      response.locals['visitor'] = await this.letIn(route, request);
      next();
    };
    this.add(route, [letIn, ...before], async (request, response) => {
      const visitor = response.locals['visitor'] as Visitor;
      const incoming = { ...read(route, request), visitor };
      const prepared = await prepare(incoming);
      const work = (): Promise<Answer<R>> => handle(incoming, prepared);
      const isRead = route.method === 'get';
      const whole = (): Promise<Answer<R>> => (isRead ? work() : this.writeOnce(incoming, work));
      send(response, route, await this.parts.database.inStudio(visitor.studioId, whole, isolation, isRead ? 'READ ONLY' : 'READ WRITE'));
    });
  }

  private async writeOnce<R extends Route>(incoming: RequestBy<R>, work: () => Promise<Answer<R>>): Promise<Answer<R>> {
    const { visitor, request } = incoming;
    const askedBy = visitor.teacherId ?? visitor.studentId;
    if (askedBy === undefined) throw notSignedIn();
    const answer = await this.parts.keptAnswers.once(request, askedBy, visitor.studioId, async () => {
      const { status, body, audit } = (await work()) as { status: number; body: unknown; audit?: AuditEvent };
      if (audit !== undefined) await this.parts.audit.add(visitor, audit);
      return { status, body };
    });
    return answer as unknown as Answer<R>;
  }

  private async letIn(route: Route, request: Request): Promise<Visitor> {
    const visitor = await this.parts.visitorOf(request);
    if (visitor === undefined) throw notSignedIn();
    if (route.who !== 'anyone' && !route.who.includes(visitor.role)) throw notForThem(visitor.role);
    return visitor;
  }

  private add(route: Route, before: readonly RequestHandler[], handle: (request: Request, response: Response) => Promise<void>): void {
    const path = route.path.replace(/\{(\w+)\}/g, ':$1');
    this.router[route.method](path, ...before, ...this.bodyReaders(route), handle);
  }

  /** Refuses what the studio has no room for, before it comes in. What is taken away makes room, and a read takes none. */
  private readonly hasRoom: RequestHandler = async (request, response, next) => {
    const visitor = response.locals['visitor'] as Visitor | undefined;
    try {
      if (visitor !== undefined) await this.parts.room.take(visitor.studioId, Number(request.get('content-length') ?? 0));
    } catch (error) {
      response.set('connection', 'close');
      throw error;
    }
    next();
  };

  private bodyReaders(route: Route): RequestHandler[] {
    if (route.method === 'get') return [];
    const { jsonLimit, fileLimit } = this.parts;
    const hasRoom: RequestHandler[] = route.method === 'delete' ? [] : [this.hasRoom];
    if (route.isStreamed === true && typeof route.body === 'string') return [refuseLong(fileLimit(route.body)), ...hasRoom];
    if (typeof route.body === 'string') return [refuseLong(fileLimit(route.body)), ...hasRoom, express.raw({ type: () => true, limit: fileLimit(route.body) })];
    return [refuseLong(jsonLimit), ...hasRoom, express.json({ limit: jsonLimit, type: 'application/json' }), expectJson];
  }
}

export const notSignedIn = (): HttpProblem => new HttpProblem('not-signed-in', 'Sign in first.');

const refusals: Readonly<Record<Role, string>> = {
  owner: 'An owner of the studio cannot do this.',
  teacher: 'Only an owner of the studio can do this.',
  substitute: 'A substitute reads and holds lessons. Only a teacher of the studio can do this.',
  student: 'Only a teacher can do this.',
  parent: 'A parent sees what was asked and done, and changes nothing.',
};
const notForThem = (role: Role): HttpProblem => new HttpProblem('not-allowed', refusals[role]);

/** Refuses a body by the length that it announces, before it comes in; Express itself would read it off to its end. */
const refuseLong =
  (limit: number): RequestHandler =>
  (request, response, next) => {
    if (Number(request.get('content-length') ?? 0) > limit) {
      response.set('connection', 'close');
      throw tooLarge();
    }
    next();
  };

/** A body that is no JSON is refused with a sentence. */
const expectJson: RequestHandler = (request, _response, next) => {
  const hasBody = Number(request.get('content-length') ?? 0) > 0 || request.get('transfer-encoding') !== undefined;
  if (request.body === undefined && hasBody)
    throw new HttpProblem('wrong-media-type', 'This address takes JSON: send it with the content type application/json.');
  next();
};

function read<R extends Route>(route: R, request: Request): RequestTo<R> {
  const query = route.query?.parse(request.query) as QueryOf<R>;
  const body = (isSchema(route.body) ? route.body.parse(request.body) : undefined) as BodyOf<R>;
  return { request, query, body };
}

const isSchema = (body: Route['body']): body is z.ZodType => body !== undefined && typeof body !== 'string';

const fileTypes: Readonly<Record<FileKind, string>> = {
  abc: 'text/vnd.abc; charset=utf-8',
  zip: 'application/zip',
  sound: 'audio/wav',
  'long-sound': 'audio/wav',
  any: 'application/octet-stream',
};

function send<R extends Route>(response: Response, route: R, answer: Answer<R>): void {
  const { status, body, headers, fileName } = answer as { status: number; body: unknown } & Beside;
  const kind = route.answers[status];
  if (fileName !== undefined) response.attachment(fileName);
  if (headers !== undefined) response.set(headers);
  response.status(status);
  if (body === undefined) response.end();
  else if (body instanceof Readable) sendPieces(response.type(fileTypes[kind as FileKind]), body);
  else if (typeof kind === 'string') response.type(fileTypes[kind]).send(typeof body === 'string' ? body : Buffer.from(body as Uint8Array));
  else response.json(body);
}

/** As fast as the other side takes it; where it goes away or a piece fails, the answer is cut off, which a browser tells from a whole one. */
function sendPieces(response: Response, pieces: Readable): void {
  pipeline(pieces, response, () => response.destroy());
}

/** The id in an address; one that is no id names nothing that is here. */
export function idOf(request: Request, thing: string): string {
  const parsed = idSchema.safeParse(request.params['id']);
  if (!parsed.success) throw notFound(thing);
  return parsed.data;
}
