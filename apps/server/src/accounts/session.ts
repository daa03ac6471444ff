import connectPgSimple from 'connect-pg-simple';
import { tokenHeader } from '@zelpit/contract';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import type { Pool } from 'pg';
import type { Visitor } from '../http/endpoints';
import { HttpProblem } from '../http/problem';
import type { AccountRepository } from './account.repository';

declare module 'express-session' {
  interface SessionData {
    token: string;
    teacherId: string;
    studentId: string;
  }
}

const fortnight = 14 * 24 * 3600 * 1000;

/** A cookie that scripts cannot read and other sites do not send; the session itself lies in PostgreSQL. */
export function sessions(pool: Pool, secret: string): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: 'zelpit',
    secret,
    store: new Store({ pool, tableName: 'session', pruneSessionInterval: 3600, errorLog: () => undefined }),
    resave: false,
    saveUninitialized: false,
    rolling: false,
    cookie: { httpOnly: true, sameSite: 'lax', secure: false, maxAge: fortnight, path: '/' },
  });
}

/** The token that a page must send back with every write. */
export function csrfToken(request: Request): string {
  request.session.token ??= randomBytes(24).toString('base64url');
  return request.session.token;
}

const reading = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Refuses a write that does not carry the session's token. */
export const requireToken: RequestHandler = (request, _response, next) => {
  if (reading.has(request.method)) {
    next();
    return;
  }
  const sent = Buffer.from(request.get(tokenHeader) ?? '');
  const wanted = Buffer.from(request.session.token ?? '');
  if (wanted.length === 0 || sent.length !== wanted.length || !timingSafeEqual(sent, wanted)) {
    throw new HttpProblem('page-too-old', 'This page is out of date. Reload it and try again.');
  }
  next();
};

/** Who is signed in and still belongs to a studio: an account may have gone since. */
export function visitorOf(accounts: AccountRepository): (request: Request) => Promise<Visitor | undefined> {
  return async (request) => {
    const { teacherId, studentId } = request.session;
    if (teacherId !== undefined) return accounts.teacherVisitor(teacherId);
    return studentId === undefined ? undefined : accounts.studentVisitor(studentId);
  };
}

/** A fresh session for whoever has just shown who they are: the cookie of before holds no more. */
export async function signInAs(request: Request, who: { readonly teacherId: string } | { readonly studentId: string }): Promise<void> {
  await startFresh(request);
  csrfToken(request);
  Object.assign(request.session, who);
  await saveSession(request);
}

export function startFresh(request: Request): Promise<void> {
  return new Promise((resolve, reject) => request.session.regenerate((error: unknown) => (error ? reject(error as Error) : resolve())));
}

export function saveSession(request: Request): Promise<void> {
  return new Promise((resolve, reject) => request.session.save((error: unknown) => (error ? reject(error as Error) : resolve())));
}
