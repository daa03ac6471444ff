import { tokenHeader, type Role } from '@zelpit/contract';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import { createHmac, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import type { Pool } from 'pg';
import type { Visitor } from '../http/endpoints';
import { HttpProblem } from '../http/problem';
import type { AccountRepository } from './account.repository';
import { SessionStore } from './session-store';

declare module 'express-session' {
  interface SessionData {
    token: string;
    /** When somebody signed in, in ms. */
    since: number;
    /** The studio that is open. */
    studioId: string;
    teacherId: string;
    studentId: string;
    /** True for a parent, who only looks. */
    isParent: boolean;
    /** By what a teacher names this session of a student's: its own id is a secret. */
    tablet: string;
    /** Who it is of now, as the store found it; null for somebody who no longer belongs to the studio. Never stored. */
    seen: { readonly name: string; readonly role: Role; readonly studio: string } | null;
    /** What they might do when the session got its id. */
    role: Role;
  }
}

const day = 24 * 3600 * 1000;
/** However much a session is used, it ends after so long: a teacher's, and that of a student's own tablet. */
export const sessionLife = { teacher: 30 * day, student: 365 * day } as const;

export interface SessionSettings {
  readonly secret: string;
  /** True where people reach the server by https: then cookies go nowhere else. */
  readonly isSecure: boolean;
}

/** Sessions and the tokens that pages send back. A browser that only looks stores nothing here. */
export class Sessions {
  private readonly cookie: { readonly httpOnly: true; readonly sameSite: 'lax'; readonly secure: boolean; readonly path: '/' };
  private readonly names: { readonly session: string; readonly visit: string };

  constructor(private readonly settings: SessionSettings) {
    this.cookie = { httpOnly: true, sameSite: 'lax', secure: settings.isSecure, path: '/' };
    // A browser takes a name that begins so over https only, for this host only.
    const prefix = settings.isSecure ? '__Host-' : '';
    this.names = { session: `${prefix}zelpit`, visit: `${prefix}zelpit-visit` };
  }

  /** A cookie that scripts cannot read and other sites do not send; the session itself lies in PostgreSQL. */
  middleware(pool: Pool): RequestHandler {
    const { secret, isSecure } = this.settings;
    return session({
      ...{ name: this.names.session, secret, store: new SessionStore(pool), resave: false, saveUninitialized: false, rolling: false },
      cookie: { ...this.cookie, maxAge: sessionLife.teacher },
      // That a request came by https is said by the proxy before the server.
      ...(isSecure && { proxy: true }),
    });
  }

  /** The token that a page must send back with every write: the session's own, or, before anybody has signed in, one made from a cookie of the visit. */
  tokenFor(request: Request): string {
    const own = this.ownToken(request);
    if (own !== undefined) return own;
    const visit = this.visitOf(request) ?? randomBytes(24).toString('base64url');
    request.res?.cookie(this.names.visit, visit, this.cookie);
    return this.tokenOf(visit);
  }

  /** Refuses a write that does not carry that token. */
  readonly requireToken: RequestHandler = (request, _response, next) => {
    if (reading.has(request.method)) {
      next();
      return;
    }
    const visit = this.visitOf(request);
    const wanted = Buffer.from(this.ownToken(request) ?? (visit === undefined ? '' : this.tokenOf(visit)));
    const sent = Buffer.from(request.get(tokenHeader) ?? '');
    if (wanted.length === 0 || sent.length !== wanted.length || !timingSafeEqual(sent, wanted))
      throw new HttpProblem('page-too-old', 'This page is out of date. Reload it and try again.');
    next();
  };

  /** Ends the session of this browser. */
  async end(request: Request): Promise<void> {
    await new Promise<void>((resolve, reject) => request.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve())));
    request.res?.clearCookie(this.names.session, this.cookie);
  }

  private ownToken(request: Request): string | undefined {
    // Gone where the session was just ended.
    return (request.session as Request['session'] | undefined)?.token;
  }

  private tokenOf(visit: string): string {
    return createHmac('sha256', this.settings.secret).update(`visit ${visit}`).digest('base64url');
  }

  private visitOf(request: Request): string | undefined {
    const cookies = (request.get('cookie') ?? '').split(';').map((each) => each.trim());
    const found = cookies.find((each) => each.startsWith(`${this.names.visit}=`))?.slice(this.names.visit.length + 1);
    return found !== undefined && /^[\w-]{20,60}$/.test(found) ? found : undefined;
  }
}

const reading = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Who is signed in and still belongs to a studio: an account may have gone since. */
export function visitorOf(accounts: AccountRepository): (request: Request) => Promise<Visitor | undefined> {
  return async (request) => {
    const { studioId, teacherId, studentId, isParent, since = Date.now(), seen } = request.session;
    if (studioId === undefined) return undefined;
    if (Date.now() - since > (teacherId === undefined ? sessionLife.student : sessionLife.teacher)) return undefined;
    if (seen === null) return undefined;
    if (seen !== undefined)
      return {
        role: isParent === true && seen.role === 'student' ? 'parent' : seen.role,
        studioId,
        studioName: seen.studio,
        name: seen.name,
        ...(teacherId === undefined ? { studentId } : { teacherId }),
      };
    // Somebody who has just signed in was not yet found by the store.
    if (teacherId !== undefined) return accounts.teacherVisitor(studioId, teacherId);
    const student = studentId === undefined ? undefined : await accounts.studentVisitor(studioId, studentId);
    return student === undefined || isParent !== true ? student : { ...student, role: 'parent' };
  };
}

/** Who is signed in, and in which studio. */
export type SignedIn = { readonly studioId: string } & ({ readonly teacherId: string } | { readonly studentId: string; readonly isParent?: true });

/** A fresh session for whoever has just shown who they are: the cookie of before holds no more. */
export async function signInAs(request: Request, who: SignedIn): Promise<void> {
  await regenerate(request);
  const { session: fresh } = request;
  fresh.cookie.maxAge = 'teacherId' in who ? sessionLife.teacher : sessionLife.student;
  Object.assign(fresh, who, { token: randomBytes(24).toString('base64url'), since: Date.now(), ...('studentId' in who && { tablet: randomUUID() }) });
  await save(request);
}

/** The same session under a new id: whoever knew the old one holds nothing any more. The page's token stays. */
export async function renew(request: Request, role: Role): Promise<void> {
  const { token, since, studioId, teacherId, studentId, isParent, tablet } = request.session;
  await regenerate(request);
  Object.assign(request.session, { token, since, studioId, teacherId, studentId, isParent, tablet, role });
  await save(request);
}

/** Other rights than the session was last seen with come with a new id. */
export async function keepRights(request: Request, role: Role): Promise<void> {
  if (request.session.role === undefined) request.session.role = role;
  else if (request.session.role !== role) await renew(request, role);
}

function regenerate(request: Request): Promise<void> {
  return new Promise((resolve, reject) => request.session.regenerate((error: unknown) => (error ? reject(error as Error) : resolve())));
}

function save(request: Request): Promise<void> {
  return new Promise((resolve, reject) => request.session.save((error: unknown) => (error ? reject(error as Error) : resolve())));
}
